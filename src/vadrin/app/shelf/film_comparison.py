"""Every film that was decided on, beside one reference: speed, contrast, fog, time, and curve."""

from __future__ import annotations

from collections.abc import Callable, Generator, Mapping
from dataclasses import dataclass
from math import log2
from typing import Any

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import counted, date_text
from vadrin.app.document.test_loading import load_tests
from vadrin.app.findings.decided_words import decided_text
from vadrin.app.findings.kept_report import KeptReport
from vadrin.app.loaded.film_names import film_name
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.core.figure import Figure
from vadrin.core.planning.test_types import type_of
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook

HEADS = (
    "Film",
    "In",
    "Answer",
    "Decided",
    "Strip EI",
    "Stops",
    "Contrast",
    "Fog",
    "Strip time",
    "Curve",
)
CURVE = HEADS.index("Curve")
_SAME_STOPS = 0.08
_TOLD = {"index": "zone_ei", "gradient": "average_gradient", "fog": "base_fog"}
_AT_ONCE = 6
"""Tests taken from the file together: so few that nobody waits for them."""


@dataclass(frozen=True)
class ComparedFilm:
    """One film in one developer, as the strip it was decided by has it.

    `answer` is what was decided; empty where several films were, and the strip speaks for this.
    `told` holds `index`, `gradient` and `fog` with their ranges, absent where the readings did not
    tell.
    """

    test_id: int
    strip: str
    film: str
    process: str
    answer: str
    decided_at: str
    told: Mapping[str, Figure]
    minutes: float | None
    curve: tuple[tuple[float, float], ...]

    @property
    def index(self) -> float | None:
        """Its EI."""
        return self.told["index"].value

    @property
    def gradient(self) -> float | None:
        """Its average gradient."""
        return self.told["gradient"].value

    @property
    def fog(self) -> float | None:
        """Its base plus fog."""
        return self.told["fog"].value

    @property
    def key(self) -> tuple[int, str]:
        """Tells it from the others."""
        return (self.test_id, self.strip)


Laying = Generator[tuple[int, int], None, tuple[ComparedFilm, ...]]
"""Films being laid out: what is known of how much, and in the end all of them."""


def _strips_told(loaded: LoadedTest, finding: Finding) -> list[LoadedStrip]:
    """The strips that speak for a test: each material once, at the time nearest to the decided."""
    kind = type_of(loaded.test.kind)
    if kind is not None and kind.compares_materials:
        return list(loaded.strips)
    timed = [s for s in loaded.strips if s.minutes]
    aim = finding.time_min or (timed[0].minutes if timed else 0.0) or 0.0
    return [min(timed, key=lambda s: abs((s.minutes or 0.0) - aim))] if timed else []


def _compared(loaded: LoadedTest, finding: Finding) -> list[ComparedFilm]:
    told, kind = KeptReport.from_json(finding.report).strips, type_of(loaded.test.kind)
    several = kind is not None and kind.compares_materials
    made = []
    for strip in _strips_told(loaded, finding):
        kept = told.get(strip.strip.label)
        if kept is None:
            continue
        figures = {name: kept.figure(key) for name, key in _TOLD.items()}
        if not figures["index"].present and not figures["gradient"].present:
            # Neither how fast nor how steep: nothing of it can stand beside another.
            continue
        placed = [(f.log_h(loaded.test.meter_constant), f.density) for f in strip.frames]
        made.append(
            ComparedFilm(
                loaded.test.id,
                strip.strip.label,
                *_named(loaded, strip),
                "" if several else decided_text(finding),
                finding.decided_at,
                figures,
                strip.minutes,
                tuple(sorted((x, d) for x, d in placed if x is not None and d is not None)),
            )
        )
    return made


def _named(loaded: LoadedTest, strip: LoadedStrip) -> tuple[str, str]:
    """The film and the developer of a strip."""
    if strip.strip.developer_id:
        return loaded.stock.name, f"in {strip.other}"
    return film_name(loaded, strip), loaded.process


def films_decided(notebook: Notebook) -> Laying:
    """Every film that was decided on and has a negative's curve, the newest decision first; a few
    tests at a time, yielding how many of how many are known."""
    newest = dict(notebook.rows("SELECT test_id, max(id) FROM finding GROUP BY test_id"))
    ids, made = sorted(newest), list[ComparedFilm]()
    for start in range(0, len(ids), _AT_ONCE):
        some = ids[start : start + _AT_ONCE]
        found = notebook.all_of(Finding, "id", [newest[each] for each in some])
        last = {finding.test_id: finding for finding in found}
        tests = [t for t in notebook.all_of(Test, "id", some) if not _falls(t)]
        for loaded in load_tests(notebook, tests):
            made += _compared(loaded, last[loaded.test.id])
        if start + len(some) < len(ids):
            yield start + len(some), len(ids)
    return tuple(sorted(made, key=lambda film: film.decided_at, reverse=True))


def _falls(test: Test) -> bool:
    """Whether it has no negative's curve: a positive, paper, or a maker's sheet."""
    kind = type_of(test.kind)
    return kind is None or kind.density_falls or kind.edge_to_edge or not kind.scripted


def stops_apart(film: ComparedFilm, reference: ComparedFilm | None) -> float | None:
    """Stops by which a film is faster than the reference."""
    if reference is None or not film.index or not reference.index:
        return None
    return log2(film.index / reference.index)


def _signed(value: float | None, form: str, same: float) -> str:
    if value is None:
        return "—"
    return "the same" if abs(value) < same else format(value, form).replace("-", "−")


def cells_of(film: ComparedFilm, reference: ComparedFilm | None) -> tuple[str, ...]:
    """What stands in the columns of a film, beside the reference."""
    mine = reference is not None and film.key == reference.key
    contrast = fog = None
    if reference is not None and film.gradient and reference.gradient:
        contrast = film.gradient / reference.gradient
    if reference is not None and film.fog is not None and reference.fog is not None:
        fog = film.fog - reference.fog
    apart = stops_apart(film, reference)
    return (
        film.film,
        film.process.removeprefix("in "),
        film.answer or "as its strip",
        date_text(film.decided_at),
        f"EI {marked_ei(film.index)}" if film.index else "—",
        "the reference" if mine else _signed(apart, "+.1f", _SAME_STOPS),
        f"{film.gradient:.2f}"
        if mine and film.gradient
        else "—"
        if contrast is None
        else f"× {contrast:.2f}",
        f"{film.fog:.2f}" if mine and film.fog is not None else _signed(fog, "+.2f", 0.015),
        minutes_text(film.minutes) if film.minutes else "—",
        "",
    )


_LAST = float("inf")
ORDERS: dict[str, Callable[[ComparedFilm], Any]] = {
    "Film": lambda f: f.film.lower(),
    "In": lambda f: f.process.lower(),
    "Answer": lambda f: f.answer or _LAST,
    "Decided": lambda f: f.decided_at,
    "Strip EI": lambda f: f.index or _LAST,
    "Stops": lambda f: f.index or _LAST,
    "Contrast": lambda f: f.gradient or _LAST,
    "Fog": lambda f: _LAST if f.fog is None else f.fog,
    "Strip time": lambda f: f.minutes or _LAST,
}
"""By what films can be put in order, each by its column."""


def ordered(
    films: tuple[ComparedFilm, ...], by: str, backwards: bool = False
) -> tuple[ComparedFilm, ...]:
    """Films in the order of a column; what is not known stands last either way."""
    of = ORDERS[by]
    known = [f for f in films if of(f) != _LAST]
    unknown = [f for f in films if of(f) == _LAST]
    return (*sorted(known, key=of, reverse=backwards), *unknown)


def films_words(films: tuple[ComparedFilm, ...], reference: ComparedFilm | None) -> str:
    """How many there are, and beside what they stand."""
    if not films:
        return "No film was decided on yet: decide a test at Finding, and it stands here."
    beside = f", compared with {reference.film} {reference.process}" if reference else ""
    return f"{counted(len(films), 'decided strip')}{beside}."
