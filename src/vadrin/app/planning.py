"""Starting a test, and laying its strips out frame by frame."""

from __future__ import annotations

import secrets
import string
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from vadrin.core.exposure import bracket
from vadrin.notebook.records import PLANNED, Developer, Frame, Stock, Strip, Test
from vadrin.notebook.store import Notebook

DEFAULT_TIMES = (6.0, 8.0, 11.0, 15.0)
MOST_STRIPS = 12


class EditRefusedError(Exception):
    """An edit that would lose something; the text says what, and the way round."""


def now() -> str:
    """The time in UTC as the notebook writes it."""
    return datetime.now(UTC).isoformat(timespec="seconds")


def fresh_uid() -> str:
    """A name for a test that no other notebook gives."""
    return secrets.token_hex(8)


def stock_named(notebook: Notebook, name: str, box_speed: float | None = None) -> Stock:
    """The stock with a name, written if it is new. Inside `Notebook.change`."""
    known = notebook.all(Stock, name=name)
    if known:
        return known[0]
    return notebook.add(Stock(name=name, box_speed=box_speed or 100.0))


def developer_named(notebook: Notebook, name: str, dilution: str = "") -> Developer:
    """The developer with a name and dilution, written if it is new. Inside `change`."""
    known = notebook.all(Developer, name=name, dilution=dilution)
    return known[0] if known else notebook.add(Developer(name=name, dilution=dilution))


def strip_labels(count: int) -> list[str]:
    """A, B, C … and on with A2, B2 … ."""
    letters = string.ascii_uppercase
    return [letters[i % 26] + (str(i // 26 + 1) if i >= 26 else "") for i in range(count)]


def frames_of_plan(test: Test) -> list[Frame]:
    """The frames one strip of a plan holds: blanks first, then the bracket."""
    frames = [Frame(name=f"b{i + 1}") for i in range(test.blanks)]
    for i, stops in enumerate(bracket(test.first_stop, test.last_stop, test.step)):
        frames.append(Frame(name=str(i + 1), exposure_index=test.exposure_index, stops=stops))
    return [replace(frame, position=i) for i, frame in enumerate(frames)]


def new_test(
    notebook: Notebook,
    stock_name: str,
    developer_name: str,
    dilution: str = "",
    exposure_index: float | None = None,
    times: tuple[float, ...] = DEFAULT_TIMES,
) -> Test:
    """Start a test of development times and lay out its strips, as one edit."""
    with notebook.change("new test"):
        stock = stock_named(notebook, stock_name, exposure_index)
        developer = developer_named(notebook, developer_name, dilution)
        test = notebook.add(
            Test(
                uid=fresh_uid(),
                stock_id=stock.id,
                developer_id=developer.id,
                created_at=now(),
                exposure_index=exposure_index or stock.box_speed,
            )
        )
        lay_out(notebook, test, times)
    return test


def lay_out(notebook: Notebook, test: Test, times: tuple[float, ...]) -> None:
    """Write the strips of a plan for the given minutes. Inside `Notebook.change`."""
    planned = frames_of_plan(test)
    for position, (label, minutes) in enumerate(zip(strip_labels(len(times)), times, strict=True)):
        strip = notebook.add(
            Strip(test_id=test.id, position=position, label=label, planned_min=minutes)
        )
        for frame in planned:
            notebook.add(replace(frame, strip_id=strip.id))


@dataclass(frozen=True)
class PlanEdit:
    """A wished-for plan: the test's own fields, the times, the film and the developer."""

    test: Test
    times: tuple[float, ...]
    stock_name: str
    developer_name: str
    dilution: str


def _started(notebook: Notebook, strips: list[Strip]) -> bool:
    frames = notebook.all_of(Frame, "strip_id", [s.id for s in strips])
    return any(f.state != PLANNED for f in frames)


def apply_plan(notebook: Notebook, wish: PlanEdit, label: str) -> None:
    """Change a plan, laying the strips out anew where the frames change.

    Raises
    ------
    EditRefusedError
        If frames were exposed already and the change would move them.
    """
    before = notebook.get(Test, wish.test.id)
    strips = notebook.all(Strip, test_id=wish.test.id)
    old_times = tuple(s.planned_min or 0.0 for s in strips)
    moved = before is None or frames_of_plan(before) != frames_of_plan(wish.test)
    recut = moved or len(old_times) != len(wish.times)
    if recut and _started(notebook, strips):
        raise EditRefusedError(
            "Frames of this plan are exposed already, so its script stays. "
            "Start a new test for another bracket."
        )
    with notebook.change(label):
        stock = stock_named(notebook, wish.stock_name, wish.test.exposure_index)
        developer = developer_named(notebook, wish.developer_name, wish.dilution)
        test = replace(wish.test, stock_id=stock.id, developer_id=developer.id)
        notebook.put(test)
        if recut:
            for strip in strips:
                notebook.remove(strip)
            lay_out(notebook, test, wish.times)
        else:
            for strip, minutes in zip(strips, wish.times, strict=True):
                notebook.put(replace(strip, planned_min=minutes))
