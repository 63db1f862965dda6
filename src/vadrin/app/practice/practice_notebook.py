"""A practice film in a notebook of its own, to be planned, shot, developed, read and decided on."""

from __future__ import annotations

import json
import secrets
from dataclasses import dataclass, replace
from itertools import count
from pathlib import Path
from typing import Any

from vadrin.app.document.test_loading import load_test
from vadrin.app.plan.plan_edit import apply_plan, plan_edit_of
from vadrin.app.plan.starting_tests import start_kind
from vadrin.app.practice.envelope import sealed
from vadrin.app.practice.practice_place import TRUTH
from vadrin.app.practice.practice_questions import INDEX, questions_of
from vadrin.app.practice.practice_truth import truth_of_world
from vadrin.app.practice.practised_film import NOTHING, put_film, world_drawn
from vadrin.core.planning.plan_request import Compared
from vadrin.core.planning.test_types.compare import Compare
from vadrin.core.planning.test_types.paper import PaperTest
from vadrin.core.planning.test_types.rescue import Rescue
from vadrin.core.planning.test_types.two_developers import TwoDevelopers
from vadrin.core.simulation.practice_level import Level
from vadrin.core.simulation.practice_world import PracticeWorld
from vadrin.errors import FormatError
from vadrin.formats.whole_file import write_whole
from vadrin.instruments.simulated import SIMULATED
from vadrin.notebook.records import (
    Camera,
    Developer,
    Enlarger,
    Instrument,
    Lens,
    LightMeter,
    MakerTime,
    Paper,
    Stock,
    Test,
)
from vadrin.notebook.records.kit import COLOUR_NEGATIVE
from vadrin.notebook.store import Notebook

_DENSITOMETER, _THERMOMETER = "densitometer", "thermometer"
_PAPER = "Practice paper"
_OTHER_BATH = "Other practice developer"
_PLANNED: dict[str, dict[str, Any]] = {
    TwoDevelopers.key: {"compared_names": (_OTHER_BATH,)},
    Compare.key: {"compared": Compared.BATCHES, "compared_names": ("another",)},
    # From where a fresh film begins: nobody knows what the years have cost this one.
    Rescue.key: {"first_stop": -5.0, "last_stop": 3.0},
    # From white to black, whatever paper it is.
    PaperTest.key: {"first_stop": -5.0, "last_stop": 2.5, "step": 0.5},
}
"""What a plan is to have, by the type of test."""
_MOST_SEED = 1_000_000


@dataclass(frozen=True)
class Begun:
    """A practice film that was begun: its notebook, its test, and the digest of its envelope."""

    notebook: Path
    test_id: int
    digest: str


def begin_practice(
    place: Path, level: Level = Level.USUAL, kind: str = "time", seed: int | None = None
) -> Begun:
    """A film nobody knows, unexposed, in a notebook of its own, its truth sealed beside it.

    Parameters
    ----------
    place : Path
        Practice films lie here, each in a folder.
    level : Level
    kind : str
        One of `practice_questions.KINDS`.
    seed : int, optional
        Which film; any where none is named.

    Raises
    ------
    FormatError
        If it cannot be written.
    """
    number = next(n for n in count(1) if not (place / f"film {n}").exists())
    folder = place / f"film {number}"
    seed = secrets.randbelow(_MOST_SEED) if seed is None else seed
    world = world_drawn(seed, level, kind)
    truth = truth_of_world(world, seed, level, kind)
    envelope = sealed(truth) | {"level": level.value, "kind": kind}
    try:
        folder.mkdir(parents=True)
        write_whole(folder / TRUTH, json.dumps(envelope, indent=1) + "\n")
    except OSError as error:
        raise FormatError(f"{folder}: {(error.strerror or 'cannot be written').lower()}") from error
    put_film(folder, NOTHING)
    path = folder / f"practice {number}.vadrin"
    book = Notebook(path)
    try:
        _fill(book, world, kind, number, envelope["sha256"])
        if level is Level.FIRST and INDEX in questions_of(kind):
            _make_short(book, round(2 * _makers_minutes(world)) / 2)
        (test,) = book.all(Test)
    finally:
        book.close()
    return Begun(path, test.id, envelope["sha256"])


def _fill(book: Notebook, world: PracticeWorld, kind: str, number: int, digest: str) -> None:
    """The kit of the practice room, and the test that is asked."""
    film, bath, speed = f"Practice film {number}", "Practice developer", world.film.box_speed
    tested = _PAPER if kind == PaperTest.key else film
    with book.change("a practice film"):
        made = Stock(name=film, box_speed=speed)
        stock = book.add(replace(made, kind=COLOUR_NEGATIVE) if world.layers else made)
        developer = book.add(Developer(name=bath))
        book.add(Developer(name=_OTHER_BATH))
        # A maker's word: near enough to begin with, and no more.
        book.add(
            MakerTime(
                stock_id=stock.id,
                developer_id=developer.id,
                time_min=round(2 * _makers_minutes(world)) / 2,
                source="as printed with the practice film",
            )
        )
        camera = book.add(Camera(name="Practice camera", shutter_step=0.5))
        lens = book.add(Lens(name="Practice lens"))
        meter = book.add(LightMeter(name="Practice meter"))
        reader = book.add(
            Instrument(name="Practice densitometer", kind=_DENSITOMETER, port=SIMULATED)
        )
        book.add(Instrument(name="Practice thermometer", kind=_THERMOMETER, port=SIMULATED))
        book.add(Enlarger(name="Practice enlarger", head="diffuse", lens="50 mm"))
        paper = book.add(Paper(name=_PAPER, grade="2"))
        begun = load_test(book, start_kind(book, kind).id)
        if begun is not None:
            asked = replace(
                begun.test,
                exposure_index=speed,
                camera_id=camera.id,
                lens_id=lens.id,
                meter_id=meter.id,
                instrument_id=reader.id,
                paper_id=paper.id if tested == _PAPER else None,
                note=f"A film nobody knows. Its truth is sealed under {digest[:16]}.",
            )
            asked = replace(asked, **_PLANNED.get(kind, {}))
            plan = plan_edit_of(book, begun)
            named = replace(plan, test=asked, stock_name=tested, developer_name=bath)
            apply_plan(book, named, "the practice plan")


def _make_short(book: Notebook, minutes: float) -> None:
    """Two strips of seven frames for the first hour, about the maker's time."""
    (test,) = book.all(Test)
    begun = load_test(book, test.id)
    if begun is not None:
        short = replace(begun.test, first_stop=-4.0, last_stop=3.5, step=1.5, blanks=1)
        plan = plan_edit_of(book, begun)
        times = 0.75 * minutes, 1.4 * minutes
        asked = replace(short, repeat_first=False)
        apply_plan(book, replace(plan, test=asked, times=times), "a short plan")


def _makers_minutes(world: PracticeWorld) -> float:
    film = world.film
    true = film.time_for_gradient() or 8.0
    return float(true * (0.88 + 0.3 * ((world.film.fog * 997.0) % 1.0)))
