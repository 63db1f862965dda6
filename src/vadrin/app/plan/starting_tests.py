"""Starting a test of any kind with its usual plan, on film that may be begun already."""

from __future__ import annotations

from vadrin.app.descriptions import description_of
from vadrin.app.document.test_loading import load_tests
from vadrin.app.entry.film_supply import film_supply_text
from vadrin.app.library.named_records import NO_DEVELOPER, NO_FILM, developer_named, stock_named
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.drafting import lay_out
from vadrin.app.stamps import fresh_uid, now
from vadrin.core.exposure.arithmetic import METER_CONSTANT
from vadrin.core.planning.plan_request import FilmSupply
from vadrin.core.planning.test_types.cine import Cine
from vadrin.notebook.records import Camera, Test
from vadrin.notebook.store import Notebook

USUAL_FILM = FilmSupply(36.0)


def start_kind(notebook: Notebook, key: str) -> Test:
    """Start a test of a kind with its usual plan, film and camera as in the last test."""
    page = description_of(key)
    last = notebook.all(Test)[-1:]
    camera = _camera_before(notebook, key)
    with notebook.change(f"new test: {page.question}"):
        stock = stock_named(notebook, NO_FILM)
        developer = developer_named(notebook, NO_DEVELOPER)
        test = notebook.add(
            Test(
                uid=fresh_uid(),
                kind=key,
                stock_id=stock.id,
                developer_id=developer.id,
                created_at=now(),
                exposure_index=stock.box_speed,
                first_stop=page.first,
                last_stop=page.last,
                step=page.step,
                options=page.options_to_begin,
                subject=page.subject,
                arrangement=page.arrangement,
                repeat_first=True,
                metered_seconds=page.metered_seconds,
                film_amount=USUAL_FILM.amount,
                camera_id=camera.camera_id if camera else None,
                lens_id=camera.lens_id if camera else None,
                meter_id=last[0].meter_id if last else None,
                meter_constant=last[0].meter_constant if last else METER_CONSTANT,
                instrument_id=last[0].instrument_id if last else None,
            )
        )
        lay_out(notebook, test, page.times)
    return test


def _camera_before(notebook: Notebook, key: str) -> Test | None:
    """The newest test whose camera suits: one that runs film for cine, one of stills for others."""
    cine = {c.id for c in notebook.all(Camera) if c.frame_rate}
    fits = (t for t in reversed(notebook.all(Test)) if (t.camera_id in cine) == (key == Cine.key))
    return next(fits, None)


def rolls_begun(notebook: Notebook, loaded: LoadedTest) -> list[str]:
    """Rolls of the same film that other tests have begun: ``36 frames after 14``."""
    found = []
    same = notebook.all(Test, stock_id=loaded.test.stock_id, batch_id=loaded.test.batch_id)
    for other in load_tests(notebook, [t for t in same if t.id != loaded.test.id]):
        film = other.test.film
        if film is None or other.processed():
            continue
        last = max((s.strip.roll for s in other.strips), default=0)
        on_it = [f for s in other.strips if s.strip.roll == last for f in s.frames]
        used = len(on_it) + (film.taken if last == 1 else 0)
        if 0 < used < film.capacity - 1:
            # One frame's length is left for the cut between two tests.
            found.append(film_supply_text(FilmSupply(film.amount, film.unit, used + 1)))
    return found
