"""A new test like an old one, with exactly one thing changed."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from vadrin.app.document.test_loading import load_test
from vadrin.app.entry.exposures import exposure_index_typed
from vadrin.app.entry.times import times_typed
from vadrin.app.library.differences import Difference, conditions_of, differences
from vadrin.app.library.named_records import batch_named, camera_named, developer_named, stock_named
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.stamps import fresh_uid, now
from vadrin.errors import EditRefusedError
from vadrin.notebook.records import Developer, Test
from vadrin.notebook.store import Notebook

_Change = Callable[[Notebook, Test, str], Test]


def _film(notebook: Notebook, test: Test, words: str) -> Test:
    return replace(test, stock_id=stock_named(notebook, words).id, batch_id=None)


def _batch(notebook: Notebook, test: Test, words: str) -> Test:
    return replace(test, batch_id=batch_named(notebook, test.stock_id, words).id)


def _developer(notebook: Notebook, test: Test, words: str) -> Test:
    before = notebook.get(Developer, test.developer_id) or Developer()
    return replace(test, developer_id=developer_named(notebook, words, before.dilution).id)


def _dilution(notebook: Notebook, test: Test, words: str) -> Test:
    before = notebook.get(Developer, test.developer_id) or Developer()
    return replace(test, developer_id=developer_named(notebook, before.name, words).id)


def _camera(notebook: Notebook, test: Test, words: str) -> Test:
    return replace(test, camera_id=camera_named(notebook, words))


def _text(field: str) -> _Change:
    def change(_notebook: Notebook, test: Test, words: str) -> Test:
        return replace(test, **{field: words})  # type: ignore[arg-type]

    return change


def _index(_notebook: Notebook, test: Test, words: str) -> Test:
    return replace(test, exposure_index=exposure_index_typed(words))


CHANGES: dict[str, _Change] = {
    "developer": _developer,
    "dilution": _dilution,
    "agitation": _text("agitation"),
    "film": _film,
    "batch": _batch,
    "camera": _camera,
    "light": _text("light"),
    "water": _text("water"),
    "vessel": _text("vessel"),
    "target": _text("subject"),
    "EI on the meter": _index,
}
"""What can be the one thing changed, beside the development times."""

TIMES = "development times"
CHOICES = (*CHANGES, TIMES)


def start_variant(notebook: Notebook, test_id: int, what: str, words: str) -> Test:
    """Plan a test like another, with one condition changed, as one edit.

    Raises
    ------
    EditRefusedError
        If the value cannot be, or is the one it was.
    """
    source = load_test(notebook, test_id)
    if source is None:
        raise EditRefusedError("that test is gone")
    if not words.strip():
        raise EditRefusedError(f"type what the {what} is to be instead")
    old = source.test
    times = tuple(s.strip.planned_min or s.strip.time_min or 8.0 for s in source.strips)
    with notebook.change(f"new test like that of {source.title}, but {what} {words.strip()}"):
        fresh = replace(
            old,
            id=0,
            uid=fresh_uid(),
            created_at=now(),
            like_id=old.id,
            note=f"Like the test of {old.created_at[:10]}, but {what} {words.strip()}.",
        )
        try:
            if what == TIMES:
                times = times_typed(words)
            else:
                fresh = CHANGES[what](notebook, fresh, words.strip())
        except ValueError as error:
            raise EditRefusedError(str(error)) from error
        if what != TIMES and not _changed_fields(old, fresh):
            raise EditRefusedError(f"the {what} is {words.strip()} there too; change something")
        written = notebook.add(fresh)
        # Imported here so that the shelf need not wait for numpy.
        from vadrin.app.plan.drafting import lay_out

        lay_out(notebook, written, times)
    return written


def _changed_fields(old: Test, fresh: Test) -> list[str]:
    own = ("id", "uid", "created_at", "like_id", "note")
    return [k for k, v in vars(old).items() if k not in own and v != getattr(fresh, k)]


def changes_from_source(notebook: Notebook, loaded: LoadedTest) -> tuple[Difference, ...] | None:
    """How a test differs from the one it was started like; None if from none."""
    model = load_test(notebook, loaded.test.like_id) if loaded.test.like_id else None
    if model is None:
        return None
    mine, other = conditions_of(notebook, loaded), conditions_of(notebook, model)
    # What has not been written down yet is not a difference of the plan.
    for name in ("temperature",):
        mine.pop(name), other.pop(name)
    return differences(other, mine)
