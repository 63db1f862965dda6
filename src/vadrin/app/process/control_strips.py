"""Control strips of a process: typed, charted over runs, and held against what ran with them."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vadrin.app.descriptions.answer_in_words import OwnAnswer
from vadrin.app.entry.densities import density_typed
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.results.working_steps import developed_steps
from vadrin.app.stamps import now
from vadrin.core.diagnostic import Diagnostic, Severity
from vadrin.core.planning.test_types.process_control import HIGH, LOW, ProcessControl
from vadrin.core.process.control_limits import (
    Control,
    ControlFigure,
    ControlLane,
    ControlReading,
    control_chart,
    likely_causes,
)
from vadrin.core.wording import list_text
from vadrin.errors import EntryError
from vadrin.notebook.records import ControlStrip, DarkroomRun
from vadrin.notebook.store import Notebook

Lane = ControlLane
"""One figure of the chart, as the screen knows it."""
_LIKE = "base plus fog, thin patch, dense patch, such as 0.22 0.48 1.31"


def control_readings(loaded: LoadedTest) -> tuple[ControlReading, ...]:
    """The control strips of a test's process, in the order they were run; of a test that makes
    them, its own strips as they were read."""
    if loaded.test.kind == ProcessControl.key:
        made = [_of_strip(loaded, place) for place in range(len(loaded.strips))]
        return tuple(m for m in made if m is not None)
    return tuple(
        ControlReading(_name(s), s.fog, s.low, s.high, s.reference) for s in _in_order(loaded)
    )


def _in_order(loaded: LoadedTest) -> list[ControlStrip]:
    """The kept strips of a test's process as they were run."""
    return sorted(loaded.controls, key=lambda s: (s.read_at, s.id))


def _name(strip: ControlStrip) -> str:
    return f"{strip.read_at[:10]} {strip.batch}".strip() or f"run {strip.id}"


def chart_lanes(loaded: LoadedTest) -> tuple[ControlLane, ...]:
    """The chart of a test's process."""
    return control_chart(control_readings(loaded))


def _of_strip(loaded: LoadedTest, place: int) -> ControlReading | None:
    """A strip of a test of process control, where its three patches are read."""
    strip = loaded.strips[place]
    blanks = [f.density for f in strip.frames if f.frame.blank and f.density is not None]
    low, high = (
        next((f.density for f in strip.frames if f.frame.name == name), None)
        for name in (LOW, HIGH)
    )
    if not blanks or low is None or high is None:
        return None
    fog = sum(blanks) / len(blanks)
    return ControlReading(f"strip {strip.strip.label}", fog, low, high, place == 0)


def type_control_strip(notebook: Notebook, loaded: LoadedTest, words: str) -> None:
    """Keep the three densities of a strip that went with the newest run of a test.

    Raises
    ------
    EntryError
        If they are no three densities, or the test follows no process.
    """
    if loaded.routine is None:
        raise EntryError("a control strip belongs to a process: name it under What they got first")
    parts = words.replace(";", " ").split()
    reference = bool(parts) and parts[0].lower() == "reference"
    numbers = parts[1:] if reference else parts
    if len(numbers) < 3:
        raise EntryError(f"type {_LIKE}")
    fog, low, high = (density_typed(p.rstrip(",")) for p in numbers[:3])
    if not fog <= low <= high:
        raise EntryError(f"they rise from one to the next: type {_LIKE}")
    runs = notebook.all(DarkroomRun, test_id=loaded.test.id)
    with notebook.change("read a control strip"):
        notebook.add(
            ControlStrip(
                process_id=loaded.routine.id,
                run_id=runs[-1].id if runs else None,
                read_at=now(),
                batch=" ".join(numbers[3:]),
                fog=fog,
                low=low,
                high=high,
                reference=reference or not loaded.controls,
            )
        )


def turn_reference(notebook: Notebook, strip_id: int) -> None:
    """Let a strip say where the process should be, or no longer."""
    strip = notebook.get(ControlStrip, strip_id)
    if strip is not None:
        with notebook.change("a control strip as reference"):
            notebook.put(replace(strip, reference=not strip.reference))


def forget_control_strip(notebook: Notebook, strip_id: int) -> None:
    """Take a strip out of the chart."""
    strip = notebook.get(ControlStrip, strip_id)
    if strip is not None:
        with notebook.change("take a control strip away"):
            notebook.remove(strip)


@dataclass(frozen=True)
class ControlRow:
    """One strip of the chart in words; `strip_id` 0 for a strip of the test itself."""

    strip_id: int
    name: str
    figures: tuple[str, ...]
    standing: str
    out: bool


def _worst(lanes: tuple[ControlLane, ...], place: int) -> Control:
    standing = [lane.standing[place] for lane in lanes]
    order = (Control.OUT, Control.DRIFTS, Control.REFERENCE, Control.IN)
    return next(c for c in order if c in standing)


def control_rows(loaded: LoadedTest) -> list[ControlRow]:
    """Every strip with how it stands, the newest first."""
    strips = control_readings(loaded)
    lanes = control_chart(strips)
    kept = _in_order(loaded)
    ids = [0] * len(strips) if loaded.test.kind == ProcessControl.key else [s.id for s in kept]
    rows = []
    for place, strip in enumerate(strips):
        standing = _worst(lanes, place)
        figures = tuple(f"{strip.of(figure):.2f}" for figure in ControlFigure)
        why = _why(lanes, place) if standing is Control.OUT else ""
        rows.append(
            ControlRow(
                ids[place], strip.name, figures, f"{standing.value}{why}", standing is Control.OUT
            )
        )
    return rows[::-1]


def _off(lane: ControlLane, place: int) -> float:
    return (lane.values[place] - lane.aim) / lane.limit


def _why(lanes: tuple[ControlLane, ...], place: int) -> str:
    """What is off, and what usually does that."""
    by = {lane.figure: _off(lane, place) for lane in lanes}
    far = [
        f"{lane.figure.value} {lane.values[place] - lane.aim:+.2f}".replace("-", "−")
        for lane in lanes
        if abs(by[lane.figure]) > 1
    ]
    causes = likely_causes(by[ControlFigure.LOW], by[ControlFigure.CONTRAST], by[ControlFigure.FOG])
    return f": {list_text(far)}" + (f"; usually {', or '.join(causes)}" if causes else "")


def chart_words(loaded: LoadedTest) -> str:
    """The chart in a sentence."""
    strips = control_readings(loaded)
    if not strips:
        return (
            "No control strip yet. Expose a batch alike (a test of process control), let one go "
            f"with each run, and type its densities: {_LIKE}."
        )
    lanes = control_chart(strips)
    last = _worst(lanes, len(strips) - 1)
    why = _why(lanes, len(strips) - 1) if last is Control.OUT else ""
    from_own = any(lane.own_limit for lane in lanes)
    limits = "of three standard deviations of its own references" if from_own else "as usual"
    return f"The newest strip is {last.value}{why}. Limits {limits}."


def control_answer(loaded: LoadedTest) -> OwnAnswer:
    """The answer of a test of process control."""
    strips, lanes = control_readings(loaded), chart_lanes(loaded)
    if len(strips) < 2:
        act = "Read the blank, the low and the high patch of the strip that went with each run."
        return OwnAnswer("", "no run to hold against the first yet", act)
    last = _worst(lanes, len(strips) - 1)
    says = f"{last.value[0].upper()}{last.value[1:]}"
    act = "Correct the process, then process another control strip." if last is Control.OUT else ""
    figures = {f"{lane.figure.value} off": lane.values[-1] - lane.aim for lane in lanes}
    steps = tuple(
        ("Process", f"one control strip with every run, {words}")
        for _, words in developed_steps(loaded)
    )
    return OwnAnswer(says, chart_words(loaded), act, figures, steps=steps[:1])


def control_diagnostics(loaded: LoadedTest) -> tuple[Diagnostic, ...]:
    """What is to be minded of strips that ran beside a control strip out of control."""
    strips = control_readings(loaded)
    if loaded.test.kind == ProcessControl.key or not strips:
        return ()
    lanes = control_chart(strips)
    kept = _in_order(loaded)
    mine = [i for i, s in enumerate(kept) if s.run_id is not None and s.run_id in loaded.run_ids]
    out = [place for place in mine if _worst(lanes, place) is Control.OUT]
    if not out:
        return ()
    labels = [s.strip.label for s in loaded.strips if s.strip.time_min is not None]
    return (
        Diagnostic(
            "out of control",
            Severity.SERIOUS,
            f"The control strip of this run is outside its limits{_why(lanes, out[-1])}.",
            f"Take what strips {list_text(labels)} say with that in mind, or run them again.",
        ),
    )
