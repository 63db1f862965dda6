"""What a comparison sets beside its reference: developers, stocks or batches, by name."""

from __future__ import annotations

import re
from dataclasses import dataclass

from vadrin.app.library.named_records import batch_named, developer_phrased, stock_named
from vadrin.core.planning.test_kinds import INTERLEAVED, OWN_ROLLS
from vadrin.notebook.records.all_records import Test
from vadrin.notebook.store import Notebook

COMPARED = ("developers", "stocks", "batches")
MOST = 11


def compared_names(test: Test) -> tuple[str, ...]:
    """The names typed, with commas, semicolons or ``and`` between them."""
    pieces = re.split(r";|,\s+|\s+and\s+", test.against)
    return tuple(p.strip() for p in pieces if p.strip())


def on_twins(test: Test) -> bool:
    """Whether every other strip is shot with a second camera."""
    return test.arrangement == INTERLEAVED or test.kind in OWN_ROLLS


@dataclass(frozen=True)
class OtherMaterial:
    """By which records a strip differs from its test; None where it does not."""

    stock_id: int | None = None
    batch_id: int | None = None
    developer_id: int | None = None


def compared_material(notebook: Notebook, test: Test, name: str) -> OtherMaterial:
    """The film or chemistry with a name, written where it is new. Inside `change`."""
    if test.compared == "stocks":
        stock, _, batch = name.partition(" batch ")
        film = stock_named(notebook, stock.strip())
        kept = batch_named(notebook, film.id, batch.strip()).id if batch.strip() else None
        return OtherMaterial(film.id, kept)
    if test.compared == "batches":
        return OtherMaterial(batch_id=batch_named(notebook, test.stock_id, name).id)
    return OtherMaterial(developer_id=developer_phrased(notebook, name).id)
