"""What a laboratory does with the film of a plan: its process by name, and the steps of it."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.entry.process_steps import TypedStep
from vadrin.app.library.laboratory_steps import keep_steps, own_steps
from vadrin.app.plan.usual_process import process_of_kind, through
from vadrin.core.process.process_kinds import KINDS, NEGATIVE, ProcessKind, kind_of_process
from vadrin.notebook.records import Process, Test
from vadrin.notebook.store import Notebook

_AS_USUAL, _UNNAMED = ", as usual", ", own steps"
"""End the name of a process that nobody has made their own, and of one that nobody has named."""


def usual_name(kind: ProcessKind) -> str:
    """What a process of a kind is called until somebody makes it their own."""
    return f"{kind.title}{_AS_USUAL}"


def process_shown(process: Process | None) -> str:
    """The name of a test's process; of the usual one where it follows none by name."""
    return process.name if process is not None else usual_name(NEGATIVE)


def with_process(notebook: Notebook, test: Test, name: str) -> Test:
    """A test that goes through the process with a name, or with the title of a kind.

    A name nobody knows is that of a new process like the one the test has now, or names steps
    of one's own that had no name yet. Inside `change`.
    """
    wanted = name.strip()
    if not wanted or wanted.lower() == usual_name(NEGATIVE).lower():
        return replace(test, process_id=None, agitation="")
    process = next((p for p in notebook.all(Process) if p.name.lower() == wanted.lower()), None)
    kind = next((k for k in KINDS.values() if wanted.lower() in (k.key, k.title)), None)
    if process is None and kind is not None:
        process = process_of_kind(notebook, kind.key)
    return through(test, process or _new(notebook, test, wanted))


def _new(notebook: Notebook, test: Test, name: str) -> Process:
    present = _present(notebook, test)
    if present is not None and present.name.endswith(_UNNAMED):
        return notebook.put(replace(present, name=name))
    if present is not None:
        made = notebook.add(replace(present, id=0, name=name, note=""))
        notebook.add_all(
            [replace(s, id=0, process_id=made.id) for s in own_steps(notebook, present)]
        )
        return made
    return notebook.add(Process(name=name, kind=NEGATIVE.key, temperature_c=NEGATIVE.temperature_c))


def with_steps(notebook: Notebook, test: Test, steps: tuple[TypedStep, ...]) -> Test:
    """A test whose process has steps of its laboratory's own. Inside `change`.

    The usual process stays what it is: the laboratory's becomes one of its own beside it.
    """
    process = _present(notebook, test)
    if process is None or process.name.endswith(_AS_USUAL):
        kind = kind_of_process(process.kind if process else "")
        process = _new(notebook, test, f"{kind.title}{_UNNAMED}")
    keep_steps(notebook, process, steps)
    return through(test, process)


def _present(notebook: Notebook, test: Test) -> Process | None:
    return notebook.get(Process, test.process_id) if test.process_id else None
