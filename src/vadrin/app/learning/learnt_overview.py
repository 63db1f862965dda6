"""How every developer's films foretell each other: what a notebook has learnt, and may claim."""

from __future__ import annotations

from dataclasses import dataclass
from math import log

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import counted
from vadrin.app.learning.bath_learnt import bath_sentences
from vadrin.app.learning.developer_learnt import (
    FEWEST,
    NEAR_ENOUGH,
    Learnt,
    Ranges,
    index_fares,
    learnt_of,
    trusted,
    usual_width,
)
from vadrin.app.learning.kit_learnt import KitAsked, kit_asked, kit_sentences
from vadrin.app.learning.past_tests import PastTest, one_a_film, past_tests, tests_of_others
from vadrin.notebook.records import Developer
from vadrin.notebook.store import Notebook

HEADS = ("Film", "Found", "From the strip of", "Foretold", "Held")


@dataclass(frozen=True)
class FilmForetold:
    """A film's time as it was found, and as the others foretell it from each of its strips.

    Attributes
    ----------
    film : str
    found : float
        Minutes.
    ranges : tuple of (float, float, float, bool)
        Minutes of the strip, bounds of the range, and whether it held.
    """

    film: str
    found: float
    ranges: tuple[tuple[float, float, float, bool], ...]

    @property
    def held(self) -> int:
        """How many of its ranges held."""
        return sum(held for *_, held in self.ranges)

    @property
    def held_words(self) -> str:
        """``3 of 4 held``."""
        return f"{self.held} of {len(self.ranges)} held"

    @property
    def words(self) -> str:
        """All of it in a sentence, for who does not see the picture."""
        each = ", ".join(
            f"from {minutes_text(strip)} {minutes_text(low)} to {minutes_text(high)}"
            f"{'' if held else ' not held'}"
            for strip, low, high, held in self.ranges
        )
        return f"{self.film}: found {minutes_text(self.found)}; {each}"


@dataclass(frozen=True)
class DeveloperLearnt:
    """What the films in one developer tell, and how that fares.

    Attributes
    ----------
    bath : str
    films : tuple of FilmForetold
        Empty for too few films.
    sentences : tuple of str
    """

    bath: str
    films: tuple[FilmForetold, ...]
    sentences: tuple[str, ...]


@dataclass(frozen=True)
class Asked:
    """All that is read of the file: past tests, developers by name, kit, and others' tests."""

    every: tuple[PastTest, ...]
    baths: dict[int, str]
    kit: KitAsked
    of_others: int


@dataclass(frozen=True)
class Overview:
    """What a notebook has learnt: of each developer, of the kit, and how many tests of others
    there are."""

    developers: tuple[DeveloperLearnt, ...] = ()
    kit: tuple[str, ...] = ()
    of_others: int = 0


def asked_of(notebook: Notebook) -> Asked:
    """What the overview is made from."""
    every = past_tests(notebook, 0)
    baths = {d.id: d.bath for d in notebook.all(Developer)}
    return Asked(every, baths, kit_asked(notebook, every), tests_of_others(notebook))


def learnt_overview(asked: Asked) -> Overview:
    """Every developer in which films were decided on, those with most films first; and the kit."""
    return Overview(_developers(asked), kit_sentences(asked.kit), asked.of_others)


def _developers(asked: Asked) -> tuple[DeveloperLearnt, ...]:
    every, baths = asked.every, asked.baths
    by: dict[int, list[PastTest]] = {}
    for past in every:
        by.setdefault(past.developer_id, []).append(past)
    order = sorted(by, key=lambda developer: -len(by[developer]))
    return tuple(_of_developer(d, by[d], every, baths.get(d, "an unnamed bath")) for d in order)


def _of_developer(
    developer: int, films: list[PastTest], every: tuple[PastTest, ...], bath: str
) -> DeveloperLearnt:
    different = len(one_a_film(films))
    if different < FEWEST:
        words = f"{counted(different, 'film')}: from {FEWEST} on the others foretell the next."
        return DeveloperLearnt(bath, (), (words,))
    told = learnt_of(every, developer)
    rows = tuple(row for past in films if (row := _row(past, told.by_one)).ranges)
    said = (*_sentences(told), *_only_read(told), *bath_sentences(told.tests))
    return DeveloperLearnt(bath, rows, said)


def _only_read(told: Learnt) -> tuple[str, ...]:
    """That some were not decided on, in a sentence; nothing where all were."""
    read = sum(not past.finding_id for past in told.tests)
    if not read:
        return ()
    were = "was" if read == 1 else "were"
    return (f"{counted(read, 'test')} of them {were} read and not decided on: less is believed.",)


def _row(past: PastTest, ranges: Ranges) -> FilmForetold:
    mine = tuple(
        (one.strip_min, one.figure.low or 0.0, one.figure.high or 0.0, one.held)
        for one in ranges
        if one.past == past
    )
    return FilmForetold(past.film, past.minutes, mine)


def _sentences(told: Learnt) -> list[str]:
    made = [told.fares]
    if not told.trusted:
        made.append("Fewer than nine in ten held, or too few were tried: nothing is estimated.")
        return made
    two = f", from two strips ± {100 * usual_width(told.by_two):.0f} %" if told.by_two else ""
    made.append(f"From one strip ± {100 * usual_width(told.by_one):.0f} %{two}.")
    if trusted(told.indices):
        made.append(f"From one strip the EI {index_fares(told)}.")
    saved = _saved(told)
    return [*made, saved] if saved else made


def _saved(told: Learnt) -> str:
    """Strips that would have been saved where a range so wide is enough; empty for none."""
    strips = saved = 0
    for past in {one.past.finding_id: one.past for one in told.by_one}.values():
        count = len(past.seen.minutes)
        need = next(
            (
                many
                for many, ranges in ((1, told.by_one), (2, told.by_two))
                if _near(past, ranges) <= NEAR_ENOUGH
            ),
            count,
        )
        strips, saved = strips + count, saved + max(count - need, 0)
    if not saved:
        return ""
    return (
        f"Where ± {100 * NEAR_ENOUGH:.0f} % of the time is enough, {saved} of "
        f"{counted(strips, 'strip')} would have been saved."
    )


def _near(past: PastTest, ranges: Ranges) -> float:
    """Half the range from the strip nearest to the time that was found."""
    mine = [one for one in ranges if one.past == past]
    if not mine:
        return float("inf")
    return min(mine, key=lambda one: abs(log(one.strip_min / past.minutes))).off


def rows_of(developers: tuple[DeveloperLearnt, ...]) -> list[list[str]]:
    """A row for each range, for a table elsewhere; the heads are `HEADS`."""
    return [
        [
            f"{film.film} in {developer.bath}",
            minutes_text(film.found),
            minutes_text(strip),
            f"{minutes_text(low)} to {minutes_text(high)}",
            "held" if held else "not held",
        ]
        for developer in developers
        for film in developer.films
        for strip, low, high, held in film.ranges
    ]
