"""The set-up of the enlarger that must not move: typed once, locked by the first strip."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from vadrin.app.document.stations import key_to
from vadrin.app.entry.exposures import aperture_typed
from vadrin.app.entry.times import seconds_typed
from vadrin.app.library.cupboard import title_of
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.stamps import now
from vadrin.core.printing.strip_exposures import for_other_base, for_other_size
from vadrin.errors import EntryError
from vadrin.notebook.records import Enlarger, Paper, PrintSetup, PrintStrip, Workprint
from vadrin.notebook.store import Notebook

NOT_SAID = "not set"
SETUP_FIELDS = (
    "enlarger",
    "image size",
    "aperture",
    "grade",
    "paper",
    "paper batch",
    "paper developer",
    "its time",
)
_TEXTS = {
    "image size": "image_size",
    "grade": "grade",
    "paper batch": "paper_batch",
    "paper developer": "developer",
}
_LINKS: dict[str, tuple[str, type[Any]]] = {
    "enlarger": ("enlarger_id", Enlarger),
    "paper": ("paper_id", Paper),
}


@dataclass(frozen=True)
class PrintRoom:
    """A series of prints: its set-up, and what was made at it, the oldest first."""

    setup: PrintSetup
    strips: tuple[PrintStrip, ...]
    prints: tuple[Workprint, ...]

    @property
    def locked(self) -> bool:
        """Whether a strip was made, so that nothing may move."""
        return bool(self.setup.locked_at)


def print_rooms(notebook: Notebook, loaded: LoadedTest) -> list[PrintRoom]:
    """Every series of a test, the newest last."""
    setups = sorted(notebook.all(PrintSetup, test_id=loaded.test.id), key=lambda s: s.id)
    return [
        PrintRoom(
            setup,
            tuple(sorted(notebook.all(PrintStrip, setup_id=setup.id), key=lambda s: s.id)),
            tuple(sorted(notebook.all(Workprint, setup_id=setup.id), key=lambda w: w.id)),
        )
        for setup in setups
    ]


def present_room(notebook: Notebook, loaded: LoadedTest) -> PrintRoom:
    """The series that goes on; one not written yet where there is none."""
    rooms = [r for r in print_rooms(notebook, loaded) if not r.setup.closed_at]
    paper = loaded.test.paper_id
    return (
        rooms[-1]
        if rooms
        else PrintRoom(PrintSetup(test_id=loaded.test.id, paper_id=paper), (), ())
    )


def written_setup(notebook: Notebook, loaded: LoadedTest) -> PrintSetup:
    """The set-up of the present series, written if it is new. Inside `Notebook.change`."""
    setup = present_room(notebook, loaded).setup
    return setup if setup.id else notebook.add(setup)


def setup_shown(notebook: Notebook, setup: PrintSetup, name: str) -> str:
    """A part of the set-up as it is read and typed."""
    if name in _TEXTS:
        return str(getattr(setup, _TEXTS[name])) or NOT_SAID
    if name in _LINKS:
        field, kind = _LINKS[name]
        record = notebook.get(kind, getattr(setup, field) or 0)
        return title_of(notebook, record) if record else NOT_SAID
    if name == "aperture":
        return f"f/{setup.aperture:g}" if setup.aperture else NOT_SAID
    return f"{setup.developer_s:g} s" if setup.developer_s else NOT_SAID


def setup_choices(notebook: Notebook, name: str) -> list[str]:
    """What the arrow keys step through; empty where one types."""
    if name not in _LINKS:
        return []
    return [NOT_SAID, *(title_of(notebook, r) for r in notebook.all(_LINKS[name][1]))]


def type_setup(notebook: Notebook, loaded: LoadedTest, name: str, words: str) -> str:
    """Change a part of the set-up. Once a strip was made that ends the series, and a new one
    begins; gives what is to be said of that.

    Raises
    ------
    EntryError
        If it is nothing that can stand there.
    """
    room = present_room(notebook, loaded)
    changes = _typed(notebook, name, words.strip())
    if all(getattr(room.setup, field) == value for field, value in changes.items()):
        return ""
    with notebook.change(f"print set-up: {name}"):
        if not room.locked:
            notebook.put(replace(written_setup(notebook, loaded), **changes))
            return ""
        notebook.put(replace(room.setup, closed_at=now(), note=f"ended: {name} changed"))
        fresh = replace(
            room.setup,
            id=0,
            locked_at="",
            closed_at="",
            black_s=None,
            black_low_s=None,
            black_high_s=None,
            black_way="",
            base_fog=None,
            note="",
            **changes,
        )
        notebook.add(fresh)
    return (
        f"The {name} has changed, so the earlier series is closed. Make a new test strip for "
        "maximum black."
    )


def _typed(notebook: Notebook, name: str, words: str) -> dict[str, Any]:
    empty = words in ("", NOT_SAID)
    if name in _TEXTS:
        return {_TEXTS[name]: "" if empty else words}
    if name in _LINKS:
        field, kind = _LINKS[name]
        if empty:
            return {field: None}
        known = {title_of(notebook, r).lower(): r.id for r in notebook.all(kind)}
        if words.lower() not in known:
            raise EntryError(
                f"there is no {name} called “{words}” in the cupboard yet ({key_to('cupboard')})"
            )
        return {field: known[words.lower()]}
    if name == "aperture":
        plain = words.lower().removeprefix("f/").removeprefix("f")
        return {"aperture": None if empty else aperture_typed(plain)}
    return {"developer_s": None if empty else seconds_typed(words)}


def lock_setup(notebook: Notebook, loaded: LoadedTest) -> PrintSetup:
    """Lock the set-up, as its first strip is made. Inside `Notebook.change`."""
    setup = written_setup(notebook, loaded)
    return setup if setup.locked_at else notebook.put(replace(setup, locked_at=now()))


def black_words(setup: PrintSetup) -> str:
    """The shortest time for maximum black in a sentence."""
    if setup.black_s is None:
        return "The shortest time for maximum black is not found yet: everything is judged at it."
    words = f"Maximum black from {seconds_text(setup.black_s)}"
    if setup.black_low_s and setup.black_high_s:
        words += f" ({seconds_text(setup.black_low_s)} to {seconds_text(setup.black_high_s)})"
    fog = "" if setup.base_fog is None else f", through base plus fog {setup.base_fog:.2f}"
    return f"{words}, {setup.black_way}{fog}. Use this time for all prints."


def seconds_text(seconds: float) -> str:
    """``8.5 s``, ``12 s``."""
    return f"{seconds:.1f} s" if seconds < 10 else f"{seconds:.0f} s"


def elsewhere_words(setup: PrintSetup, other_fog: float | None, other_size: str) -> str:
    """The time through another film's base, and at another size; empty where neither is asked."""
    if setup.black_s is None:
        return ""
    said = []
    if other_fog is not None and setup.base_fog is not None:
        seconds = for_other_base(setup.black_s, setup.base_fog, other_fog)
        said.append(f"Through base plus fog {other_fog:.2f}: {seconds_text(seconds)}.")
    elif other_fog is not None:
        said.append("The base plus fog it was found through is not known: read the blanks first.")
    if other_size:
        mine, other = _long_side(setup.image_size), _long_side(other_size)
        if mine is None or other is None:
            said.append("Say both sizes with their sides, such as 18 × 24 cm.")
        else:
            seconds = for_other_size(setup.black_s, mine, other)
            said.append(
                f"At {other_size}: about {seconds_text(seconds)}, by the area alone; make a strip."
            )
    return " ".join(said)


def _long_side(words: str) -> float | None:
    numbers = [
        float(n)
        for n in "".join(
            c if c.isdigit() or c == "." else " " for c in words.replace(",", ".")
        ).split()
        if n.strip(".")
    ]
    return max(numbers) if numbers and max(numbers) > 0 else None
