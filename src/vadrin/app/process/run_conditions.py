"""The conditions of a run in words: how it was agitated, in what, with what it was read."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from vadrin.app.document.stations import key_to
from vadrin.app.library.cupboard import title_of
from vadrin.app.library.differences import NOT_SAID
from vadrin.core.exposure.arithmetic import METER_CONSTANT
from vadrin.notebook.records import Bottle, Instrument, LightMeter, Paper, Process, Test
from vadrin.notebook.store import Notebook

TEXTS = {"agitation": "agitation", "vessel": "vessel", "water": "water"}
LINKS: dict[str, tuple[str, type[Any]]] = {
    "process": ("process_id", Process),
    "bottle": ("bottle_id", Bottle),
    "instrument": ("instrument_id", Instrument),
    "light meter": ("meter_id", LightMeter),
    "paper": ("paper_id", Paper),
}
CONDITIONS = (*TEXTS, *LINKS)


def condition_shown(notebook: Notebook, test: Test, name: str) -> str:
    """A condition as it is read and typed."""
    if name in TEXTS:
        return str(getattr(test, TEXTS[name])) or NOT_SAID
    field, kind = LINKS[name]
    record = notebook.get(kind, getattr(test, field) or 0)
    return title_of(notebook, record) if record else NOT_SAID


def condition_choices(notebook: Notebook, name: str) -> list[str]:
    """What the arrow keys step through; empty where one types."""
    if name in TEXTS:
        return []
    return [NOT_SAID, *(title_of(notebook, r) for r in notebook.all(LINKS[name][1]))]


def set_condition(notebook: Notebook, test: Test, name: str, words: str) -> Test:
    """Write a condition down, as one edit.

    A process brings its own agitation and vessel, a light meter its constant.

    Raises
    ------
    ValueError
        If there is no such thing in the cupboard.
    """
    typed = "" if words.strip() == NOT_SAID else words.strip()
    with notebook.change(f"change the {name}"):
        if name in TEXTS:
            changes: dict[str, Any] = {TEXTS[name]: typed}
        else:
            changes = _link(notebook, name, typed)
        return notebook.put(replace(test, **changes))


def _link(notebook: Notebook, name: str, typed: str) -> dict[str, Any]:
    field, kind = LINKS[name]
    if not typed:
        usual = {"meter_constant": METER_CONSTANT} if kind is LightMeter else {}
        return {field: None, **usual}
    found = next(
        (r for r in notebook.all(kind) if title_of(notebook, r).lower() == typed.lower()), None
    )
    if found is None:
        raise ValueError(
            f"there is no {name} called “{typed}” in the cupboard yet ({key_to('cupboard')})"
        )
    changes: dict[str, Any] = {field: found.id}
    if isinstance(found, LightMeter):
        changes["meter_constant"] = found.constant
    if isinstance(found, Process):
        kept = {"agitation": found.agitation, "vessel": found.vessel, "water": found.water}
        changes |= {key: value for key, value in kept.items() if value}
    return changes
