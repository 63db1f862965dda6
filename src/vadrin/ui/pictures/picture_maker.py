"""Pictures made off the screen's thread; what was made before is there at once."""

from __future__ import annotations

from collections.abc import Callable, Hashable

from vadrin.app.pictures.kept_pictures import Wanted, is_kept, picture
from vadrin.app.pictures.seen import Seen
from vadrin.errors import StaleAnswerError
from vadrin.ui.jobs import Jobs, Said

Made = list[Seen | None]


def make_pictures(
    jobs: Jobs, key: Hashable, wanted: list[Wanted], done: Callable[[Made], None]
) -> None:
    """Give the pictures, now where all are kept, else when they are made.

    Parameters
    ----------
    jobs : Jobs
    key : hashable
        A newer asking under the same key takes the place of an older.
    wanted : list of Wanted
    done : callable
        Given the pictures in their order; None where a development was not tested.
    """
    jobs.cancel(key)
    if all(is_kept(each) for each in wanted):
        done([picture(each) for each in wanted])
        return

    def work(said: Said) -> Made:
        made: Made = []
        for number, each in enumerate(wanted):
            said(number, len(wanted))
            made.append(picture(each))
        return made

    jobs.run(key, work, done, _passed_over)


def _passed_over(error: Exception) -> None:
    """A test that was edited meanwhile is shown anew with its next answer."""
    if not isinstance(error, StaleAnswerError):
        raise error
