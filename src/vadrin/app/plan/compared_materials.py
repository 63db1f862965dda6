"""What a comparison sets beside its reference: developers, stocks or batches, by name."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.library.named_records import batch_named, developer_phrased, stock_named
from vadrin.core.planning.plan_request import Arrangement, Compared
from vadrin.core.planning.test_types import type_of
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook

MOST_COMPARED = 60


def on_twins(test: Test) -> bool:
    """Whether every other strip is shot with a second camera."""
    kind = type_of(test.kind)
    return test.arrangement is Arrangement.INTERLEAVED or (kind is not None and kind.own_rolls)


@dataclass(frozen=True)
class OtherMaterial:
    """By which records a strip differs from its test; None where it does not."""

    stock_id: int | None = None
    batch_id: int | None = None
    developer_id: int | None = None


def compared_material(notebook: Notebook, test: Test, name: str) -> OtherMaterial:
    """The film or chemistry with a name, written where it is new. Inside `change`."""
    if test.compared is Compared.STOCKS:
        stock, _, batch = name.partition(" batch ")
        film = stock_named(notebook, stock.strip())
        kept = batch_named(notebook, film.id, batch.strip()).id if batch.strip() else None
        return OtherMaterial(film.id, kept)
    if test.compared is Compared.BATCHES:
        return OtherMaterial(batch_id=batch_named(notebook, test.stock_id, name).id)
    return OtherMaterial(developer_id=developer_phrased(notebook, name).id)
