"""How often the range of each kind's answer holds the truth: ``python tools/kind_answers.py 100``.

Made-up tests of every kind that has a figure of its own, planned, exposed and read as a tester
would, each with another film and another noise.
"""

from __future__ import annotations

import sys
import tempfile
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import numpy as np

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from oracles.film_shapes import SHAPES, Reversal, varied  # noqa: E402
from oracles.papers import Paper  # noqa: E402
from tests.app.test_kind_answers import Bench  # noqa: E402
from tests.states import state_of  # noqa: E402
from vadrin.app.decisions.decision import decide  # noqa: E402
from vadrin.app.descriptions import description_of  # noqa: E402
from vadrin.app.printing.grade_choice import negative_range  # noqa: E402
from vadrin.app.read.light_box_judging import NO, YES, answer_question, question_of  # noqa: E402
from vadrin.core.exposure.reciprocity import Reciprocity, corrected_time, effective_time  # noqa: E402
from vadrin.core.figure import Figure  # noqa: E402
from vadrin.core.planning.plan_request import Arrangement  # noqa: E402
from vadrin.core.planning.test_options import (  # noqa: E402
    IndexSeries,
    LightsInTurn,
    LongTimes,
    Pushes,
    SecondSteps,
    SharedIndexes,
)
from vadrin.core.process.control_limits import ControlReading, control_chart  # noqa: E402
from vadrin.notebook.records import Stock, Strip, Test  # noqa: E402
from vadrin.notebook.store import Notebook  # noqa: E402

Found = list[tuple[Figure, float]]
"""Figures with what is true of them."""


def _read(bench: Bench, film: object, seed: int, moved: Callable[..., float] | None = None) -> None:
    def density(strip, frame):
        x = bench.at(frame)
        if x is not None and moved is not None:
            x += moved(strip, frame)
        return film.density(x, 8.0)

    bench.read(density, noise=0.01, seed=seed)


def speed(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """The EI of one strip."""
    bench = Bench(book, "speed", step=0.5)
    _read(bench, film, seed)
    return [(bench.analysis.strips[0].zone_ei, 8.125 / 16 / 10 ** film.x_m(8.0))]


def latitude(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """Stops from the first detail to the last, by slopes of the film's own curve."""
    bench = Bench(book, "speed", step=0.5, first_stop=-6.0, last_stop=10.0)
    _read(bench, film, seed)
    fine = 0.002
    last = max(x for _, f in bench.loaded.frames() if (x := bench.at(f)) is not None)
    x = np.arange(-4.0, last, fine)
    net = np.array([film.net(at, 8.0) for at in x])
    slope = np.gradient(net, fine)
    near = slope >= 0.95 * slope.max()
    steepest = int(slope.argmax())
    begin = steepest - int(np.argmin(near[steepest::-1]))
    end = steepest + int(np.argmin(near[steepest:]))
    gamma = np.polyfit(x[begin:end], net[begin:end], 1)[0]
    below = np.flatnonzero((slope < 0.8 * gamma) & (np.arange(len(x)) > end))
    if not len(below):
        return []
    ahead = np.interp(x + 1.5, x, net)
    seen = np.flatnonzero((slope >= 0.3 * (ahead - net) / 1.5) & (net > 0.005))
    true = (x[below[0]] - x[seen[0]]) / np.log10(2.0)
    figure = bench.analysis.strips[0].figures["usable_stops"]
    return [(figure, true)] if figure.value is not None else []


def grade(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """The negative's density range that a grade is chosen by, over scenes of two lengths."""
    bench = Bench(book, "speed", step=0.5, first_stop=-5.0, last_stop=7.0)
    _read(bench, film, seed)
    state = state_of(bench.loaded, bench.analysis)
    x, made = film.x_m(8.0), list[tuple[Figure, float]]()
    for stops in (6.0, 8.0):
        figure, _ = negative_range(state, bench.loaded.strips[0], stops)
        made.append((figure, film.net(x + stops * np.log10(2.0), 8.0) - film.net(x, 8.0)))
    return made


def mixed_roll(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """The highest EI held: a stop over the shadow point."""
    indexes = tuple(12.5 * 2.0**k for k in range(9))
    bench = Bench(book, "mixed roll", times=(8.0, 8.0), options=SharedIndexes(indexes), blanks=2)
    _read(bench, film, seed)
    return [(bench.answer.figures["A_highest_ei"], 2 * 8.125 / 16 / 10 ** film.x_m(8.0))]


def rescue(book: Notebook, film: object, seed: int, rng: np.random.Generator) -> Found:
    """Today's EI of a film that lost some stops."""
    lost = rng.uniform(0.0, 0.9)
    bench = Bench(book, "rescue", index=400.0, first_stop=-2.0, last_stop=6.0)

    def density(_strip, frame):
        x = bench.at(frame)
        return (
            None
            if frame.frame.role == "fogged"
            else film.density(None if x is None else x - lost, 8.0)
        )

    bench.read(density, noise=0.01, seed=seed)
    return [(bench.answer.figures["ei"], 8.125 / 16 / 10 ** (film.x_m(8.0) + lost))]


def compare(book: Notebook, film: object, seed: int, rng: np.random.Generator) -> Found:
    """Stops by which another film is faster."""
    stops = rng.uniform(-1.5, 1.5)
    with book.change("another"):
        other = book.add(Stock(name="Brannock 400", box_speed=400.0))
    bench = Bench(book, "compare", compared="stocks", compared_names=("Brannock 400",), step=0.5)
    with book.change("named"):
        for strip in book.all(Strip, test_id=bench.test.id):
            if strip.position:
                book.put(replace(strip, stock_id=other.id, note="Brannock 400"))
    _read(bench, film, seed, lambda s, _f: 0.30103 * stops if s.strip.position else 0.0)
    label = bench.loaded.strips[1].strip.label
    return [(bench.answer.figures[f"{label}_speed_stops"], stops)]


def long_exposures(book: Notebook, film: object, seed: int, rng: np.random.Generator) -> Found:
    """Corrected times."""
    law = Reciprocity(factor=rng.uniform(0.05, 0.4), exponent=rng.uniform(1.2, 1.6))
    bench = Bench(book, "reciprocity", options=LongTimes((1.0, 4.0, 15.0, 60.0, 240.0)))

    def moved(_strip, frame):
        held = frame.frame.seconds
        if held is None or held <= 0.5:
            return 0.0
        stops = frame.frame.stops or 0.0
        return np.log10(effective_time(law, held) / (held / 2.0**stops)) - 0.30103 * stops

    _read(bench, film, seed, moved)
    figures = bench.answer.figures
    return [(figures[f"corrected_{t}s"], corrected_time(law, t)) for t in (8, 30, 120)]


def colour(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """The gradient of the layer that is analysed whole."""
    bench = Bench(
        book,
        "colour",
        times=(8.0,),
        options=Pushes((0.0,)),
        first_stop=-5.0,
        last_stop=4.0,
        step=0.5,
    )
    from vadrin.core.channels import Channel

    for place, channel in enumerate((Channel.RED, Channel.GREEN, Channel.BLUE)):
        bench.read(lambda _s, f: film.density(bench.at(f), 8.0), channel, 0.01, 10 * seed + place)
    return [(bench.answer.figures["A_green_gradient"], film.gradient(8.0))]


def paper(book: Notebook, _film: object, seed: int, rng: np.random.Generator) -> Found:
    """A paper's range."""
    made = Paper(rng.uniform(0.7, 1.3))
    bench = Bench(book, "paper", first_stop=-5.0, last_stop=5.0, step=0.5, metered_seconds=8.0)
    bench.read(
        lambda _s, f: float(made.density(np.log10(f.frame.seconds / 8.0))), noise=0.01, seed=seed
    )
    return [(bench.answer.figures["iso_range"], 100 * made.scale)]


def two_developers(book: Notebook, film: object, seed: int, rng: np.random.Generator) -> Found:
    """What another developer makes of the speed, and its stain."""
    from vadrin.core.channels import Channel

    stops, share = rng.uniform(-1.0, 1.0), rng.uniform(0.0, 0.3)
    bench = Bench(book, "two developers", compared_names=("Tidewrack 1+100",), step=0.5)

    def seen(strip, frame):
        x = bench.at(frame)
        moved = 0.30103 * stops if strip.strip.position else 0.0
        return film.density(None if x is None else x + moved, 8.0)

    def printed(strip, frame):
        dense = seen(strip, frame)
        return dense + (0.03 + share * dense if strip.strip.position else 0.0)

    bench.read(seen, noise=0.01, seed=2 * seed)
    bench.read(printed, Channel.BLUE, noise=0.01, seed=2 * seed + 1)
    figures = bench.answer.figures
    true = 8.125 / 16 / 10 ** (film.x_m(8.0) - 0.30103 * stops)
    return [(figures["B_stain_at_1"], share), (figures["B_seen_ei"], true)]


def cine(book: Notebook, _film: object, seed: int, rng: np.random.Generator) -> Found:
    """The EI of the best frames, judged by a tester who takes what lies within a stop of it."""
    best = 100.0 * 2.0 ** rng.uniform(-1.0, 1.0)
    bench = Bench(
        book,
        "cine",
        index=100.0,
        first_stop=-3.0,
        last_stop=3.0,
        step=1.0,
        options=LightsInTurn((1,)),
    )

    def verdict(_strip, frame):
        if frame.frame.blank or frame.frame.stops is None:
            return ""
        apart = np.log2(100.0 / 2.0**frame.frame.stops / best) + rng.normal(0, 0.15)
        return "use it" if abs(apart) <= 1.0 else "nothing there"

    bench.judge(verdict)
    return [(bench.answer.figures["sun_ei"], best)]


def series(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """The EI of a series of three exposures an EI."""
    indexes = (50.0, 64.0, 80.0, 100.0, 125.0, 160.0, 200.0, 250.0, 320.0, 400.0)
    bench = Bench(book, "speed", options=IndexSeries(indexes))
    _read(bench, film, seed)
    return [(bench.analysis.strips[0].zone_ei, 8.125 / 16 / 10 ** film.x_m(8.0))]


TIMES = (4.5, 6.25, 8.75, 12.0, 16.75)


def _developed(bench: Bench, film: object, seed: int) -> None:
    bench.read(lambda s, f: film.density(bench.at(f), s.minutes), noise=0.01, seed=seed)


def time(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """The time for the wanted contrast, and the EI at it."""
    bench = Bench(book, "time", times=TIMES, step=0.5)
    _developed(bench, film, seed)
    found = bench.analysis.finding
    true = film.time_for(film.gradient, found.target.value)
    return [(found.time_min, true), (found.zone_ei, film.zone_ei(true))]


def _pushes(film: object, normal: float, stops: float) -> tuple[float, float]:
    """Time that holds the highlight of a push, and the stops of shadow it loses."""
    minutes = film.push_time(normal, stops, 3)
    return minutes, stops + np.log2(film.zone_ei(normal) / film.zone_ei(minutes))


def push(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """Time and lost shadow of a push of one stop."""
    bench = Bench(book, "push", times=(6.0,), options=Pushes((-1.0, 0.0, 1.0, 2.0)), step=0.5)
    _developed(bench, film, seed)
    analysis = bench.analysis
    row = next(p for p in analysis.push if p.stops == 1.0).hold_highlight
    target = analysis.finding.target.value
    minutes, lost = _pushes(film, film.time_for(film.gradient, target), 1.0)
    return [(row.time_min, minutes), (row.shadow_loss_stops, lost)]


def own_normal(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """The EI at one's own time, and the time of a push of one stop from it."""
    bench = Bench(book, "push", times=(7.0,), options=Pushes((-1.0, 0.0, 1.0, 2.0)), step=0.5)
    _developed(bench, film, seed)
    with book.change("my own time"):
        book.put(replace(book.get(Test, bench.test.id), target_kind="time", target_value=7.0))
    analysis = bench.analysis
    row = next(p for p in analysis.push if p.stops == 1.0).hold_highlight
    minutes, lost = _pushes(film, 7.0, 1.0)
    return [
        (analysis.finding.zone_ei, film.zone_ei(7.0)),
        (row.time_min, minutes),
        (row.shadow_loss_stops, lost),
    ]


def shadows(book: Notebook, film: object, seed: int, rng: np.random.Generator) -> Found:
    """Old film whose scene was looked at on the light box: who sees more, in scenes unlike."""
    lost, deeper, seen_from = rng.uniform(0, 6), rng.normal(0, 0.5), rng.uniform(0.022, 0.042)
    page = description_of("rescue")
    ends = {"first_stop": page.first, "last_stop": page.last, "subject": page.subject}
    bench = Bench(book, "rescue", index=100.0, **ends)
    for _ in range(10):
        strip = bench.loaded.strips[0]
        asked = question_of(bench.loaded, strip).frame
        if asked is None:
            break
        x = bench.at(asked)
        told = x is not None and film.net(
            x - 0.30103 * (4 + deeper + lost), 8.0
        ) > seen_from + rng.normal(0, 0.005)
        answer_question(book, strip, asked, YES if told else NO)
    true = 8.125 / 16 / 10 ** film.x_m(8.0) / 2.0**lost
    figure = bench.answer.figures["ei"]
    return [(figure, true)] if figure.present else []


def twin(book: Notebook, _film: object, seed: int, rng: np.random.Generator) -> Found:
    """What a second cine camera needs beside the first."""
    best, slower = 100.0 * 2.0 ** rng.uniform(-1.0, 1.0), rng.uniform(-1.0, 1.0)
    bench = Bench(
        book,
        "cine",
        index=100.0,
        first_stop=-4.0,
        last_stop=4.0,
        options=LightsInTurn((1,)),
        arrangement=Arrangement.INTERLEAVED,
    )

    def verdict(strip, frame):
        if frame.frame.blank or frame.frame.stops is None:
            return ""
        here = best / 2.0 ** (slower if strip.strip.note.endswith("twin") else 0.0)
        apart = np.log2(100.0 / 2.0**frame.frame.stops / here) + rng.normal(0, 0.15)
        return "use it" if abs(apart) <= 1.0 else "nothing there"

    bench.judge(verdict)
    return [(bench.answer.figures["twin_stops"], slower)]


def clip(book: Notebook, _film: object, seed: int, rng: np.random.Generator) -> Found:
    """The factor of a weak bath, whose good piece was as far along as most are."""
    bench = Bench(book, "clip", times=(8.0, 8.0))
    along, strength = 1.3 * np.exp(0.22 * rng.standard_normal()), rng.uniform(0.6, 1.3)

    def density(strip, frame):
        rate = along * (strength if strip.strip.position else 1.0)
        return 0.25 if frame.frame.blank else 0.25 + 2.4 * -np.expm1(-rate)

    bench.read(density, noise=0.015, seed=seed)
    told = bench.answer.figures
    return [(Figure(told["factor"], told["low"], told["high"]), 1 / strength)]


def reversal(book: Notebook, _film: object, seed: int, rng: np.random.Generator) -> Found:
    """The speed of the first strip of a sheet."""
    film = varied(Reversal(), rng)
    bench = Bench(
        book,
        "reversal",
        index=20.0,
        options=SecondSteps((-1.0, 0.0, 1.0)),
        first_stop=-6.0,
        last_stop=6.0,
        step=0.5,
    )
    _read(bench, film, seed)
    return [(bench.answer.figures["reversal_speed"], film.speed(8.0))]


def wrong_setting(book: Notebook, film: object, seed: int, _rng: np.random.Generator) -> Found:
    """The time of a roll a stop over what the film was found to be, and the shadow it lost."""
    bench = Bench(book, "time", times=TIMES, step=0.5)
    _developed(bench, film, seed)
    found = decide(book, state_of(bench.loaded, bench.analysis))
    roll = Bench(book, "wrong setting", index=2 * found.exposure_index)
    true = film.time_for(film.gradient, bench.analysis.finding.target.value)
    minutes, lost = _pushes(film, true, 1.0)
    told = roll.answer.figures
    return [(told["time_min"], minutes), (told["shadow_lost"], lost)]


def control(_book: Notebook, _film: object, _seed: int, rng: np.random.Generator) -> Found:
    """Whether the limits hold a run of a process that stands still, after five references."""
    runs = []
    for run in range(8):
        fog, low, high = (0.22, 0.60, 1.40) + 0.01 * rng.standard_normal(3)
        runs.append(ControlReading(str(run), fog, low, high, reference=run < 5))
    return [
        (Figure(lane.aim, lane.aim - lane.limit, lane.aim + lane.limit), lane.values[-1])
        for lane in control_chart(tuple(runs))
    ]


KINDS = (
    latitude,
    grade,
    speed,
    series,
    time,
    push,
    own_normal,
    shadows,
    twin,
    clip,
    reversal,
    wrong_setting,
    control,
    mixed_roll,
    rescue,
    compare,
    two_developers,
    long_exposures,
    colour,
    paper,
    cine,
)


def _apart(figure: Figure, true: float) -> float:
    """How far the truth lies from the figure, in half ranges of its own side."""
    end = figure.high if true > figure.value else figure.low
    return (true - figure.value) / max(abs(end - figure.value), 1e-9)


def main(count: int, only: list[str]) -> None:
    """Print a line a kind."""
    for kind in [k for k in KINDS if not only or k.__name__ in only]:
        held, apart = 0, list[float]()
        for seed in range(count):
            rng = np.random.default_rng([9, seed])
            with tempfile.TemporaryDirectory() as folder:
                book = Notebook(Path(folder) / "sim.vadrin")
                film = varied(SHAPES["plain"], rng)
                for figure, true in kind(book, film, seed, rng):
                    if figure.low is not None and figure.high is not None:
                        held += figure.low <= true <= figure.high
                        apart.append(_apart(figure, true))
                book.close()
        name = kind.__name__.replace("_", " ")
        told = f"{held:>4} of {len(apart):>4} held ({100 * held / max(len(apart), 1):.0f} of 100)"
        width = 1 / max(1.96 * np.sqrt(np.mean(np.square(apart))), 1e-9)
        print(f"{name:<16}{told}, {width:.2f} times as wide as warranted", flush=True)


if __name__ == "__main__":
    main(int(sys.argv[1]), sys.argv[2:])
