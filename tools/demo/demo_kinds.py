"""A finished and an unfinished test of every kind that answers for itself, for the demo notebook.

The darkroom by the slip keeps what it tried besides its winter film: an old roll, a stand bath,
dim light in the shed, a colour film, a direct positive, its paper.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from tools.demo.demo_decisions import decide_demo
from tools.demo.demo_patches import write_patches
from tools.demo.demo_sheet_and_roll import write_data_sheet, write_roll
from vadrin.app.document.test_loading import load_test
from vadrin.app.library.named_records import developer_named, stock_named
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip
from vadrin.app.plan.drafting import lay_out
from vadrin.app.read.verdict_entry import give_verdict
from vadrin.core.channels import Channel
from vadrin.core.exposure.reciprocity import Reciprocity, effective_time
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.origin import Origin
from vadrin.core.planning.plan_request import Compared
from vadrin.core.planning.test_options import (
    ControlStrips,
    LightsInTurn,
    LongTimes,
    Pushes,
    SecondSteps,
    SharedIndexes,
)
from vadrin.core.simulation.film import Film, curve_at, densities, typical_film
from vadrin.notebook.records import Paper, Reading, Strip, Test
from vadrin.notebook.store import Notebook

_NOISE = 0.008
_STOP = 0.30103
_SHED_LAW = Reciprocity(factor=0.16, exponent=1.42)


@dataclass(frozen=True)
class _Kept:
    """One demo test of a kind: its film, its plan, and how its frames read."""

    kind: str
    film: str
    speed: float
    day: str
    note: str
    times: tuple[float, ...] = (8.0,)
    asked: dict[str, Any] = field(default_factory=dict)
    reads: Callable[[Test, LoadedStrip, LoadedFrame, Channel], float | None] | None = None
    channels: tuple[Channel, ...] = (Channel.VISUAL,)
    usable: Callable[[LoadedStrip, LoadedFrame], str] | None = None
    stock_kind: str = "black-and-white negative"


def _film(test: Test, moved: float = 0.0) -> Film:
    film = typical_film(test.exposure_index)
    return replace(film, toe=film.toe - moved)


def _negative(
    test: Test, strip: LoadedStrip, frame: LoadedFrame, _channel: Channel
) -> float | None:
    """A film of its speed, developed as long as it was."""
    if frame.frame.role == FrameRole.FOGGED:
        return None
    return _dense(_film(test), strip.minutes or 8.0, frame.log_h(test.meter_constant))


def _dense(film: Film, minutes: float, log_h: float | None) -> float:
    place = np.array([np.nan if log_h is None else log_h])
    return float(densities(film, minutes, place)[0])


def _stood(test: Test, strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float:
    """A stand bath holds contrast back."""
    soft = replace(_film(test), contrast=0.72 if strip.strip.label == "A" else 1.0)
    return _dense(soft, 10.0, frame.log_h(test.meter_constant))


def _old(test: Test, _strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float | None:
    """Two stops gone, and fog come."""
    if frame.frame.role == FrameRole.FOGGED:
        return None
    film = replace(_film(test, -2 * _STOP), fog=0.46)
    return _dense(film, 8.0, frame.log_h(test.meter_constant))


def _other(test: Test, strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float:
    """The other film: faster, and a little steeper."""
    other = strip.strip.position > 0
    film = replace(_film(test, 0.2 if other else 0.0), contrast=1.08 if other else 1.0)
    return _dense(film, 8.0, frame.log_h(test.meter_constant))


def _stained(test: Test, strip: LoadedStrip, frame: LoadedFrame, channel: Channel) -> float:
    """Another bath: a third of a stop faster, and stained the more the denser it is."""
    other = strip.strip.position > 0
    film = _film(test, 0.1 if other else 0.0)
    dense = _dense(film, 8.0, frame.log_h(test.meter_constant))
    stains = other and channel == Channel.BLUE
    return dense + (0.03 + 0.18 * dense if stains else 0.0)


def _dim(test: Test, _strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float:
    """Long exposures lose by a law of the film's own."""
    log_h, held = frame.log_h(test.meter_constant), frame.frame.seconds
    if log_h is not None and held is not None and held > 0.5:
        stops = frame.frame.stops or 0.0
        worth = effective_time(_SHED_LAW, held) / (held / 2.0**stops)
        log_h += float(np.log10(worth)) - _STOP * stops
    return _dense(_film(test), 8.0, log_h)


def _layers(test: Test, strip: LoadedStrip, frame: LoadedFrame, channel: Channel) -> float:
    """Three layers; pushed far, blue runs away from the others."""
    base = {Channel.RED: 0.22, Channel.GREEN: 0.55, Channel.BLUE: 0.85}[channel]
    push = strip.strip.push or 0.0
    film, minutes = _film(test), strip.minutes or 6.5
    net = _dense(film, minutes, frame.log_h(test.meter_constant))
    net -= float(curve_at(film, minutes).fog)
    steeper = 1.0 + (0.11 * push if channel == Channel.BLUE else 0.0)
    return base + 0.02 * push + net * steeper


def _positive(test: Test, strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float:
    """A direct positive: density falls with exposure, and with the second factor."""
    log_h = frame.log_h(test.meter_constant)
    if log_h is None:
        return 2.1
    middle = float(np.log10(test.meter_constant / test.exposure_index)) - 0.1
    away = log_h - middle + 0.15 * (strip.strip.position - 1)
    return float(0.14 + 1.95 / (1 + np.exp(4.2 * away)))


def _paper(_test: Test, _strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float | None:
    """Enlarging paper, by the seconds its steps had."""
    seconds = frame.frame.seconds
    if not seconds:
        return None
    return float(0.07 + 2.02 / (1 + np.exp(-6.0 * np.log10(seconds / 7.0))))


def _seen(low: float, high: float) -> Callable[[LoadedStrip, LoadedFrame], str]:
    def verdict(_strip: LoadedStrip, frame: LoadedFrame) -> str:
        index = frame.frame.exposure_index
        if frame.frame.blank or index is None:
            return ""
        if index < low:
            return "too dense"
        return "use it" if index <= high else "nothing there"

    return verdict


def _old_seen(_strip: LoadedStrip, frame: LoadedFrame) -> str:
    """Two stops from the box on the shadows come; far over, the fog is met again."""
    stops = frame.frame.stops
    if frame.frame.blank or stops is None:
        return ""
    return "nothing there" if stops < 1 else "can be salvaged" if stops < 2 else "use it"


def _clipped(_test: Test, strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float:
    """The piece in question came out thinner: the bath is old."""
    if frame.frame.role != FrameRole.FOGGED:
        return 0.24
    return 2.21 if strip.strip.position == 0 else 1.98


def _drifting(test: Test, strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float:
    """A process that holds, until its last run was a little too warm."""
    late = strip.strip.position == 5
    film = replace(_film(test), contrast=1.09 if late else 1.0)
    return _dense(film, 8.0, frame.log_h(test.meter_constant))


def _cine_seen(strip: LoadedStrip, frame: LoadedFrame) -> str:
    """In the sun a meter's own exposure is best; in the shade a stop more is wanted."""
    stops = frame.frame.stops
    if frame.frame.blank or stops is None:
        return ""
    best = 0.0 if strip.strip.note == "sun" else 1.0
    long = strip.strip.planned_min == 8.0
    return "use it" if abs(stops - best) <= (0.0 if long else 1.0) else "can be salvaged"


def _cell(strip: LoadedStrip, frame: LoadedFrame) -> str:
    best = strip.strip.position == 1 and (frame.frame.stops or 0.0) in (0.0, 1.0)
    return "use it" if best else "can be salvaged" if strip.strip.position == 1 else "nothing there"


_KINDS = (
    _Kept(
        "mixed roll",
        "Cairn Pan 100",
        100,
        "2026-09-12T18:00:00+00:00",
        "One roll for the whole regatta, in and out of the shed.",
        (60.0, 8.0),
        {"options": SharedIndexes((25.0, 50.0, 100.0, 200.0, 400.0, 800.0, 1600.0, 3200.0))},
        _stood,
        usable=_seen(50, 400),
    ),
    _Kept(
        "rescue",
        "Fathom Pan 160",
        160,
        "2026-08-30T10:00:00+00:00",
        "Found behind the steam box, eleven years past its date.",
        asked={"first_stop": 0.0, "last_stop": 7.0, "subject": "still scene"},
        reads=_old,
        usable=_old_seen,
    ),
    _Kept(
        "compare",
        "Cairn Pan 100",
        100,
        "2026-08-16T09:30:00+00:00",
        "Is the new film a stand-in for the one we know?",
        asked={"compared": Compared.STOCKS, "compared_names": ("Gannet Pan 160",)},
        reads=_other,
    ),
    _Kept(
        "reciprocity",
        "Cairn Pan 100",
        100,
        "2026-07-19T21:00:00+00:00",
        "For the shed by lamplight.",
        asked={"options": LongTimes((1.0, 4.0, 15.0, 60.0, 240.0))},
        reads=_dim,
    ),
    _Kept(
        "colour",
        "Gannet Colour 200",
        200,
        "2026-06-28T12:00:00+00:00",
        "The launch, if the evening is dull.",
        (6.5,),
        {
            "options": Pushes((0.0, 1.0, 2.0)),
            "first_stop": -5.0,
            "last_stop": 4.0,
            "subject": "colour chart",
        },
        _layers,
        (Channel.RED, Channel.GREEN, Channel.BLUE),
        stock_kind="colour negative",
    ),
    _Kept(
        "reversal",
        "Fathom Positive 6",
        6,
        "2026-06-07T15:00:00+00:00",
        "Direct positives for the visitors' board.",
        asked={"options": SecondSteps((-1.0, 0.0, 1.0)), "first_stop": -3.0, "last_stop": 3.0},
        reads=_positive,
        usable=_cell,
        stock_kind="reversal",
    ),
    _Kept(
        "paper",
        "Slip Bromide",
        6,
        "2026-05-24T20:00:00+00:00",
        "The shed's paper, at the height of an 18 × 24 cm print.",
        asked={
            "first_stop": -4.0,
            "last_stop": 4.0,
            "step": 0.5,
            "subject": "clear film",
            "metered_seconds": 8.0,
            "blanks": 0,
        },
        reads=_paper,
        stock_kind="paper",
    ),
    _Kept(
        "two developers",
        "Cairn Pan 100",
        100,
        "2026-04-04T10:00:00+00:00",
        "Does the staining bath give more than it costs?",
        asked={"compared_names": ("Tidewrack 1+100",)},
        reads=_stained,
        channels=(Channel.VISUAL, Channel.BLUE),
    ),
    _Kept(
        "cine",
        "Fathom Cine 50",
        50,
        "2026-03-21T12:00:00+00:00",
        "The launch on film, from the slip and from under the trees.",
        (6.0, 8.0),
        {
            "first_stop": -2.0,
            "last_stop": 2.0,
            "options": LightsInTurn((1, 2)),
            "subject": "still scene",
        },
        _negative,
        usable=_cine_seen,
    ),
    _Kept(
        "clip",
        "Merrow Pan 125",
        125,
        "2026-02-14T19:00:00+00:00",
        "The bottle is at its last film: first a clip.",
        reads=_clipped,
    ),
    _Kept(
        "process control",
        "Cairn Pan 100",
        100,
        "2026-02-07T19:00:00+00:00",
        "Six strips cut from one roll, one with every run.",
        asked={"options": ControlStrips(6)},
        reads=_drifting,
    ),
    _Kept(
        "push",
        "Gannet Pan 160",
        160,
        "2026-05-10T10:00:00+00:00",
        "How far can it go in the sail loft?",
        (7.0,),
        {"options": Pushes((0.0, 1.0, 2.0)), "first_stop": -5.0, "last_stop": 4.0},
        _negative,
    ),
    _Kept(
        "speed",
        "Fathom Pan 160",
        160,
        "2026-04-18T11:00:00+00:00",
        "A fresh roll, to lay the old one beside.",
        asked={"step": 0.5},
        reads=_negative,
    ),
)


_DECIDED = ("compare", "two developers", "push", "speed")
"""Kinds whose finished test was decided on, so that its film stands beside the others."""


def write_kinds(notebook: Notebook) -> None:
    """Write a finished test of each kind, and one of each that is only planned."""
    write_roll(notebook)
    write_data_sheet(notebook)
    for kept in _KINDS:
        done = _write(notebook, kept, kept.day, kept.note)
        _read(notebook, kept, done)
        if kept.kind == "colour":
            write_patches(notebook, done.id)
        if kept.kind in _DECIDED:
            decide_demo(notebook, done, kept.day)
        before = f"{int(kept.day[:4]) - 1}{kept.day[4:]}"
        _write(notebook, kept, before, "Planned again for another batch.")


def _write(notebook: Notebook, kept: _Kept, day: str, note: str) -> Test:
    stock = stock_named(notebook, kept.film, kept.speed)
    if stock.kind != kept.stock_kind:
        stock = notebook.put(replace(stock, kind=kept.stock_kind))
    developer = developer_named(notebook, "Sable", "1+1")
    paper = next(iter(notebook.all(Paper)), None) if kept.kind == "paper" else None
    test = notebook.add(
        Test(
            uid=f"demo{kept.kind}{day[:10]}",
            kind=kept.kind,
            stock_id=stock.id,
            developer_id=developer.id,
            created_at=day,
            exposure_index=float(kept.speed),
            note=note,
            agitation="first 30 s, then 4 turns a minute",
            paper_id=paper.id if paper else None,
            **kept.asked,
        )
    )
    lay_out(notebook, test, kept.times)
    if kept.kind == "two developers":
        other_bath = developer_named(notebook, "Tidewrack", "1+100")
        for strip in notebook.all(Strip, test_id=test.id):
            if strip.position:
                notebook.put(replace(strip, developer_id=other_bath.id, note="Tidewrack 1+100"))
    if kept.kind == "compare":
        other = stock_named(notebook, "Gannet Pan 160", 160.0)
        for strip in notebook.all(Strip, test_id=test.id):
            if strip.position:
                notebook.put(replace(strip, stock_id=other.id, note=other.name))
    return test


def _read(notebook: Notebook, kept: _Kept, test: Test) -> None:
    loaded, reads = load_test(notebook, test.id), kept.reads
    if loaded is None or reads is None:
        return
    rng = np.random.default_rng(test.id)
    for strip in loaded.strips:
        minutes = strip.strip.planned_min
        warm = 20.0 if minutes else None
        told = {"time_from": Origin.TOLD, "temperature_from": Origin.TOLD}
        notebook.put(replace(strip.strip, time_min=minutes, temperature_c=warm, **told))
        for frame in strip.frames:
            notebook.put(replace(frame.frame, state=FrameState.EXPOSED, exposed_at=kept.day))
            for channel in kept.channels:
                dense = reads(test, strip, frame, channel)
                if dense is not None:
                    shown = round(max(0.0, dense + _NOISE * float(rng.standard_normal())), 2)
                    notebook.add(
                        Reading(
                            frame_id=frame.frame.id,
                            density=shown,
                            channel=channel,
                            read_at=kept.day,
                        )
                    )
    shown_sheet = load_test(notebook, test.id)
    for strip, frame in shown_sheet.frames() if shown_sheet and kept.usable else ():
        said = kept.usable(strip, frame) if kept.usable else ""
        if said:
            give_verdict(notebook, frame, "the frame", said)
