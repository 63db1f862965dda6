"""Starting a test, and laying its strips out frame by frame on the camera there is."""

from __future__ import annotations

import secrets
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import TYPE_CHECKING

from vadrin.app.library.named_records import (
    batch_named,
    camera_named,
    developer_named,
    lens_named,
    stock_named,
)
from vadrin.app.plan.compared_materials import (
    OtherMaterial,
    compared_material,
    compared_names,
    on_twins,
)
from vadrin.app.plan.kind_pages import BRACKET, BY_KEY, numbers_of
from vadrin.app.test_sheet import TestSheet, load_sheets
from vadrin.core.planning.layout import capacity_of, lay_out_plan, taken_before
from vadrin.core.planning.test_kinds import PlanError, PlanRequest, StripPlan
from vadrin.notebook.records.all_records import PLANNED, Frame, Strip, Test
from vadrin.notebook.records.kit import Stock
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.exposure.camera import CameraLimits

DEFAULT_TIMES = (6.0, 8.0, 11.0, 15.0)
MOST_STRIPS = 12


class EditRefusedError(ValueError):
    """An edit that would lose something; the text says what, and the way round."""


def now() -> str:
    """The time in UTC as the notebook writes it."""
    return datetime.now(UTC).isoformat(timespec="seconds")


def fresh_uid() -> str:
    """A name for a test that no other notebook gives."""
    return secrets.token_hex(8)


def by_contact(test: Test) -> bool:
    """Whether the exposures come through a step tablet on the film."""
    return test.subject.startswith("step tablet")


def has_bracket(test: Test) -> bool:
    """Whether its frames are a bracket of camera exposures on film, in even steps."""
    needs = BY_KEY[test.kind].needs if test.kind in BY_KEY else ()
    return BRACKET in needs and test.kind != "paper" and not by_contact(test)


def plan_request_of(test: Test, times: tuple[float, ...]) -> PlanRequest:
    """What a test asks its plan for."""
    try:
        second = numbers_of(test.second)
        tablet = numbers_of(test.tablet) if by_contact(test) else ()
    except ValueError as error:
        raise PlanError(str(error)) from error
    return PlanRequest(
        test.kind, test.exposure_index, test.first_stop, test.last_stop, test.step, test.blanks,
        times, second, test.check_last, test.arrangement, test.film_form, tablet, test.leader,
        test.holder, len(compared_names(test)) or 1, test.compared in ("stocks", "batches"),
    )  # fmt: skip


def drafted_strips(notebook: Notebook, test: Test, times: tuple[float, ...]
           ) -> list[tuple[Strip, list[Frame]]]:  # fmt: skip
    """The strips of a plan with their frames and settings, not written yet.

    Raises
    ------
    PlanError
        If the plan cannot be, with what would help.
    """
    from vadrin.app.plan.camera_settings import limits_of, with_settings

    made = []
    limits: dict[tuple[int | None, int | None], CameraLimits] = {}
    for position, plan in enumerate(lay_out_plan(plan_request_of(test, times))):
        strip = _strip(notebook, test, position, plan)
        key = strip.camera_id, strip.stock_id
        if key not in limits:
            limits[key] = limits_of(notebook, test, strip)
        made.append((strip, with_settings(test, limits[key], _frames(plan))))
    return made


def _strip(notebook: Notebook, test: Test, position: int, plan: StripPlan) -> Strip:
    note, other = plan.note, OtherMaterial()
    names = compared_names(test)
    if test.kind == "compare" and 0 < position <= len(names):
        note, other = names[position - 1], compared_material(notebook, test, names[position - 1])
    twin = test.twin_id if position % 2 and on_twins(test) else None
    return Strip(
        test_id=test.id, position=position, label=plan.label, planned_min=plan.time_min,
        roll=plan.roll, push=plan.push, note=note, camera_id=twin,
        stock_id=other.stock_id, batch_id=other.batch_id, developer_id=other.developer_id,
    )  # fmt: skip


def _frames(strip: StripPlan) -> list[Frame]:
    return [
        Frame(
            position=place, name=f.name, role=f.role, exposure_index=f.exposure_index,
            stops=f.stops, wanted_stops=f.stops, seconds=f.seconds, turn=f.turn,
        )
        for place, f in enumerate(strip.frames)
    ]  # fmt: skip


def lay_out(notebook: Notebook, test: Test, times: tuple[float, ...]) -> None:
    """Write the strips of a plan for the given minutes. Inside `Notebook.change`."""
    _write(notebook, test, drafted_strips(notebook, test, times))


def _write(notebook: Notebook, test: Test, plan: list[tuple[Strip, list[Frame]]]) -> None:
    strips = notebook.add_all([replace(strip, test_id=test.id) for strip, _ in plan])
    notebook.add_all([
        replace(frame, strip_id=strip.id)
        for strip, (_, frames) in zip(strips, plan, strict=True)
        for frame in frames
    ])  # fmt: skip


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


def start_kind(notebook: Notebook, key: str) -> Test:
    """Start a test of a kind with its usual plan, film and camera as in the last test."""
    kind = BY_KEY[key]
    last = notebook.all(Test)[-1:]
    with notebook.change(f"new test: {kind.question}"):
        stock = stock_named(notebook, "a film")
        developer = developer_named(notebook, "a developer")
        test = notebook.add(
            Test(
                uid=fresh_uid(), kind=key, stock_id=stock.id, developer_id=developer.id,
                created_at=now(), exposure_index=stock.box_speed, first_stop=kind.first,
                last_stop=kind.last, step=kind.step, second=kind.second, subject=kind.subject,
                arrangement=kind.arrangement, check_last=True,
                metered_seconds=kind.metered_seconds, film_form="36 frames",
                camera_id=last[0].camera_id if last else None,
                lens_id=last[0].lens_id if last else None,
                meter_id=last[0].meter_id if last else None,
                instrument_id=last[0].instrument_id if last else None,
            )
        )  # fmt: skip
        lay_out(notebook, test, kind.times)
    return test


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


def rolls_begun(notebook: Notebook, sheet: TestSheet) -> list[str]:
    """Rolls of the same film that other tests have begun: ``36 frames after 14``."""
    found = []
    same = notebook.all(Test, stock_id=sheet.test.stock_id, batch_id=sheet.test.batch_id)
    for other in load_sheets(notebook, [t for t in same if t.id != sheet.test.id]):
        plain = other.test.film_form.partition(" after ")[0]
        capacity = capacity_of(plain) if plain else None
        last = max((s.strip.roll for s in other.strips), default=0)
        on_it = [f for s in other.strips if s.strip.roll == last for f in s.frames]
        used = len(on_it) + (taken_before(other.test.film_form) if last == 1 else 0)
        if capacity and not other.processed() and 0 < used < capacity - 1:
            # One frame's length is left for the cut between two tests.
            found.append(f"{plain} after {used + 1}")
    return found


def apply_plan(notebook: Notebook, request: PlanEdit, label: str) -> None:
    """Change a plan, laying the strips out anew where the frames change.

    Raises
    ------
    EditRefusedError
        If frames were exposed already and the change would move them, or the plan cannot be.
    """
    strips = notebook.all(Strip, test_id=request.test.id)
    with notebook.change(label):
        test = notebook.put(_with_names(notebook, request))
        try:
            plan = drafted_strips(notebook, test, request.times)
        except ValueError as error:
            raise EditRefusedError(str(error)) from error
        there = notebook.all_of(Frame, "strip_id", [s.id for s in strips])
        if _same_frames(strips, there, plan):
            for strip, (draft, _) in zip(strips, plan, strict=True):
                notebook.put(
                    replace(strip, planned_min=draft.planned_min, push=draft.push,
                            note=draft.note, developer_id=draft.developer_id,
                            stock_id=draft.stock_id, batch_id=draft.batch_id,
                            camera_id=draft.camera_id)
                )  # fmt: skip
            return
        if any(f.state != PLANNED for f in there):
            raise EditRefusedError(
                "Frames of this plan are exposed already, so its script stays. "
                "Start a new test for another bracket."
            )
        notebook.remove_all(strips)
        _write(notebook, test, plan)


def _with_names(notebook: Notebook, request: PlanEdit) -> Test:
    stock = stock_named(notebook, request.stock_name, request.test.exposure_index)
    developer = developer_named(notebook, request.developer_name, request.dilution)
    test = replace(request.test, stock_id=stock.id, developer_id=developer.id)
    before = notebook.get(Test, test.id)
    same = before is None or before.stock_id == stock.id
    if before is not None and not same:
        index = _index_for(notebook, before, stock, test.exposure_index)
        test = replace(test, batch_id=None, exposure_index=index)
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


def _index_for(notebook: Notebook, before: Test, stock: Stock, asked: float) -> float:
    """A meter left at the speed on the box of one film goes to that of the next."""
    old = notebook.get(Stock, before.stock_id)
    left = old is not None and asked == before.exposure_index == old.box_speed
    return stock.box_speed if left else asked


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
    return (frame.name, frame.role, frame.exposure_index, frame.wanted_stops, frame.seconds,
            frame.aperture, frame.filter_stops, frame.turn)  # fmt: skip
