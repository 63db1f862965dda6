"""The wedge of the scanner in the cupboard: its densities, typed and kept."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from itertools import pairwise
from pathlib import Path

from vadrin.app.entry.densities import density_typed
from vadrin.errors import EntryError
from vadrin.formats.whole_file import safe_name, write_whole
from vadrin.notebook.records import Instrument
from vadrin.notebook.store import Notebook

_SCANNER = "scanner"


@dataclass(frozen=True)
class StepWedge:
    """Densities that are known, and what a scanner or camera made of them.

    Attributes
    ----------
    densities : tuple of float
    values : tuple of float
        Empty where the wedge lies beside the strip in the same picture.
    source : str
        The picture they were seen in; empty for the same one.
    """

    densities: tuple[float, ...] = ()
    values: tuple[float, ...] = ()
    source: str = ""


def wedge_typed(words: str) -> tuple[float, ...]:
    """The densities of a wedge's steps, in their order.

    Raises
    ------
    EntryError
    """
    parts = words.replace(";", " ").replace(", ", " ").split()
    steps = tuple(density_typed(p.rstrip(",")) for p in parts)
    if len(steps) < 4 or any(b <= a for a, b in pairwise(steps)):
        raise EntryError("type at least four densities that rise, such as 0.05 0.20 0.35 0.50")
    return steps


def steps_kept(notebook: Notebook) -> StepWedge:
    """The known steps of the scanner in the cupboard; none where it has none."""
    for kept in notebook.all(Instrument):
        try:
            told = json.loads(kept.calibration) if kept.kind == _SCANNER else {}
            if told.get("wedge"):
                values = tuple(float(v) for v in told.get("values", ()))
                steps = tuple(float(s) for s in told["wedge"])
                return StepWedge(steps, values, str(told.get("source", "")))
        except (ValueError, KeyError, TypeError, AttributeError):
            continue
    return StepWedge()


def keep_steps(notebook: Notebook, steps: StepWedge) -> None:
    """Remember known steps with the scanner in the cupboard, which is made where there is none."""
    kept = next((i for i in notebook.all(Instrument) if i.kind == _SCANNER), None)
    told = {"wedge": list(steps.densities), "values": list(steps.values), "source": steps.source}
    with notebook.change("the wedge of the scanner"):
        if kept is None:
            notebook.add(Instrument(name="Scanner", kind=_SCANNER, calibration=json.dumps(told)))
        else:
            notebook.put(replace(kept, calibration=json.dumps(told)))


def write_wedge_page(folder: Path) -> Path:
    """Write the page on which a wedge of one's own is made.

    Raises
    ------
    OSError
        If it cannot be written.
    """
    from vadrin.formats.reports.wedge_page_pdf import wedge_page_pdf

    target = folder / safe_name("a wedge of your own", ".pdf")
    write_whole(target, wedge_page_pdf())
    return target


def wedge_steps(notebook: Notebook) -> tuple[float, ...]:
    """The densities of the wedge in the cupboard, to lay beside a frame; empty for none."""
    kept = steps_kept(notebook)
    return kept.densities if not kept.source.startswith("a bracket") else ()
