"""An EI that was judged rather than measured: on the light box, or on paper."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from vadrin.app.loaded.light_boxes import judged_of
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.once import once
from vadrin.app.results.contact_prints import contact_answer, contact_prints
from vadrin.app.results.light_box_ei import light_box_answer
from vadrin.app.results.print_ei import covered_strips, print_answer
from vadrin.core.figure import Figure, absent
from vadrin.core.results.rating_method import CONTACT, EYE, PAPER, RatingMethod
from vadrin.core.wording import counted

Seen = Callable[[LoadedTest], tuple[LoadedStrip, Figure] | None]


@dataclass(frozen=True)
class Way:
    """One way to judge: its method, what it finds, what it rests on, and what to do first."""

    method: RatingMethod
    seen: Seen
    rests_on: Callable[[LoadedStrip, LoadedTest], str]
    missing: str


@dataclass(frozen=True)
class JudgedEI:
    """The EI of a strip of film as one way tells it."""

    strip: LoadedStrip
    index: Figure
    way: Way

    def basis(self, loaded: LoadedTest) -> str:
        """What it rests on, in a sentence."""
        return f"Judged {self.way.method.caption}, {self.way.rests_on(self.strip, loaded)}"


WAYS = {
    w.method.key: w
    for w in (
        Way(
            EYE,
            light_box_answer,
            lambda strip, _: counted(len(judged_of(strip)), "look"),
            "the light box was not asked yet: Read, Light box",
        ),
        Way(
            PAPER,
            print_answer,
            lambda strip, loaded: counted(len(covered_strips(loaded, strip)), "strip"),
            "no half-covered strip was judged yet: Print",
        ),
        Way(
            CONTACT,
            contact_answer,
            lambda strip, _: counted(contact_prints(strip), "contact print"),
            "no frame was picked as the one that prints best: Print, Contact sheet",
        ),
    )
}
"""By the key of its method."""


def _judged(loaded: LoadedTest, way: Way) -> JudgedEI | None:
    seen = way.seen(loaded)
    return JudgedEI(*seen, way) if seen else None


@once
def judged_ei(loaded: LoadedTest) -> JudgedEI | None:
    """The judged EI of a test without densities: as it is rated, else by the first way there is."""
    chosen = WAYS.get(loaded.test.school)
    ways = ([chosen] if chosen else []) + [w for w in WAYS.values() if w is not chosen]
    found = [made for way in ways if (made := _judged(loaded, way)) is not None]
    return next((made for made in found if made.index.present), found[0] if found else None)


def chosen_ei(loaded: LoadedTest) -> Figure | None:
    """The EI of the judging a tester rates by; None where one rates by densities.

    It does not take the place of the densities: all stay side by side, and one is chosen.
    """
    way = WAYS.get(loaded.test.school)
    if way is None:
        return None
    made = _judged(loaded, way)
    return made.index if made else absent(way.missing)
