"""Notebooks that two people edit apart: ``python tools/two_people.py [HISTORIES] [SEED]``.

A notebook is copied, both copies are edited at random, and the two are merged, either way round.
Whatever somebody wrote must be there once: as it stands, or as one of two values that are said.
Leaves with 1 where anything was lost or doubled, or where the order of the two mattered.
"""

from __future__ import annotations

import shutil
import sys
import tempfile
from collections import Counter
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from random import Random
from typing import Any

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from vadrin.notebook.merge import MergeReport, everything_of, merge  # noqa: E402
from vadrin.notebook.record_tree import RecordTree  # noqa: E402
from vadrin.notebook.records import (  # noqa: E402
    DarkroomRun,
    Developer,
    Finding,
    Frame,
    Judgement,
    Note,
    Reading,
    RunEvent,
    Stock,
    Strip,
    Test,
)
from vadrin.notebook.store import Notebook  # noqa: E402

DEMO = Path(__file__).parents[1] / "src/vadrin/app/demo/demo.vadrin"
_MOST_EDITS = 14
Kept = tuple[str, ...]
"""What an edit wrote, so that it can be looked for: its kind, and words nobody else writes."""


def _called(book: Notebook, strip: Any) -> Kept:
    """A strip by what is the same in every copy: rows of two people's own may share a number."""
    test = book.get(Test, strip.test_id)
    return (test.uid if test else "", strip.label)


class Person:
    """Somebody who edits a copy, and remembers what they wrote."""

    def __init__(self, name: str, book: Notebook, random: Random) -> None:
        self.name, self.book, self.random = name, book, random
        self.wrote: dict[Kept, str] = {}
        self.minute = 0

    def now(self) -> str:
        """A moment of this person's own."""
        self.minute += 1
        seconds = 31 if self.name == "first" else 7
        return f"2026-12-01T{8 + self.minute // 60:02d}:{self.minute % 60:02d}:{seconds:02d}+00:00"

    def _one(self, kind: type[Any]) -> Any:
        return self.random.choice(self.book.all(kind))

    def _number(self) -> float:
        return round(self.random.uniform(0.1, 3.0), 6)

    def reads(self) -> None:
        """A density more."""
        value, frame = self._number(), self._one(Frame)
        at = len(self.book.all(Reading, frame_id=frame.id))
        self.book.add(Reading(frame_id=frame.id, position=at, density=value, read_at=self.now()))
        self.wrote["reading", f"{value}"] = "once"

    def writes(self) -> None:
        """A note."""
        words = f"{self.name} {self._number()}"
        self.book.add(Note(test_id=self._one(Test).id, written_at=self.now(), words=words))
        self.wrote["note", words] = "once"

    def develops(self) -> None:
        """The time a strip really had."""
        strip, minutes = self._one(Strip), self._number()
        self.book.put(replace(strip, time_min=minutes))
        self.wrote["time", *_called(self.book, strip)] = f"{minutes:g}"

    def ticks(self) -> None:
        """A remark on a frame."""
        frame, words = self._one(Frame), f"{self.name} {self._number()}"
        self.book.put(replace(frame, note=words))
        strip = self.book.get(Strip, frame.strip_id)
        self.wrote["remark", *_called(self.book, strip), f"{frame.position}"] = words

    def looks(self) -> None:
        """What an eye said."""
        frame, value = self._one(Frame), self._number()
        looked = Judgement(frame_id=frame.id, asked="fault", value=value, judged_at=self.now())
        self.book.add(looked)
        self.wrote["judgement", f"{value}"] = "once"

    def decides(self) -> None:
        """A finding."""
        index = self._number()
        test = self._one(Test)
        self.book.add(Finding(test_id=test.id, decided_at=self.now(), exposure_index=index))
        self.wrote["finding", f"{index}"] = "once"

    def runs(self) -> None:
        """A run by the clock with something that happened in it."""
        begun, value = self.now(), self._number()
        run = self.book.add(DarkroomRun(test_id=self._one(Test).id, started_at=begun))
        self.book.add(RunEvent(run_id=run.id, happened_at=begun, what="bath", value=value))
        self.wrote["event", f"{value}"] = "once"

    def tests(self) -> None:
        """A test of one's own, of a film of one's own."""
        name = f"{self.name} film {self._number()}"
        stock = self.book.add(Stock(name=name))
        developer = self.book.all(Developer)[0]
        made = self.book.add(
            Test(stock_id=stock.id, developer_id=developer.id, created_at=self.now(), uid=name)
        )
        strip = self.book.add(Strip(test_id=made.id, label="A"))
        self.book.add(Frame(strip_id=strip.id))
        self.wrote["film", name] = "once"

    def renames(self) -> None:
        """A remark on a film both know."""
        stock, words = self.book.all(Stock)[self.random.randrange(3)], f"{self.name} says so"
        self.book.put(replace(stock, note=words))
        self.wrote["kit", stock.name] = words

    def removes(self) -> None:
        """A reading taken away that both had."""
        shared = [r for r in self.book.all(Reading) if r.read_at < "2026-12-01T08"]
        taken = self.random.choice(shared)
        self.book.remove(taken)
        self.wrote["removed", f"{taken.id}"] = "gone"

    def edits(self) -> None:
        """One edit, whichever."""
        ways: list[Callable[[], None]] = [
            self.reads,
            self.writes,
            self.develops,
            self.ticks,
            self.looks,
            self.decides,
            self.runs,
            self.tests,
            self.renames,
            self.removes,
        ]
        way = self.random.choice(ways)
        with self.book.change(way.__name__):
            way()


def _merged(one: Path, other: Path, target: Path) -> MergeReport:
    theirs = everything_of(other)
    shutil.copy(one, target)
    book = Notebook(target)
    steps = merge(book, theirs, "merge", "other")
    try:
        while True:
            next(steps)
    except StopIteration as end:
        return end.value  # type: ignore[no-any-return]
    finally:
        book.close()


def _held(path: Path) -> tuple[Counter[Kept], dict[Kept, str]]:
    """What a notebook holds of what is looked for: how often, and what stands in fields."""
    book = Notebook(path)
    often: Counter[Kept] = Counter()
    often.update(("reading", f"{r.density}") for r in book.all(Reading))
    often.update(("note", n.words) for n in book.all(Note))
    often.update(("judgement", f"{j.value}") for j in book.all(Judgement))
    often.update(("finding", f"{f.exposure_index}") for f in book.all(Finding))
    often.update(("event", f"{e.value}") for e in book.all(RunEvent))
    often.update(("film", s.name) for s in book.all(Stock))
    fields: dict[Kept, str] = {}
    for strip in book.all(Strip):
        called = _called(book, strip)
        fields["time", *called] = f"{strip.time_min or 0:g}"
        for frame in book.all(Frame, strip_id=strip.id):
            fields["remark", *called, f"{frame.position}"] = frame.note
    fields |= {("kit", s.name): s.note for s in book.all(Stock)}
    book.close()
    return often, fields


def _content(path: Path) -> list[str]:
    """A notebook's tests and kit in an order that nobody chose."""

    def evened(value: Any) -> Any:
        if isinstance(value, list):
            return sorted((evened(v) for v in value), key=repr)
        return tuple(evened(v) for v in value) if isinstance(value, tuple) else value

    everything = everything_of(path)
    tree = RecordTree(everything)
    tests = [repr((t.uid, evened(tree.content(t)))) for t in everything[Test]]
    kit = [repr(replace(s, id=0)) for k in (Stock, Developer) for s in everything[k]]
    return sorted([*tests, *kit])


def begun_copy(folder: Path) -> Path:
    """The notebook as both had it, written to before."""
    path = Path(shutil.copy(DEMO, folder / "begun.vadrin"))
    book = Notebook(path)
    with book.change("begun"):
        book.put(replace(book.all(Test)[0], note="begun"))
    book.close()
    return path


def history(folder: Path, random: Random) -> list[str]:
    """Two people and what became of their work; what is wrong, in words."""
    first, second = folder / "first.vadrin", folder / "second.vadrin"
    begun = begun_copy(folder)
    shutil.copy(begun, first)
    shutil.copy(begun, second)
    people = []
    for path in (first, second):
        book = Notebook(path)
        person = Person(path.stem, book, random)
        for _ in range(random.randint(1, _MOST_EDITS)):
            person.edits()
        book.close()
        people.append(person)
    both, turned = folder / "both.vadrin", folder / "turned.vadrin"
    report = _merged(first, second, both)
    _merged(second, first, turned)
    wrong = []
    if _content(both) != _content(turned):
        wrong.append("the order mattered")
    often, fields = _held(both)
    told = " ".join(str(c) for c in report.conflicts)
    for person, other in (people, people[::-1]):
        for what, value in person.wrote.items():
            if value == "once" and often[what] != 1:
                wrong.append(f"{person.name}: {what} is there {often[what]} times")
            if value in ("once", "gone") or fields.get(what) == value:
                continue
            if what not in other.wrote:
                wrong.append(f"{person.name}: {what} = {value} gave way to what nobody wrote")
            elif value not in told:
                wrong.append(f"{person.name}: {what} = {value} is neither kept nor said")
    gone = {what for p in people for what, value in p.wrote.items() if value == "gone"}
    added = sum(what[0] == "reading" for p in people for what in p.wrote)
    left = sum(count for what, count in often.items() if what[0] == "reading")
    before = _held(begun)[0]
    there = sum(count for what, count in before.items() if what[0] == "reading")
    if left != there + added - len(gone):
        wrong.append(f"{left} readings, of {there} with {added} more and {len(gone)} taken away")
    before = len(_content(both))
    again = _merged(both, second, folder / "again.vadrin")
    if again.new_tests or again.differing_tests or len(_content(folder / "again.vadrin")) != before:
        wrong.append("merged again, it grew")
    if _held(folder / "again.vadrin")[0] != often:
        wrong.append("merged again, something was doubled")
    return wrong


def main(histories: int = 200, seed: int = 0) -> int:
    """Print what went wrong, and the count."""
    failed = 0
    for number in range(histories):
        with tempfile.TemporaryDirectory() as folder:
            wrong = history(Path(folder), Random(f"{seed} {number}"))
        failed += bool(wrong)
        for words in wrong:
            print(f"history {number}: {words}", flush=True)
    print(f"{histories - failed} of {histories} histories: nothing lost, nothing doubled")
    return int(failed > 0)


if __name__ == "__main__":
    sys.exit(main(*(int(word) for word in sys.argv[1:])))
