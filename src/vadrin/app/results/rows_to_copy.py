"""The rows of an answer as tab-separated text, for a table elsewhere."""

from __future__ import annotations

from collections.abc import Sequence

from vadrin.app.descriptions import own_answer
from vadrin.app.document.state import State
from vadrin.app.results.metric_rows import SHOWN_FIGURES, strip_cell
from vadrin.app.results.push_rows import push_lines
from vadrin.core.process.minutes import minutes_text


def as_rows(heads: Sequence[str], rows: Sequence[Sequence[str]]) -> str:
    """Heads and rows, a line each, their cells a tab apart."""
    lines = (heads, *rows)
    return "".join("\t".join(" ".join(cell.split()) for cell in line) + "\n" for line in lines)


def answer_rows(state: State) -> str:
    """Every row behind an answer, table by table; empty where there is none yet."""
    if state.analysis is None:
        return ""
    own = own_answer(state)
    if own is not None:
        tables = [t for t in (own.table, *own.more) if t is not None]
        return "\n".join(as_rows(t.heads, t.rows) for t in tables)
    return "\n".join(part for part in (_pushes(state), _strips(state)) if part)


def _pushes(state: State) -> str:
    lines = push_lines(state.settled(), state.loaded.test.push_rule)
    rows = [(x.name, x.index, x.time.with_spread, x.loss, str(x.verdict or "")) for x in lines]
    return as_rows(("", "Shoot at EI", "Develop", "Shadow detail", "Shadows"), rows) if rows else ""


def _strips(state: State) -> str:
    strips = state.settled().strips
    rows = [
        (
            strip.label,
            "" if strip.time_min is None else minutes_text(strip.time_min, exact=True),
            *(strip_cell(strip, figure).with_spread for figure in SHOWN_FIGURES),
        )
        for strip in strips
    ]
    return as_rows(("Strip", "Time", *(f.name for f in SHOWN_FIGURES)), rows) if rows else ""
