"""Starting a test, and laying its strips out frame by frame on the camera there is."""

from __future__ import annotations

import secrets
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from vadrin.app.kinds import BY_KEY, numbers_of
from vadrin.core.plan import plan_of
from vadrin.core.plan_kinds import PlanError, StripPlan, Wish
from vadrin.notebook.kit import Batch, Camera, Developer, Lens, Stock
from vadrin.notebook.records import PLANNED, Frame, Strip, Test
from vadrin.notebook.store import Notebook

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


def stock_named(notebook: Notebook, name: str, box_speed: float | None = None) -> Stock:
    """The stock with a name, written if it is new. Inside `Notebook.change`."""
    known = notebook.all(Stock, name=name)
    if known:
        return known[0]
    return notebook.add(Stock(name=name, box_speed=box_speed or 100.0))


def developer_named(notebook: Notebook, name: str, dilution: str = "") -> Developer:
    """The developer with a name and dilution, written if it is new. Inside `change`."""
    known = notebook.all(Developer, name=name, dilution=dilution)
    return known[0] if known else notebook.add(Developer(name=name, dilution=dilution))


def by_contact(test: Test) -> bool:
    """Whether the exposures come through a step tablet on the film."""
    return test.subject.startswith("step tablet")


def wish_of(test: Test, times: tuple[float, ...]) -> Wish:
    """What a test asks its plan for."""
    try:
        second = numbers_of(test.second)
        tablet = numbers_of(test.tablet) if by_contact(test) else ()
    except ValueError as error:
        raise PlanError(str(error)) from error
    return Wish(
        test.kind, test.exposure_index, test.first_stop, test.last_stop, test.step, test.blanks,
        times, second, test.check_last, test.arrangement, test.film_form, tablet,
    )  # fmt: skip


def drafts(notebook: Notebook, test: Test, times: tuple[float, ...]
           ) -> list[tuple[Strip, list[Frame]]]:  # fmt: skip
    """The strips of a plan with their frames and settings, not written yet.

    Raises
    ------
    PlanError
        If the plan cannot be, with what would help.
    """
    from vadrin.app.shooting import limits_of, with_settings

    made, limits = [], limits_of(notebook, test)
    for position, strip in enumerate(plan_of(wish_of(test, times))):
        frames = with_settings(test, limits, _frames(strip))
        made.append((_strip(notebook, test, position, strip), frames))
    return made


def _strip(notebook: Notebook, test: Test, position: int, plan: StripPlan) -> Strip:
    other = None
    if test.kind == "compare" and position == 1 and test.against:
        other = _developer_against(notebook, test)
    return Strip(
        test_id=test.id, position=position, label=plan.label, planned_min=plan.time_min,
        roll=plan.roll, push=plan.push, note=plan.note, developer_id=other,
    )  # fmt: skip


def _developer_against(notebook: Notebook, test: Test) -> int | None:
    """The developer a comparison is against: the name typed, with its dilution last."""
    name, _, dilution = test.against.rpartition(" ")
    for developer in notebook.all(Developer):
        if f"{developer.name} {developer.dilution}".strip() == test.against.strip():
            return developer.id
    if notebook.read_only:
        return None
    with notebook.change("developer"):
        if not name:
            return developer_named(notebook, dilution).id
        return developer_named(notebook, name, dilution).id


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
    _write(notebook, test, drafts(notebook, test, times))


def _write(notebook: Notebook, test: Test, plan: list[tuple[Strip, list[Frame]]]) -> None:
    strips = notebook.add_all([replace(strip, test_id=test.id) for strip, _ in plan])
    for strip, (_, frames) in zip(strips, plan, strict=True):
        notebook.add_all([replace(frame, strip_id=strip.id) for frame in frames])


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


def started(notebook: Notebook, strips: list[Strip]) -> bool:
    """Whether any frame of these strips was taken."""
    frames = notebook.all_of(Frame, "strip_id", [s.id for s in strips])
    return any(f.state != PLANNED for f in frames)


def apply_plan(notebook: Notebook, wish: PlanEdit, label: str) -> None:
    """Change a plan, laying the strips out anew where the frames change.

    Raises
    ------
    EditRefusedError
        If frames were exposed already and the change would move them, or the plan cannot be.
    """
    strips = notebook.all(Strip, test_id=wish.test.id)
    with notebook.change(label):
        test = notebook.put(_with_names(notebook, wish))
        try:
            plan = drafts(notebook, test, wish.times)
        except ValueError as error:
            raise EditRefusedError(str(error)) from error
        if _same_frames(notebook, strips, plan):
            for strip, (draft, _) in zip(strips, plan, strict=True):
                notebook.put(
                    replace(strip, planned_min=draft.planned_min, push=draft.push,
                            note=draft.note, developer_id=draft.developer_id)
                )  # fmt: skip
            return
        if started(notebook, strips):
            raise EditRefusedError(
                "Frames of this plan are exposed already, so its script stays. "
                "Start a new test for another bracket."
            )
        notebook.remove_all(strips)
        _write(notebook, test, plan)


def _with_names(notebook: Notebook, wish: PlanEdit) -> Test:
    stock = stock_named(notebook, wish.stock_name, wish.test.exposure_index)
    developer = developer_named(notebook, wish.developer_name, wish.dilution)
    test = replace(wish.test, stock_id=stock.id, developer_id=developer.id)
    before = notebook.get(Test, test.id)
    if before is not None and before.stock_id != stock.id:
        test = replace(test, batch_id=None)
    if wish.batch_name is not None:
        known = notebook.all(Batch, stock_id=stock.id, name=wish.batch_name)
        fresh = Batch(stock_id=stock.id, name=wish.batch_name)
        batch = known[0] if known else notebook.add(fresh) if wish.batch_name else None
        test = replace(test, batch_id=batch.id if batch else None)
    if wish.camera_name is not None:
        test = replace(test, camera_id=_kit_named(notebook, Camera, wish.camera_name))
    if wish.lens_name is not None:
        test = replace(test, lens_id=_kit_named(notebook, Lens, wish.lens_name))
    return test


def _kit_named(notebook: Notebook, kind: type[Camera] | type[Lens], name: str) -> int | None:
    if not name.strip():
        return None
    known = notebook.all(kind, name=name.strip())
    return known[0].id if known else notebook.add(kind(name=name.strip())).id


def _same_frames(
    notebook: Notebook, strips: list[Strip], plan: list[tuple[Strip, list[Frame]]]
) -> bool:
    """Whether a plan asks for the frames that lie there already, whatever became of them."""
    if [(s.label, s.roll) for s in strips] != [(s.label, s.roll) for s, _ in plan]:
        return False
    there = notebook.all_of(Frame, "strip_id", [s.id for s in strips])
    for strip, (_, wanted) in zip(strips, plan, strict=True):
        mine = [f for f in there if f.strip_id == strip.id]
        if [_asked(f) for f in mine] != [_asked(f) for f in wanted]:
            return False
    return True


def _asked(frame: Frame) -> tuple[object, ...]:
    return (frame.name, frame.role, frame.exposure_index, frame.wanted_stops, frame.seconds,
            frame.aperture, frame.filter_stops, frame.turn)  # fmt: skip
