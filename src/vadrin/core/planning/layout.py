"""A test's strips laid on the film there is: check frame, cuts, rolls, and the order shot."""

from __future__ import annotations

from dataclasses import replace

from vadrin.core.frames import FrameRole
from vadrin.core.planning.plan_request import Arrangement, FilmUnit, PlanRequest
from vadrin.core.planning.strip_plan import PlannedFrame, StripPlan
from vadrin.core.planning.test_types import TestType, type_of
from vadrin.core.wording import counted
from vadrin.errors import PlanError

_MOST_FRAMES = 1000


def lay_out_plan(request: PlanRequest) -> tuple[StripPlan, ...]:
    """Lay a plan out, with its check frame, its cuts and its rolls, in the order shot.

    Raises
    ------
    PlanError
        If it cannot be, with what would help.
    """
    kind = type_of(request.kind)
    if kind is None:
        raise PlanError(f"no kind of test is called {request.kind}")
    if not request.times:
        raise PlanError("give at least one development time")
    if kind.needs_blank and request.blanks < 1:
        raise PlanError("keep at least one frame blank, for base plus fog")
    if kind.compares_materials and _paired(request) and request.others > 1:
        raise PlanError(
            "pairs take one roll in each of two cameras: compare one at a time, or shoot one "
            "strip after the other"
        )
    strips = kind.lay_out(request)
    if kind.on_one_sheet(request.options):
        return _under_the_slide(request, strips)
    if request.repeat_first and kind.repeats_first:
        strips = _with_checks(kind, strips)
    strips = _cut(request, kind, strips)
    if sum(len(s.frames) for s in strips) > _MOST_FRAMES:
        raise PlanError(f"more than {_MOST_FRAMES} frames; take coarser steps or fewer strips")
    return _in_turn(request, strips)


def _under_the_slide(request: PlanRequest, strips: list[StripPlan]) -> tuple[StripPlan, ...]:
    """Bands of one sheet: every cell is exposed at once with those of the other bands."""
    if request.tablet or request.step != 1.0:
        raise PlanError(
            "by the dark slide each exposure doubles what the open cells have: take whole stops"
        )
    return tuple(
        replace(strip, frames=tuple(replace(f, turn=turn) for turn, f in enumerate(strip.frames)))
        for strip in strips
    )


def _paired(request: PlanRequest) -> bool:
    return request.arrangement is Arrangement.INTERLEAVED


def _with_checks(kind: TestType, strips: list[StripPlan]) -> list[StripPlan]:
    """The first exposure once more: at the end of the last strip, or of every one."""
    if kind.repeats_on_every_strip:
        return [_checked(strip, strip) for strip in strips]
    return [*strips[:-1], _checked(strips[-1], strips[0])]


def _checked(strip: StripPlan, repeating: StripPlan) -> StripPlan:
    first = next(f for f in repeating.frames if f.role is FrameRole.BRACKET)
    again = replace(first, role=FrameRole.CHECK, name="c")
    # Pieces fogged for a clip are cut from the end of the roll, so they stay last.
    lit = len(strip.frames)
    while lit and strip.frames[lit - 1].role is FrameRole.FOGGED:
        lit -= 1
    return replace(strip, frames=(*strip.frames[:lit], again, *strip.frames[lit:]))


def _cut(request: PlanRequest, kind: TestType, strips: list[StripPlan]) -> list[StripPlan]:
    """Put strips on rolls, one after the other, with a piece lost to every cut between."""
    film = request.film
    capacity = film.capacity if film else None
    sheets = film is not None and film.unit is FilmUnit.SHEETS
    apart = request.own_rolls or kind.own_rolls or _paired(request)
    made: list[StripPlan] = []
    roll, used = 1, film.taken if film else 0
    for place, bare in enumerate(strips):
        strip = bare if sheets else _held(request, bare)
        led = strip if sheets else _led(request, strip)
        if capacity is not None and len(led.frames) > capacity:
            raise PlanError(
                f"strip {strip.label} takes {counted(len(led.frames), 'frame')} and the film holds "
                f"{capacity}: take coarser steps, a shorter bracket or a longer film"
            )
        fresh = apart and place > 0
        if used and (fresh or (capacity is not None and used + 1 + len(strip.frames) > capacity)):
            roll, used = roll + 1, 0
        if used and made and not sheets and capacity is not None:
            # The knife needs a frame's length between two strips of one roll.
            before = made[-1]
            gap = PlannedFrame(FrameRole.LOST, "cut")
            made[-1] = replace(before, frames=(*before.frames, gap))
            used += 1
        laid = strip if used else led
        made.append(replace(laid, roll=roll))
        used += len(laid.frames)
    return made


def _held(request: PlanRequest, strip: StripPlan) -> StripPlan:
    """A strip with the piece at its head that the reel or clip holds."""
    piece = tuple(PlannedFrame(FrameRole.LOST, "holder") for _ in range(request.holder))
    return replace(strip, frames=piece + strip.frames)


def _led(request: PlanRequest, strip: StripPlan) -> StripPlan:
    """A strip with the leader of its roll, fogged as the film is loaded, before it."""
    piece = tuple(PlannedFrame(FrameRole.FOGGED, f"leader{i + 1}") for i in range(request.leader))
    return replace(strip, frames=piece + strip.frames)


def _in_turn(request: PlanRequest, strips: list[StripPlan]) -> tuple[StripPlan, ...]:
    """Number the frames in the order they are shot."""
    if request.arrangement is Arrangement.MIRRORED and len(strips) > 1:
        strips = [
            replace(s, frames=_mirrored(s.frames)) if place % 2 else s
            for place, s in enumerate(strips)
        ]
    places = [(s, f) for s, strip in enumerate(strips) for f in range(len(strip.frames))]
    if _paired(request):
        # Twins on two cameras: each exposure is taken on both before the next.
        places.sort(key=lambda place: (place[1], place[0]))
    turns = {place: turn for turn, place in enumerate(places)}
    return tuple(
        replace(
            strip,
            frames=tuple(replace(frame, turn=turns[s, f]) for f, frame in enumerate(strip.frames)),
        )
        for s, strip in enumerate(strips)
    )


def _mirrored(frames: tuple[PlannedFrame, ...]) -> tuple[PlannedFrame, ...]:
    """The same frames with the bracket backwards, so that drift is met from both ends."""
    shots = [f for f in frames if f.role is FrameRole.BRACKET]
    backwards = iter(reversed(shots))
    return tuple(next(backwards) if f.role is FrameRole.BRACKET else f for f in frames)
