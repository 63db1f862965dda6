"""The process that film of a sort goes through by itself, until somebody says another."""

from __future__ import annotations

from dataclasses import replace

from vadrin.core.planning.test_types import type_of
from vadrin.core.process.process_kinds import ProcessKind, kind_of_process
from vadrin.notebook.records import Process, Stock, Test
from vadrin.notebook.store import Notebook

_OF_STOCK = {"colour negative": "colour negative"}
"""Kinds of film whose developer is no black-and-white one, with their kind of process."""


def with_usual_process(notebook: Notebook, test: Test, before: Test | None) -> Test:
    """A test whose film asks for a process of its own kind, with that. Inside `change`.

    The process is the one that the last such film in the same chemistry went through, else any
    of its kind, else one with the usual temperature and steps, written into the cupboard. A
    process that was only there for the film before goes with that film; one that somebody took
    away does not come back while film and developer stay.

    Parameters
    ----------
    notebook : Notebook
    test : Test
        Its film and developer already named.
    before : Test, optional
        As it was until now.
    """
    wanted, had = _asked_by(notebook, test), _asked_by(notebook, before)
    present = notebook.get(Process, test.process_id) if test.process_id else None
    if wanted is None:
        left_over = present is not None and present.kind == had
        return replace(test, process_id=None, agitation="") if left_over else test
    process = present if present is not None and present.kind == wanted else None
    new_film = before is None or before.stock_id != test.stock_id
    if before is not None and before.developer_id != test.developer_id:
        process = _in_this_bath(notebook, test, wanted) or process
    if process is None and new_film:
        process = process_of_kind(notebook, wanted)
    if process is None or process.id == test.process_id:
        return test
    return through(test, process)


def through(test: Test, process: Process) -> Test:
    """A test that follows a process: its agitation, vessel and water come with it."""
    return replace(
        test,
        process_id=process.id,
        agitation=process.agitation or test.agitation,
        vessel=process.vessel or test.vessel,
        water=process.water or test.water,
    )


def _asked_by(notebook: Notebook, test: Test | None) -> str | None:
    """The kind of process a test's film asks for; None for the usual one."""
    if test is None:
        return None
    kind, stock = type_of(test.kind), notebook.get(Stock, test.stock_id)
    of_type = kind.process_kind if kind is not None else ""
    if of_type == "reversal" and stock is not None and stock.kind == "paper":
        return "direct positive"
    return of_type or (_OF_STOCK.get(stock.kind) if stock is not None else None)


def _in_this_bath(notebook: Notebook, test: Test, kind: str) -> Process | None:
    """What the last test in the same developer went through, if it is of a kind."""
    of_kind = {p.id: p for p in notebook.all(Process) if p.kind == kind}
    others = [t for t in notebook.all(Test, developer_id=test.developer_id) if t.id != test.id]
    used = [of_kind[t.process_id] for t in others if t.process_id in of_kind]
    return used[-1] if used else None


def process_of_kind(notebook: Notebook, kind: str) -> Process:
    """The newest process of a kind; the usual one, written, where there is none. In `change`."""
    newest = next((p for p in notebook.all(Process)[::-1] if p.kind == kind), None)
    return newest or _written(notebook, kind_of_process(kind))


def _written(notebook: Notebook, kind: ProcessKind) -> Process:
    first = next(step for step in kind.steps if step.develops)
    return notebook.add(
        Process(
            name=f"{kind.title}, as usual",
            kind=kind.key,
            temperature_c=kind.temperature_c,
            agitation=first.agitation,
            note="The usual temperature and steps of its kind: set your own.",
        )
    )
