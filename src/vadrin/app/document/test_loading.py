"""Whole tests taken from the notebook, in few questions to the file."""

from __future__ import annotations

from collections.abc import Generator, Iterator
from typing import TypeVar

from vadrin.app.descriptions import beside_of
from vadrin.app.loaded.bath_order import in_order
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.core.results.rating_method import CONTACT
from vadrin.notebook.changes import Change
from vadrin.notebook.records import (
    Batch,
    Bottle,
    ControlStrip,
    DarkroomRun,
    Developer,
    Exposure,
    Finding,
    Frame,
    Instrument,
    Judgement,
    LightMeter,
    MakerTime,
    Note,
    PrintSetup,
    PrintStrip,
    Process,
    ProcessStep,
    Reading,
    Record,
    Stock,
    Strip,
    Test,
    Workprint,
)
from vadrin.notebook.store import Notebook

T = TypeVar("T")
R = TypeVar("R", bound=Record)


def load_test(notebook: Notebook, test_id: int) -> LoadedTest | None:
    """Take one test from the notebook; None if it is not there."""
    test = notebook.get(Test, test_id)
    return load_tests(notebook, [test])[0] if test else None


def _grouped(records: list[R], owner: str) -> dict[int, list[R]]:
    groups: dict[int, list[R]] = {}
    for record in records:
        groups.setdefault(getattr(record, owner), []).append(record)
    return groups


class _FilmOf:
    """What tests hold, from strips down to what was said of single frames; read by `reading`."""

    def reading(self, notebook: Notebook, tests: list[Test]) -> Iterator[None]:
        """Read it, the two kinds of which there are most in steps of their own."""

        def owned(kind: type[R], owner: str, ids: list[int]) -> dict[int, list[R]]:
            return _grouped(notebook.all_of(kind, owner, ids), owner)

        ids = [t.id for t in tests]
        self.strips = owned(Strip, "test_id", ids)
        strip_ids = [s.id for mine in self.strips.values() for s in mine]
        self._frames = owned(Frame, "strip_id", strip_ids)
        yield
        frame_ids = [f.id for mine in self._frames.values() for f in mine]
        self._readings = owned(Reading, "frame_id", frame_ids)
        yield
        self._shots = owned(Exposure, "frame_id", frame_ids)
        self._seen = owned(Judgement, "frame_id", frame_ids)
        self._judged = owned(Judgement, "strip_id", strip_ids)
        self.findings = owned(Finding, "test_id", ids)
        self.notes = owned(Note, "test_id", ids)
        self.setups = owned(PrintSetup, "test_id", ids)
        setup_ids = [s.id for mine in self.setups.values() for s in mine]
        self._print_strips = owned(PrintStrip, "setup_id", setup_ids)
        self.routine_ids = {s.process_id for mine in self.strips.values() for s in mine}

    def covered(self, test_id: int) -> tuple[PrintStrip, ...]:
        """Half-covered strips of paper of a test."""
        made = (s for setup in self.setups.get(test_id, ()) for s in self._strips_of(setup))
        return tuple(s for s in made if s.strip_id is not None)

    def _strips_of(self, setup: PrintSetup) -> list[PrintStrip]:
        return self._print_strips.get(setup.id, [])

    def loaded_strips(self, test: Test, routines: dict[int, Process]) -> tuple[LoadedStrip, ...]:
        """The strips of a test, each with its frames."""
        mine = self.strips.get(test.id, ())
        return tuple(self.loaded_strip(s, routines, test) for s in mine)

    def loaded_strip(self, strip: Strip, routines: dict[int, Process], test: Test) -> LoadedStrip:
        """A strip with its frames."""
        mine = self._frames.get(strip.id, ())
        planned = any(f.wanted_stops is not None or f.turn for f in mine)
        made = tuple(
            LoadedFrame(
                frame,
                tuple(self._readings.get(frame.id, ())),
                str(place) if planned else frame.name,
                tuple(self._shots.get(frame.id, ())),
                tuple(self._seen.get(frame.id, ())),
                test.channel,
                test.school == CONTACT.key,
            )
            for place, frame in enumerate(mine, start=1)
        )
        judged = tuple(self._judged.get(strip.id, ()))
        return LoadedStrip(strip, made, judged, routines.get(strip.process_id or 0))


class _KitOf:
    """The film, chemistry and processes that tests name, and what is kept with those."""

    def __init__(self, notebook: Notebook, tests: list[Test], of_strips: set[int | None]) -> None:
        def named(kind: type[R], ids: set[int | None]) -> dict[int, R]:
            wanted = sorted(i for i in ids if i)
            return {record.id: record for record in notebook.all_of(kind, "id", wanted)}

        self.stocks = named(Stock, {t.stock_id for t in tests})
        self.batches = named(Batch, {t.batch_id for t in tests})
        self.developers = named(Developer, {t.developer_id for t in tests})
        self.routines = named(Process, {t.process_id for t in tests} | of_strips)
        self.instruments = named(Instrument, {t.instrument_id for t in tests})
        self.bottles = named(Bottle, {t.bottle_id for t in tests})
        self.meters = named(LightMeter, {t.meter_id for t in tests})
        stocks, routines = sorted(self.stocks), sorted(self.routines)
        self._makers = _grouped(notebook.all_of(MakerTime, "stock_id", stocks), "stock_id")
        self._baths = _grouped(notebook.all_of(ProcessStep, "process_id", routines), "process_id")
        self.controls = _grouped(
            notebook.all_of(ControlStrip, "process_id", routines), "process_id"
        )
        of_tests = [t.id for t in tests] if self.controls else []
        self.runs = _grouped(notebook.all_of(DarkroomRun, "test_id", of_tests), "test_id")

    def baths(self, test: Test) -> tuple[ProcessStep, ...]:
        """The own steps of the process a test goes through, in their order."""
        return in_order(self._baths.get(test.process_id or 0, ()))

    def makers(self, test: Test) -> tuple[MakerTime, ...]:
        """The maker's table of a test's film in its developer."""
        known = self._makers.get(test.stock_id, ())
        return tuple(m for m in known if m.developer_id == test.developer_id)


def load_tests(notebook: Notebook, tests: list[Test]) -> list[LoadedTest]:
    """Take whole tests from the notebook, in few questions to the file."""
    film = _FilmOf()
    for _ in film.reading(notebook, tests):
        pass
    return _whole(notebook, tests, film)


def loading_test(notebook: Notebook, test: Test, said: T) -> Generator[T, None, LoadedTest]:
    """Take one long test from the notebook in steps, between which the window goes on.

    Parameters
    ----------
    notebook : Notebook
    test : Test
    said : object
        Yielded after every step.
    """
    film = _FilmOf()
    for _ in film.reading(notebook, [test]):
        yield said
    return _whole(notebook, [test], film)[0]


def _whole(notebook: Notebook, tests: list[Test], film: _FilmOf) -> list[LoadedTest]:
    kit = _KitOf(notebook, tests, film.routine_ids)
    return [
        LoadedTest(
            test,
            kit.stocks.get(test.stock_id, Stock()),
            kit.batches.get(test.batch_id or 0),
            kit.developers.get(test.developer_id, Developer()),
            film.loaded_strips(test, kit.routines),
            tuple(film.findings.get(test.id, ())),
            tuple(film.notes.get(test.id, ())),
            kit.instruments.get(test.instrument_id or 0),
            kit.routines.get(test.process_id or 0),
            kit.baths(test),
            kit.makers(test),
            tuple(kit.controls.get(test.process_id or 0, ())),
            beside_of(notebook, test),
            tuple(film.setups.get(test.id, ())),
            film.covered(test.id),
            frozenset(r.id for r in kit.runs.get(test.id, ())),
            kit.bottles.get(test.bottle_id or 0),
            kit.meters.get(test.meter_id or 0),
        )
        for test in tests
    ]


def test_of_change(notebook: Notebook, change: Change) -> int | None:
    """The test an edit belonged to; None for edits of the kit, or where it is gone."""
    record = next((s.after or s.before for s in change.steps), None)
    if isinstance(record, Reading | Judgement) and record.frame_id:
        record = notebook.get(Frame, record.frame_id)
    if isinstance(record, PrintStrip | Workprint):
        record = notebook.get(PrintSetup, record.setup_id)
    if isinstance(record, Frame | Judgement):
        record = notebook.get(Strip, record.strip_id or 0)
    if isinstance(record, Test):
        return record.id
    owner = getattr(record, "test_id", None)
    return int(owner) if owner else None
