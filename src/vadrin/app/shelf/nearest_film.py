"""Which of the films that were tested another is nearest to, and whether it could be the same."""

from __future__ import annotations

from math import exp, hypot, log, log2

from vadrin.app.shelf.film_comparison import ComparedFilm
from vadrin.core.figure import Figure

_SAME_TIME = 0.15
"""Share by which two times may differ, so that contrast and fog are of about one development."""
_EVENINGS = {"index": 1 / 6, "gradient": 0.04, "fog": 0.02}
"""What one film differs by between two evenings: stops, share of its contrast, density."""
_Z = 1.96


def _spread(figure: Figure, ratio: bool) -> float:
    """Standard deviation of a figure; of its logarithm, where it is a ratio."""
    if figure.low is None or figure.high is None:
        return 0.0
    if ratio:
        return log(figure.high / figure.low) / (2 * _Z) if figure.low > 0 else 0.0
    return (figure.high - figure.low) / (2 * _Z)


def _apart(film: ComparedFilm, other: ComparedFilm) -> dict[str, tuple[float, float]]:
    """How far two films lie apart in EI, contrast and fog, and how unsure that is."""
    made = {}
    for name in ("index", "gradient", "fog"):
        mine, theirs = film.told[name], other.told[name]
        if mine.value is None or theirs.value is None:
            continue
        ratio = name != "fog"
        unit = log(2.0) if name == "index" else 1.0
        apart = log(mine.value / theirs.value) if ratio else mine.value - theirs.value
        unsure = hypot(_spread(mine, ratio), _spread(theirs, ratio)) / unit
        made[name] = apart / unit, hypot(unsure, _EVENINGS[name])
    return made


def _comparable(film: ComparedFilm, other: ComparedFilm) -> bool:
    """Whether another film went through the same bath for about as long."""
    if other.film == film.film or other.process != film.process:
        return False
    if not film.minutes or not other.minutes:
        return False
    return abs(log2(film.minutes / other.minutes)) <= log2(1 + _SAME_TIME)


def nearest_words(film: ComparedFilm | None, films: tuple[ComparedFilm, ...]) -> str:
    """The film another is nearest to, in a sentence; empty where none can be set beside it.

    Parameters
    ----------
    film : ComparedFilm, optional
    films : tuple of ComparedFilm
        All that are known.
    """
    if film is None:
        return ""
    beside = [(other, _apart(film, other)) for other in films if _comparable(film, other)]
    known = [(other, apart) for other, apart in beside if {"index", "gradient"} <= set(apart)]
    if not known:
        return ""
    other, apart = min(known, key=lambda pair: sum((d / s) ** 2 for d, s in pair[1].values()))
    stops, contrast = -apart["index"][0], exp(-apart["gradient"][0])
    told = [f"{stops:+.1f} stop", f"contrast × {contrast:.2f}"]
    if "fog" in apart:
        told.append(f"fog {-apart['fog'][0]:+.2f}")
    same = all(abs(d) <= _Z * s for d, s in apart.values())
    verdict = "it could be the same film" if same else "too far apart to be the same film"
    said = ", ".join(told).replace("-", "−")
    return f"Nearest to {film.film} in the same bath: {other.film} ({said}): {verdict}."
