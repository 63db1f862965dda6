"""One test of every other type, for the demo notebook: the same winter in the same darkroom.

Before the boat building begins the darkroom by the slip puts its things in order: last summer's
bottle, the paper, an old roll that was found, another film that might do, colour for the launch.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from tools.demo import demo_films as films
from tools.demo.demo_decisions import decide_demo
from tools.demo.demo_patches import write_patches
from tools.demo.demo_sheet_and_roll import write_data_sheet, write_roll
from vadrin.app.document.test_loading import load_test
from vadrin.app.library.named_records import developer_named, stock_named
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.app.plan.drafting import lay_out
from vadrin.app.read.verdict_entry import give_verdict
from vadrin.core.channels import Channel
from vadrin.core.frames import FrameState
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
from vadrin.notebook.records import Paper, Process, Reading, Strip, Test
from vadrin.notebook.store import Notebook

_NOISE = 0.008
_SABLE = "Harbour standard"
_PAPER_MIN = 1.5
"""Minutes in the tray: what paper gets is no part of its plan."""


@dataclass(frozen=True)
class _Kept:
    """One demo test: its film and process, its plan, how its frames read and are judged."""

    kind: str
    film: str
    speed: float
    day: str
    note: str
    reads: films.Reads
    times: tuple[float, ...] = (8.0,)
    asked: dict[str, Any] = field(default_factory=dict)
    channels: tuple[Channel, ...] = (Channel.VISUAL,)
    seen: films.Seen | None = None
    stock_kind: str = "black-and-white negative"
    process: str = _SABLE
    decided: bool = False


_KINDS = (
    _Kept(
        "clip",
        "Merrow Pan 125",
        125,
        "2026-09-12T19:00:00+00:00",
        "Last summer's bottle before the first winter film: first a clip.",
        films.clipped,
    ),
    _Kept(
        "paper",
        "Slip Bromide",
        6,
        "2026-09-13T20:00:00+00:00",
        "The shed's paper, at the height of an 18 × 24 cm print.",
        films.paper,
        asked={
            "first_stop": -4.0,
            "last_stop": 4.0,
            "step": 0.5,
            "subject": "clear film",
            "metered_seconds": 8.0,
            "blanks": 0,
        },
        stock_kind="paper",
        process="Shed trays",
        decided=True,
    ),
    _Kept(
        "process control",
        "Cairn Pan 100",
        100,
        "2026-09-19T19:00:00+00:00",
        "Six strips cut from one roll, one for every run of the winter.",
        films.read_of(films.drifting),
        asked={"options": ControlStrips(6)},
    ),
    _Kept(
        "speed",
        "Fathom Pan 160",
        160,
        "2026-09-20T11:00:00+00:00",
        "A fresh roll, to lay the old one beside.",
        films.read_of(films.of_its_speed),
        asked={"step": 0.5},
        decided=True,
    ),
    _Kept(
        "rescue",
        "Fathom Pan 160",
        160,
        "2026-09-26T10:00:00+00:00",
        "Found behind the steam box, eleven years past its date. Worth a roll of the keel?",
        films.read_of(films.old),
        asked={"first_stop": -2.0, "last_stop": 8.0, "subject": "still scene"},
        seen=films.judged_of(films.old),
    ),
    _Kept(
        "compare",
        "Cairn Pan 100",
        100,
        "2026-10-03T09:30:00+00:00",
        "Is the new film a stand-in for the one we know?",
        films.read_of(films.other),
        asked={"compared": Compared.STOCKS, "compared_names": ("Gannet Pan 160",)},
        decided=True,
    ),
    _Kept(
        "push",
        "Gannet Pan 160",
        160,
        "2026-10-10T10:00:00+00:00",
        "It is faster: how far can it go in the sail loft?",
        films.read_of(films.of_its_speed),
        (7.0,),
        {"options": Pushes((0.0, 1.0, 2.0)), "first_stop": -5.0, "last_stop": 4.0},
        decided=True,
    ),
    _Kept(
        "two developers",
        "Cairn Pan 100",
        100,
        "2026-10-11T10:00:00+00:00",
        "Does the staining bath give more than it costs?",
        films.stained,
        asked={"compared_names": ("Tidewrack 1+100",)},
        channels=(Channel.VISUAL, Channel.BLUE),
        decided=True,
    ),
    _Kept(
        "reciprocity",
        "Cairn Pan 100",
        100,
        "2026-10-14T21:00:00+00:00",
        "For the shed by lamplight.",
        films.dim,
        asked={"options": LongTimes((1.0, 4.0, 15.0, 60.0, 240.0))},
    ),
    _Kept(
        "mixed roll",
        "Cairn Pan 100",
        100,
        "2026-10-17T18:00:00+00:00",
        "One roll for a whole day, on the slip and in the shed.",
        films.read_of(films.stood),
        (60.0, 8.0),
        {"options": SharedIndexes((25.0, 50.0, 100.0, 200.0, 400.0, 800.0, 1600.0, 3200.0))},
        seen=films.judged_of(films.stood),
    ),
    _Kept(
        "colour",
        "Gannet Colour 200",
        200,
        "2026-10-18T12:00:00+00:00",
        "The launch in spring, if the evening is dull.",
        films.layers,
        (3.25,),
        {
            "options": Pushes((0.0, 1.0, 2.0)),
            "first_stop": -5.0,
            "last_stop": 4.0,
            "subject": "colour chart",
        },
        (Channel.RED, Channel.GREEN, Channel.BLUE),
        seen=films.colours_seen,
        stock_kind="colour negative",
        process="Pier colour",
    ),
    _Kept(
        "reversal",
        "Fathom Positive 6",
        6,
        "2026-10-24T15:00:00+00:00",
        "Direct positives for the visitors' board.",
        films.positive,
        (2.0,),
        {
            "options": SecondSteps((-1.0, 0.0, 1.0), base_s=30.0),
            "first_stop": -3.0,
            "last_stop": 3.0,
            "process_state": "three weeks old, nine sheets done",
        },
        seen=films.positive_seen,
        stock_kind="reversal",
        process="Slip direct",
    ),
    _Kept(
        "cine",
        "Fathom Cine 50",
        50,
        "2026-10-25T12:00:00+00:00",
        "The planking on film, on the slip and from under the trees.",
        films.read_of(films.of_the_light),
        (6.0, 8.0),
        {
            "first_stop": -4.0,
            "last_stop": 3.0,
            "options": LightsInTurn((1, 2)),
            "subject": "still scene",
        },
        seen=films.judged_of(films.of_the_light, films.PROJECTED),
    ),
)
"""In the order of their days."""


def write_kinds(notebook: Notebook) -> None:
    """Write a test of each type, read and judged; some of them wait for a decision."""
    write_roll(notebook)
    write_data_sheet(notebook)
    for kept in _KINDS:
        done = _write(notebook, kept)
        _read(notebook, kept, done)
        if kept.kind == "colour":
            write_patches(notebook, done.id)
        if kept.decided:
            decide_demo(notebook, done, kept.day)


def _write(notebook: Notebook, kept: _Kept) -> Test:
    stock = stock_named(notebook, kept.film, kept.speed)
    if stock.kind != kept.stock_kind:
        stock = notebook.put(replace(stock, kind=kept.stock_kind))
    process = notebook.all(Process, name=kept.process)[0]
    paper = next(iter(notebook.all(Paper)), None) if kept.kind == "paper" else None
    standard = kept.process == _SABLE
    test = notebook.add(
        Test(
            uid=f"demo{kept.kind}{kept.day[:10]}",
            kind=kept.kind,
            stock_id=stock.id,
            developer_id=process.developer_id or 0,
            created_at=kept.day,
            exposure_index=float(kept.speed),
            note=kept.note,
            agitation=process.agitation,
            process_id=None if standard else process.id,
            paper_id=paper.id if paper else None,
            **kept.asked,
        )
    )
    lay_out(notebook, test, kept.times)
    _name_others(notebook, test)
    return test


def _name_others(notebook: Notebook, test: Test) -> None:
    """The second strip of a comparison is another film, or goes through another bath."""
    if test.kind == "two developers":
        bath = developer_named(notebook, "Tidewrack", "1+100")
        other = {"developer_id": bath.id, "note": "Tidewrack 1+100"}
    elif test.kind == "compare":
        film = stock_named(notebook, "Gannet Pan 160", 160.0)
        other = {"stock_id": film.id, "note": film.name}
    else:
        return
    for strip in notebook.all(Strip, test_id=test.id):
        if strip.position:
            notebook.put(replace(strip, **other))


def _read(notebook: Notebook, kept: _Kept, test: Test) -> None:
    loaded = load_test(notebook, test.id)
    if loaded is None:
        return
    rng = np.random.default_rng(test.id)
    for strip in loaded.strips:
        minutes = strip.strip.planned_min or (_PAPER_MIN if kept.kind == "paper" else None)
        warm = reference_of(loaded) if minutes else None
        told = {"time_from": Origin.TOLD, "temperature_from": Origin.TOLD}
        notebook.put(replace(strip.strip, time_min=minutes, temperature_c=warm, **told))
        for frame in strip.frames:
            notebook.put(replace(frame.frame, state=FrameState.EXPOSED, exposed_at=kept.day))
            for channel in kept.channels:
                dense = kept.reads(test, strip, frame, channel)
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
    read = load_test(notebook, test.id)
    for strip, frame in read.frames() if read and kept.seen else ():
        said = kept.seen(test, strip, frame) if kept.seen else ""
        if said:
            give_verdict(notebook, frame, "the frame", said)
