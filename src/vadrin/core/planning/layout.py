"""A test's strips laid on the film there is: check frame, cuts, rolls, and the order shot."""

from __future__ import annotations

from dataclasses import replace
from math import floor

from vadrin.core.planning.test_kinds import (
    BRACKET,
    CHECK,
    FOGGED,
    INTERLEAVED,
    KINDS,
    LOST,
    MIRRORED,
    NO_BLANK,
    NO_CHECK,
    OWN_ROLLS,
    PlanError,
    PlannedFrame,
    PlanRequest,
    StripPlan,
)

_FRAME_M, _CINE_FRAME_M, _LEADER_M = 0.038, 0.00762, 0.15
_MOST_FRAMES = 400


def capacity_of(film_form: str) -> int | None:
    """Frames a piece of film holds; None where nothing was said.

    Raises
    ------
    PlanError
        If the words are no amount of film.
    """
    words = film_form.partition(" after ")[0].replace(",", ".").split()
    if not words:
        return None
    try:
        amount = float(words[0])
    except ValueError as error:
        raise PlanError("film comes as 36 frames, 10 sheets, 5 m or 30 m cine") from error
    unit = " ".join(words[1:]) or "frames"
    if not 0 < amount <= 1000:
        raise PlanError("that is no amount of film; 36 frames, 10 sheets, 5 m or 30 m cine")
    if unit.startswith(("frame", "exp", "sheet")):
        return int(amount)
    if unit.startswith("m"):
        size = _CINE_FRAME_M if "cine" in unit else _FRAME_M
        return max(0, floor((amount - _LEADER_M) / size))
    raise PlanError("film comes as 36 frames, 10 sheets, 5 m or 30 m cine")


def taken_before(film_form: str) -> int:
    """Frames of the first roll that another test has: 14 for ``36 frames after 14``.

    Raises
    ------
    PlanError
        If that is no number.
    """
    after = film_form.partition(" after ")[2].strip()
    if not after:
        return 0
    if not after.isdigit():
        raise PlanError("say after how many frames, such as 36 frames after 14")
    return int(after)


def lay_out_plan(request: PlanRequest) -> tuple[StripPlan, ...]:
    """Lay a plan out, with its check frame, its cuts and its rolls, in the order shot.

    Raises
    ------
    PlanError
        If it cannot be, with what would help.
    """
    if request.kind not in KINDS:
        raise PlanError(f"no kind of test is called {request.kind}")
    if not request.times:
        raise PlanError("give at least one development time")
    if request.kind not in NO_BLANK and request.blanks < 1:
        raise PlanError("keep at least one frame blank: base plus fog cannot be guessed")
    if request.kind == "compare" and request.arrangement == INTERLEAVED and request.others > 1:
        raise PlanError(
            "pairs take one roll in each of two cameras: compare one at a time, or shoot one "
            "strip after the other"
        )
    strips = KINDS[request.kind](request)
    if request.check and request.kind not in NO_CHECK:
        strips = _with_checks(strips) if request.kind == "compare" else _with_check(strips)
    strips = _cut(request, strips)
    if sum(len(s.frames) for s in strips) > _MOST_FRAMES:
        raise PlanError(f"more than {_MOST_FRAMES} frames; take coarser steps or fewer strips")
    return _in_turn(request, strips)


def _with_check(strips: list[StripPlan]) -> list[StripPlan]:
    """The first exposure once more, at the end of the last strip: did the light hold?"""
    first = next(f for f in strips[0].frames if f.role == BRACKET)
    last = strips[-1]
    again = replace(first, role=CHECK, name="c")
    return [*strips[:-1], replace(last, frames=(*last.frames, again))]


def _with_checks(strips: list[StripPlan]) -> list[StripPlan]:
    """As `_with_check`, on every strip: other films tell nothing about the light on the first."""
    return [_with_check([strip])[0] for strip in strips]


def _cut(request: PlanRequest, strips: list[StripPlan]) -> list[StripPlan]:
    """Put strips on rolls, one after the other, with a piece lost to every cut between."""
    capacity = capacity_of(request.film_form)
    sheets = "sheet" in request.film_form
    apart = request.own_rolls or request.kind in OWN_ROLLS or request.arrangement == INTERLEAVED
    made: list[StripPlan] = []
    roll, used = 1, taken_before(request.film_form)
    for place, strip in enumerate(strips):
        strip = strip if sheets else _held(request, strip)
        led = strip if sheets else _led(request, strip)
        if capacity is not None and len(led.frames) > capacity:
            raise PlanError(
                f"strip {strip.label} takes {len(led.frames)} frames and the film holds "
                f"{capacity}: take coarser steps, a shorter bracket or a longer film"
            )
        fresh = apart and place > 0
        if used and (fresh or (capacity is not None and used + 1 + len(strip.frames) > capacity)):
            roll, used = roll + 1, 0
        if used and made and not sheets and capacity is not None:
            # The knife needs a frame's length between two strips of one roll.
            before = made[-1]
            gap = PlannedFrame(LOST, "cut")
            made[-1] = replace(before, frames=(*before.frames, gap))
            used += 1
        laid = strip if used else led
        made.append(replace(laid, roll=roll))
        used += len(laid.frames)
    return made


def _held(request: PlanRequest, strip: StripPlan) -> StripPlan:
    """A strip with the piece at its head that the reel or clip holds."""
    piece = tuple(PlannedFrame(LOST, "holder") for _ in range(request.holder))
    return replace(strip, frames=piece + strip.frames)


def _led(request: PlanRequest, strip: StripPlan) -> StripPlan:
    """A strip with the leader of its roll, fogged as the film is loaded, before it."""
    piece = tuple(PlannedFrame(FOGGED, f"leader{i + 1}") for i in range(request.leader))
    return replace(strip, frames=piece + strip.frames)


def _in_turn(request: PlanRequest, strips: list[StripPlan]) -> tuple[StripPlan, ...]:
    """Number the frames in the order they are shot."""
    if request.arrangement == MIRRORED and len(strips) > 1:
        strips = [
            replace(s, frames=_mirrored(s.frames)) if place % 2 else s
            for place, s in enumerate(strips)
        ]
    places = [(s, f) for s, strip in enumerate(strips) for f in range(len(strip.frames))]
    if request.arrangement == INTERLEAVED:
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
    shots = [f for f in frames if f.role == BRACKET]
    backwards = iter(reversed(shots))
    return tuple(next(backwards) if f.role == BRACKET else f for f in frames)
