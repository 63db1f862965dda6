"""Changing a plan, laying the strips out anew where the frames change."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vadrin.app.descriptions import PlanSentence, description_of
from vadrin.app.entry.process_steps import TypedStep
from vadrin.app.library.laboratory_steps import steps_gone_through, steps_text
from vadrin.app.library.named_records import (
    batch_named,
    camera_named,
    developer_named,
    leave_placeholders,
    lens_named,
    speed_in,
    stock_named,
)
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.drafting import drafted_strips, write_strips
from vadrin.app.plan.laboratory import process_shown, with_process, with_steps
from vadrin.app.plan.usual_process import with_usual_process
from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.core.frames import FrameState
from vadrin.core.planning.test_options import SharedIndexes, TestOptions
from vadrin.errors import EditRefusedError
from vadrin.notebook.records import Camera, Frame, Lens, Process, Stock, Strip, Test
from vadrin.notebook.store import Notebook

MOST_STRIPS = 12
USUAL_MINUTES = 8.0
"""Stands for a strip's time while none is planned."""


@dataclass(frozen=True)
class PlanEdit:
    """A wished-for plan: the test's own fields, the times, and film, chemistry, kit by name.

    A name that is None stays as it is; an empty one lets go.
    """

    test: Test
    times: tuple[float, ...]
    stock_name: str
    developer_name: str
    dilution: str
    batch_name: str | None = None
    camera_name: str | None = None
    lens_name: str | None = None
    twin_name: str | None = None
    reciprocity: str | None = None
    process_name: str | None = None
    steps: tuple[TypedStep, ...] = ()
    """Of its process, where somebody typed them anew."""
    steps_shown: str = ""


def apply_plan(notebook: Notebook, request: PlanEdit, label: str) -> None:
    """Change a plan, laying the strips out anew where the frames change.

    Raises
    ------
    EditRefusedError
        If frames were exposed already and the change would move them, or the plan cannot be.
    """
    with notebook.change(label):
        before = notebook.get(Test, request.test.id)
        _lay_out_anew(notebook, request, before)
        if before is not None:
            leave_placeholders(notebook, before)


def _lay_out_anew(notebook: Notebook, request: PlanEdit, before: Test | None) -> None:
    strips = notebook.all(Strip, test_id=request.test.id)
    there = notebook.all_of(Frame, "strip_id", [s.id for s in strips])
    test = notebook.put(_with_names(notebook, request))
    if before is not None and _only_named_anew(before, test) and _unscripted(there):
        return
    try:
        plan = drafted_strips(notebook, test, request.times)
    except ValueError as error:
        raise EditRefusedError(str(error)) from error
    scripted = description_of(test.kind).kind.scripted
    if _same_frames(strips, there, plan) or (not scripted and len(strips) == len(plan)):
        for strip, (draft, _) in zip(strips, plan, strict=True):
            notebook.put(
                replace(
                    strip,
                    planned_min=draft.planned_min,
                    push=draft.push,
                    note=draft.note,
                    developer_id=draft.developer_id,
                    stock_id=draft.stock_id,
                    batch_id=draft.batch_id,
                    camera_id=draft.camera_id,
                )
            )
        return
    if any(f.state != FrameState.PLANNED for f in there):
        raise EditRefusedError(
            "Some frames are already exposed, so the plan cannot be changed. "
            "Start a new test for another bracket."
        )
    notebook.remove_all(strips)
    write_strips(notebook, test, plan)


_NAMED = ("stock_id", "batch_id", "developer_id", "camera_id", "lens_id", "twin_id")


def _only_named_anew(before: Test, after: Test) -> bool:
    """Whether film or chemistry alone got another name."""
    named = {name: getattr(after, name) for name in (*_NAMED, "exposure_index")}
    return replace(before, **named) == after


def _unscripted(frames: list[Frame]) -> bool:
    """Whether frames came from a file, so that no script ever asked for them."""
    return bool(frames) and all(f.seconds is None and f.state == FrameState.EXPOSED for f in frames)


def _with_names(notebook: Notebook, request: PlanEdit) -> Test:
    of_kind = description_of(request.test.kind).kind.stock_kind
    # A new film is as fast as it is named; the meter's EI stands in where its name says nothing.
    speed = speed_in(request.stock_name) or request.test.exposure_index
    stock = stock_named(notebook, request.stock_name, speed, of_kind)
    developer = developer_named(notebook, request.developer_name, request.dilution)
    test = replace(request.test, stock_id=stock.id, developer_id=developer.id)
    before = notebook.get(Test, test.id)
    same = before is None or before.stock_id == stock.id
    if before is not None and not same:
        index = _index_for(notebook, before, stock, test.exposure_index)
        options = _options_for(test, before.exposure_index, index)
        test = replace(test, batch_id=None, exposure_index=index, options=options)
    test = with_usual_process(notebook, test, before)
    test = _through_process(notebook, request, test, before)
    if request.batch_name is not None:
        batch = batch_named(notebook, stock.id, request.batch_name) if request.batch_name else None
        test = replace(test, batch_id=batch.id if batch else None)
    if request.camera_name is not None:
        test = replace(test, camera_id=camera_named(notebook, request.camera_name))
    if request.twin_name is not None:
        test = replace(test, twin_id=camera_named(notebook, request.twin_name))
    if request.lens_name is not None:
        test = replace(test, lens_id=lens_named(notebook, request.lens_name))
    if same and request.reciprocity is not None and request.reciprocity != stock.reciprocity:
        notebook.put(replace(stock, reciprocity=request.reciprocity))
    return test


def _through_process(
    notebook: Notebook, request: PlanEdit, test: Test, before: Test | None
) -> Test:
    """A test through the process that was named for it, or with steps of one's own."""
    had = notebook.get(Process, before.process_id or 0) if before is not None else None
    if request.process_name not in (None, process_shown(had)):
        test = with_process(notebook, test, request.process_name or "")
    return with_steps(notebook, test, request.steps) if request.steps else test


def _index_for(notebook: Notebook, before: Test, stock: Stock, asked: float) -> float:
    """A meter left at the speed on the box of one film goes to that of the next."""
    old = notebook.get(Stock, before.stock_id)
    left = old is not None and asked == before.exposure_index == old.box_speed
    return stock.box_speed if left else asked


def _options_for(test: Test, before: float, index: float) -> TestOptions:
    """EIs that nobody typed yet follow the speed of the film."""
    usual = description_of(test.kind).options_to_begin
    if not isinstance(usual, SharedIndexes) or test.options != usual or index == before:
        return test.options
    moved = (float(marked_ei(ei * index / before)) for ei in usual.exposure_indexes)
    return SharedIndexes(tuple(moved))


def _same_frames(
    strips: list[Strip], there: list[Frame], plan: list[tuple[Strip, list[Frame]]]
) -> bool:
    """Whether a plan asks for the frames that lie there already, whatever became of them."""
    if [(s.label, s.roll) for s in strips] != [(s.label, s.roll) for s, _ in plan]:
        return False
    for strip, (_, wanted) in zip(strips, plan, strict=True):
        mine = [f for f in there if f.strip_id == strip.id]
        if [_asked(f) for f in mine] != [_asked(f) for f in wanted]:
            return False
    return True


def _asked(frame: Frame) -> tuple[object, ...]:
    return (
        frame.name,
        frame.role,
        frame.exposure_index,
        frame.wanted_stops,
        frame.seconds,
        frame.aperture,
        frame.filter_stops,
        frame.turn,
    )


def plan_edit_of(notebook: Notebook, loaded: LoadedTest) -> PlanEdit:
    """A plan as it is, to be changed from."""
    test = loaded.test

    def name_of(kind: type[Camera] | type[Lens], key: int | None) -> str | None:
        record = notebook.get(kind, key) if key else None
        return record.name if record else None

    times = tuple(s.strip.planned_min or USUAL_MINUTES for s in loaded.strips)
    if PlanSentence.TIMES not in description_of(test.kind).sentences:
        times = times[:1]
    if description_of(test.kind).kind.times_shared:
        times = tuple(dict.fromkeys(times))
    return PlanEdit(
        test,
        times or (USUAL_MINUTES,),
        loaded.stock.name,
        loaded.developer.name,
        loaded.developer.dilution,
        None,
        name_of(Camera, test.camera_id),
        name_of(Lens, test.lens_id),
        name_of(Camera, test.twin_id),
        loaded.stock.reciprocity,
        process_shown(loaded.routine),
        (),
        steps_text(steps_gone_through(loaded.routine, loaded.baths)),
    )
