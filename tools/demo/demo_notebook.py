"""The demo notebook: a volunteer darkroom qualifies its film for a winter of boat building.

Everything in it is invented, and every density comes from the film simulator.
"""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np

from tools.demo.demo_chemistry import SABLE, write_makers_table, write_processes
from tools.demo.demo_decisions import decide_demo
from tools.demo.demo_kinds import write_kinds
from vadrin.app.decisions.decision import decide
from vadrin.app.document.state import answered
from vadrin.app.document.test_loading import load_test
from vadrin.app.instruments import THERMOMETER
from vadrin.app.library.named_records import developer_named, stock_named
from vadrin.app.loaded.loaded_test import SCAN
from vadrin.app.pictures.measured_grain import GRANULARITY
from vadrin.app.plan.drafting import lay_out
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan
from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.core.frames import FrameState
from vadrin.core.origin import Origin
from vadrin.core.simulation.film import Densitometer, Film, expose_and_develop, invent_film
from vadrin.instruments.simulated import SIMULATED
from vadrin.notebook.records import (
    Batch,
    Bottle,
    Camera,
    Developer,
    Frame,
    Instrument,
    Lens,
    LightMeter,
    Paper,
    Reading,
    ShutterTime,
    Strip,
    Test,
)
from vadrin.notebook.store import Notebook

SEED = 1907
_METER = Densitometer(noise=0.008, dense_noise=0.003)


@dataclass(frozen=True)
class _Scenario:
    """One demo test: what it is of, how far it got, and what went wrong in it."""

    stock: str
    speed: float
    batch: str
    developer: str
    dilution: str
    day: str
    times: tuple[float, ...]
    step: float = 1.0
    exposed: float = 1.0
    developed: bool = True
    read: float = 1.0
    repeats: int = 1
    swapped: tuple[int, int] | None = None
    temperatures: tuple[float, ...] = ()
    grain: float = 0.0
    """RMS granularity at a density of 1, where the film was scanned finely."""
    note: str = ""


SCENARIOS = (
    _Scenario(
        "Kelda Pan 200",
        200,
        "K4",
        "Tarn",
        "1+9",
        "2026-11-21T10:05:00+00:00",
        (5.0, 7.0, 10.0, 14.0),
        exposed=0,
        developed=False,
        read=0,
        note="For the planking shed in the afternoon.",
    ),
    _Scenario(
        "Skerry Fine 50",
        50,
        "S2",
        "Sable",
        "1+1",
        "2026-11-20T14:30:00+00:00",
        (6.0, 8.5, 12.0),
        exposed=0.45,
        developed=False,
        read=0,
        note="For details of joints on the stand.",
    ),
    _Scenario(
        "Brannock 400",
        400,
        "B7",
        "Sable",
        "1+1",
        "2026-11-18T09:15:00+00:00",
        (7.0, 9.5, 13.0, 18.0),
        read=0.55,
        note="For the slipway at dusk.",
    ),
    _Scenario(
        "Ostrel 400",
        400,
        "O1",
        "Tarn",
        "1+9",
        "2026-11-09T16:40:00+00:00",
        (8.0,),
        grain=17.0,
        note="One strip left over from the regatta roll.",
    ),
    _Scenario(
        "Brannock 400",
        400,
        "B6",
        "Tarn",
        "1+9",
        "2026-11-04T11:20:00+00:00",
        (5.5, 8.0, 11.5, 16.0),
        swapped=(1, 8),
        note="Two frames of strip B were read in the wrong order.",
    ),
    _Scenario(
        "Merrow Pan 125",
        125,
        "M3",
        "Sable",
        "1+1",
        "2026-10-27T15:00:00+00:00",
        (4.5, 6.5, 9.0, 12.5, 17.5),
        step=0.5,
        repeats=2,
        temperatures=(20.0, 20.0, 20.0, 20.6, 20.0),
        note="The shed's own film for the winter; strip D ran warm.",
    ),
)
"""Oldest last; every stock, developer and batch is made up."""


def _film_of(scenario: _Scenario) -> Film:
    name = scenario.stock + scenario.developer
    seed = SEED + sum(ord(letter) * (i + 1) for i, letter in enumerate(name))
    film = invent_film(np.random.default_rng(seed), scenario.speed)
    return replace(film, span=max(film.span, 3.0))


def _frame_done(frame: Frame, done: bool, day: str) -> Frame:
    return replace(frame, state=FrameState.EXPOSED, exposed_at=day) if done else frame


def _write_readings(
    notebook: Notebook, frame: Frame, densities: list[float], scenario: _Scenario
) -> None:
    for position, density in enumerate(densities):
        read = Reading(frame_id=frame.id, position=position, density=density, read_at=scenario.day)
        if scenario.grain:
            grain = round(scenario.grain * max(density, 0.0) ** 0.5, 1)
            told = json.dumps({"scan": "regatta roll.tif", GRANULARITY: grain})
            read = replace(read, way=SCAN, deviation=0.006, extra=told)
        notebook.add(read)


def _strip_densities(
    scenario: _Scenario,
    film: Film,
    place: int,
    strip: Strip,
    frames: list[Frame],
    test: Test,
    rng: np.random.Generator,
) -> list[list[float]]:
    stops = np.array([f.stops for f in frames if not f.blank], dtype=np.float64)
    log_h = np.log10(test.meter_constant / test.exposure_index) + 0.30103 * stops
    temperature = scenario.temperatures[place] if scenario.temperatures else 20.0
    columns = [
        expose_and_develop(
            film,
            strip.label,
            log_h,
            strip.planned_min or 8.0,
            rng,
            _METER,
            temperature,
            blanks=test.blanks,
        )
        for _ in range(scenario.repeats)
    ]
    table = [[c.readings[i].density for c in columns] for i in range(len(frames))]
    if scenario.swapped and scenario.swapped[0] == place:
        i = scenario.swapped[1]
        table[i], table[i + 1] = table[i + 1], table[i]
    return table


def _write_film(notebook: Notebook, scenario: _Scenario, test: Test) -> None:
    rng = np.random.default_rng(SEED + test.id)
    film = _film_of(scenario)
    strips = notebook.all(Strip, test_id=test.id)
    total = sum(len(notebook.all(Frame, strip_id=s.id)) for s in strips)
    done = round(total * scenario.exposed)
    to_read = round(total * scenario.read)
    count = 0
    for place, strip in enumerate(strips):
        frames = notebook.all(Frame, strip_id=strip.id)
        densities = _strip_densities(scenario, film, place, strip, frames, test, rng)
        if scenario.developed:
            temperature = scenario.temperatures[place] if scenario.temperatures else 20.0
            changed = replace(
                strip,
                time_min=strip.planned_min,
                temperature_c=temperature,
                time_from=Origin.DONE,
                temperature_from=Origin.MEASURED,
            )
            notebook.put(changed)
        for frame, values in zip(frames, densities, strict=True):
            written = notebook.put(_frame_done(frame, count < done, scenario.day))
            if count < to_read:
                _write_readings(notebook, written, values, scenario)
            count += 1


def _write_test(notebook: Notebook, scenario: _Scenario) -> Test:
    stock = stock_named(notebook, scenario.stock, scenario.speed)
    batches = notebook.all(Batch, stock_id=stock.id, name=scenario.batch)
    batch = (
        batches[0]
        if batches
        else notebook.add(
            Batch(stock_id=stock.id, name=scenario.batch, expiry="2028-03", rolls_left=9)
        )
    )
    developer = developer_named(notebook, scenario.developer, scenario.dilution)
    test = notebook.add(
        Test(
            uid=f"demo{scenario.day[:10]}",
            stock_id=stock.id,
            batch_id=batch.id,
            developer_id=developer.id,
            created_at=scenario.day,
            exposure_index=float(marked_ei(scenario.speed)),
            first_stop=-6.0,
            last_stop=5.0,
            step=scenario.step,
            agitation="first 30 s, then 4 turns a minute",
            note=scenario.note,
        )
    )
    lay_out(notebook, test, scenario.times)
    return test


_WINTERS_FILMS = tuple(
    _Scenario(stock, speed, "W1", "Sable", "1+1", f"2026-11-{day}T09:00:00+00:00", times, read=1.0)
    for stock, speed, day, times in (
        ("Kelda Pan 200", 200, 24, (5.5, 7.5, 10.0, 14.0)),
        ("Skerry Fine 50", 50, 25, (5.0, 7.0, 10.5)),
        ("Fathom Pan 160", 160, 26, (6.0, 8.0, 11.0)),
        ("Gannet Pan 160", 160, 27, (5.0, 8.0, 12.0)),
    )
)


def write_winters_films(notebook: Notebook) -> None:
    """More films tested in the usual developer, and decided on: not in the demo itself."""
    for scenario in _WINTERS_FILMS:
        with notebook.change("the winter's films"):
            test = _write_test(notebook, scenario)
            _write_film(notebook, scenario, test)
        decide_demo(notebook, test, scenario.day)


def _write_kit(notebook: Notebook) -> None:
    """The darkroom's cameras, chemistry and bottles."""
    camera = notebook.add(
        Camera(
            name="Quayside 35",
            slowest=1.0,
            fastest=1 / 1000,
            dial_low=25.0,
            dial_high=1600.0,
            compensation=2.0,
        )
    )
    notebook.add(Camera(name="Boathouse folding 6×9", slowest=1.0, fastest=1 / 250))
    for mark, real in ((1 / 1000, 1 / 790), (1 / 500, 1 / 450), (1 / 60, 1 / 62)):
        notebook.add(
            ShutterTime(camera_id=camera.id, marked=mark, measured=real, measured_at="2026-10-02")
        )
    lens = notebook.add(Lens(name="Lugger 50", widest=2.0, smallest=16.0))
    meter = notebook.add(LightMeter(name="Harbour meter", dial_low=3.0, dial_high=12800.0))
    reader = notebook.add(
        Instrument(
            name="Shed densitometer", noise=0.008, port=SIMULATED, line_format="[V] D {0.30}"
        )
    )
    notebook.add(
        Instrument(name="Bath probe", kind=THERMOMETER, port=SIMULATED, line_format="T= {20.0} C")
    )
    notebook.add(Paper(name="Slip Bromide", grade="2", exposure_scale=1.05))
    notebook.add(Developer(name="Brine", dilution="1+4", role="fixer", capacity_films=20.0))
    for developer in notebook.all(Developer):
        if developer.name == "Sable":
            kept = replace(developer, capacity_films=8.0, keeps_days=180.0, recipe=SABLE)
            notebook.put(kept)
            notebook.add(
                Bottle(
                    developer_id=kept.id,
                    name="A",
                    mixed_at="2026-09-14",
                    volume_ml=1000.0,
                    films_done=7.0,
                )
            )
    for test in notebook.all(Test):
        notebook.put(
            replace(
                test,
                camera_id=camera.id,
                lens_id=lens.id,
                meter_id=meter.id,
                instrument_id=reader.id,
                light="open shade by the slip",
            )
        )


def _plan_on_the_camera(notebook: Notebook) -> None:
    """The test that is only planned gets the marks of the camera it is planned for."""
    test = next(t for t in notebook.all(Test) if t.created_at == SCENARIOS[0].day)
    loaded = load_test(notebook, test.id)
    if loaded is not None:
        names = loaded.stock.name, loaded.developer.name, loaded.developer.dilution
        apply_plan(notebook, PlanEdit(test, SCENARIOS[0].times, *names), "demo")


def make_demo(path: Path, kinds: bool = True) -> None:
    """Write the demo notebook to a path where there is none yet; with a test of every kind, or
    with those of development times alone.
    """
    notebook = Notebook(path)
    with notebook.change("demo"):
        for scenario in reversed(SCENARIOS):
            test = _write_test(notebook, scenario)
            _write_film(notebook, scenario, test)
        _double_a_frame(notebook)
        _write_kit(notebook)
        write_processes(notebook)
        write_makers_table(notebook, _complete(notebook))
        _plan_on_the_camera(notebook)
        if kinds:
            write_kinds(notebook)
    _decide_the_complete_one(notebook)
    notebook.close()


def _complete(notebook: Notebook) -> Test:
    return next(t for t in notebook.all(Test) if t.created_at == SCENARIOS[-1].day)


def _decide_the_complete_one(notebook: Notebook) -> None:
    loaded = load_test(notebook, _complete(notebook).id)
    if loaded is not None:
        decide(notebook, answered(loaded), when="2026-10-29T19:20:00+00:00")


def _double_a_frame(notebook: Notebook) -> None:
    """In the half-exposed test one frame was taken twice, as happens."""
    half = next(t for t in notebook.all(Test) if t.created_at == SCENARIOS[1].day)
    strip = notebook.all(Strip, test_id=half.id)[0]
    frame = notebook.all(Frame, strip_id=strip.id)[5]
    if frame.state != FrameState.PLANNED:
        twice = replace(frame, state=FrameState.DOUBLED, stops=(frame.stops or 0.0) + 1)
        notebook.put(twice)
