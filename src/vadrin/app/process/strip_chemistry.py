"""Chemistry and agitation of single strips, where they are not the test's own."""

from __future__ import annotations

from dataclasses import replace
from typing import TypeVar

from vadrin.app.document.stations import key_to
from vadrin.app.library.cupboard import title_of
from vadrin.app.library.differences import NOT_SAID
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.reference_temperature import routine_of
from vadrin.errors import EntryError
from vadrin.notebook.records import Developer, Process, Strip, Test
from vadrin.notebook.store import Notebook

_DEVELOPER = "developer"
C = TypeVar("C", Developer, Process)


def chemistry_shown(notebook: Notebook, loaded: LoadedTest, strip: LoadedStrip) -> str:
    """The developer a strip was in, with its dilution."""
    own = notebook.get(Developer, strip.strip.developer_id or 0)
    return title_of(notebook, own or loaded.developer)


def chemistry_choices(notebook: Notebook) -> list[str]:
    """The developers in the cupboard."""
    known = [d for d in notebook.all(Developer) if d.role == _DEVELOPER]
    return [title_of(notebook, d) for d in known]


def _named(notebook: Notebook, kind: type[C], words: str) -> C | None:
    """The record of the cupboard that is called so; None for nothing typed."""
    typed = words.strip().lower()
    if not typed or typed == NOT_SAID:
        return None
    for record in notebook.all(kind):
        if title_of(notebook, record).lower() == typed:
            return record
    raise EntryError(f"there is no “{words.strip()}” in the cupboard yet ({key_to('cupboard')})")


def type_chemistry(notebook: Notebook, strip_id: int, words: str) -> None:
    """Write down which developer a strip was in; that of the test for nothing typed.

    Raises
    ------
    EntryError
        If there is no such developer in the cupboard.
    """
    strip, test = _found(notebook, strip_id)
    named = _named(notebook, Developer, words)
    own = named.id if named is not None and named.id != test.developer_id else None
    with notebook.change(f"chemicals of strip {strip.label}"):
        notebook.put(replace(strip, developer_id=own))


def agitation_shown(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """How a strip was agitated."""
    return strip.strip.agitation or loaded.test.agitation or NOT_SAID


def type_agitation(notebook: Notebook, strip_id: int, words: str) -> None:
    """Write down how a strip was agitated; as the test for nothing typed."""
    strip, test = _found(notebook, strip_id)
    plain = "" if words.strip() in (NOT_SAID, test.agitation) else words.strip()
    with notebook.change(f"agitation of strip {strip.label}"):
        notebook.put(replace(strip, agitation=plain))


def process_shown(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """The kept process a strip followed."""
    routine = routine_of(loaded, strip)
    return routine.name if routine else NOT_SAID


def process_choices(notebook: Notebook) -> list[str]:
    """The processes in the cupboard."""
    return [NOT_SAID, *(title_of(notebook, p) for p in notebook.all(Process))]


def type_process(notebook: Notebook, strip_id: int, words: str) -> None:
    """Write down which kept process a strip followed, as that of the test for nothing typed; it
    brings its own chemistry and agitation along.

    Raises
    ------
    EntryError
        If there is no such process in the cupboard.
    """
    strip, test = _found(notebook, strip_id)
    own = _named(notebook, Process, words)
    if own is None or own.id == test.process_id:
        changed = replace(strip, process_id=None)
    else:
        bath = own.developer_id if own.developer_id != test.developer_id else None
        moved = own.agitation if own.agitation != test.agitation else ""
        changed = replace(strip, process_id=own.id, developer_id=bath, agitation=moved)
    with notebook.change(f"process of strip {strip.label}"):
        notebook.put(changed)


def _found(notebook: Notebook, strip_id: int) -> tuple[Strip, Test]:
    strip = notebook.get(Strip, strip_id)
    test = notebook.get(Test, strip.test_id) if strip else None
    if strip is None or test is None:
        raise EntryError("that strip is gone")
    return strip, test


def together(loaded: LoadedTest) -> list[LoadedStrip]:
    """The strips that go through the next run together: of those not developed yet, the ones
    in the same chemistry with the same agitation as the first."""
    waiting = [s for s in loaded.strips if s.strip.time_min is None] or list(loaded.strips)

    def bath(strip: LoadedStrip) -> tuple[int | None, str, int | None]:
        return strip.strip.developer_id, strip.strip.agitation, strip.strip.process_id

    return [s for s in waiting if bath(s) == bath(waiting[0])] if waiting else []
