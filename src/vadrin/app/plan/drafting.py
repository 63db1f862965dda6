"""The strips of a plan laid out frame by frame on the camera there is, and written."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from vadrin.app.loaded.makers_told import makers_told
from vadrin.app.plan.camera_settings import limits_of, with_settings
from vadrin.app.plan.compared_materials import OtherMaterial, compared_material, on_twins
from vadrin.core.planning.layout import lay_out_plan
from vadrin.core.planning.plan_request import Compared, PlanRequest
from vadrin.core.planning.strip_plan import StripPlan
from vadrin.core.planning.test_types import type_of
from vadrin.notebook.records import Frame, Strip, Test
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.exposure.camera import CameraLimits


def has_bracket(test: Test) -> bool:
    """Whether its frames are a bracket of camera exposures on film, in even steps."""
    kind = type_of(test.kind)
    return kind is not None and kind.bracketed and not test.by_contact


def plan_request_of(notebook: Notebook, test: Test, times: tuple[float, ...]) -> PlanRequest:
    """What a test asks its plan for."""
    return PlanRequest(
        test.kind,
        test.exposure_index,
        test.first_stop,
        test.last_stop,
        test.step,
        test.blanks,
        times,
        test.options,
        test.repeat_first,
        test.arrangement,
        test.film,
        test.tablet if test.by_contact else (),
        test.leader,
        test.holder,
        len(test.compared_names) or 1,
        test.compared is not Compared.DEVELOPERS,
        makers_told(notebook, test),
    )


def drafted_strips(
    notebook: Notebook, test: Test, times: tuple[float, ...]
) -> list[tuple[Strip, list[Frame]]]:
    """The strips of a plan with their frames and settings, not written yet.

    Raises
    ------
    PlanError
        If the plan cannot be, with what would help.
    """
    made = []
    limits: dict[tuple[int | None, int | None], CameraLimits] = {}
    for position, plan in enumerate(lay_out_plan(plan_request_of(notebook, test, times))):
        strip = _strip(notebook, test, position, plan)
        key = strip.camera_id, strip.stock_id
        if key not in limits:
            limits[key] = limits_of(notebook, test, strip)
        frames = _frames(plan)
        marked = frames if plan.metered_anew else with_settings(test, limits[key], frames)
        made.append((strip, marked))
    return made


def _strip(notebook: Notebook, test: Test, position: int, plan: StripPlan) -> Strip:
    note, other = plan.note, OtherMaterial()
    kind, names = type_of(test.kind), test.compared_names
    if kind and kind.compares_materials and 0 < position <= len(names):
        note, other = names[position - 1], compared_material(notebook, test, names[position - 1])
    twin = test.twin_id if position % 2 and on_twins(test) else None
    return Strip(
        test_id=test.id,
        position=position,
        label=plan.label,
        planned_min=plan.time_min,
        roll=plan.roll,
        push=plan.push,
        note=note,
        agitation=plan.agitation,
        camera_id=twin,
        stock_id=other.stock_id,
        batch_id=other.batch_id,
        developer_id=other.developer_id,
    )


def _frames(strip: StripPlan) -> list[Frame]:
    return [
        Frame(
            position=place,
            name=f.name,
            role=f.role,
            exposure_index=f.exposure_index,
            stops=f.stops,
            wanted_stops=f.stops,
            seconds=f.seconds,
            turn=f.turn,
        )
        for place, f in enumerate(strip.frames)
    ]


def lay_out(notebook: Notebook, test: Test, times: tuple[float, ...]) -> None:
    """Write the strips of a plan for the given minutes. Inside `Notebook.change`."""
    write_strips(notebook, test, drafted_strips(notebook, test, times))


def write_strips(notebook: Notebook, test: Test, plan: list[tuple[Strip, list[Frame]]]) -> None:
    strips = notebook.add_all([replace(strip, test_id=test.id) for strip, _ in plan])
    notebook.add_all(
        [
            replace(frame, strip_id=strip.id)
            for strip, (_, frames) in zip(strips, plan, strict=True)
            for frame in frames
        ]
    )
