"""The schools side by side, each with the sentence that says why it differs."""

from __future__ import annotations

from dataclasses import dataclass
from math import log2

from vadrin.app.words import minutes_text
from vadrin.core.analysis import Analysis
from vadrin.core.exposure import marked_ei, stops_text
from vadrin.core.figure import Figure


@dataclass(frozen=True)
class SchoolLine:
    """One school's answer in words."""

    name: str
    index: str
    time: str
    why: str
    chosen: bool


def _index(figure: Figure) -> str:
    return "—" if figure.value is None else str(marked_ei(figure.value))


def _time(figure: Figure) -> str:
    return "—" if figure.value is None else minutes_text(figure.value)


def school_lines(analysis: Analysis) -> tuple[SchoolLine, ...]:
    """Shadow school and standard school, from the same readings."""
    found, iso = analysis.finding, analysis.iso
    shadow_why = found.zone_ei.why or (
        "Four stops under the meter must just show: 0.10 over base plus fog."
    )
    standard_why = iso.speed.why or "One fixed contrast, for comparing with the box."
    if found.zone_ei.value and iso.speed.value:
        apart = log2(iso.speed.value / found.zone_ei.value)
        standard_why += (
            f" It comes out {stops_text(round(apart * 3) / 3)} stop faster here; two thirds of "
            "that are the definition, not the film."
        )
    same_why = found.speed.why or (
        "The standard's arithmetic at this time's own contrast: no ISO speed unless the two "
        "contrasts agree."
    )
    by_shadow = analysis.settings.school == "shadow"
    return (
        SchoolLine("Shadow", _index(found.zone_ei), _time(found.time_min), shadow_why, by_shadow),
        SchoolLine("Standard, ISO", _index(iso.speed), _time(iso.time_min), standard_why, False),
        SchoolLine(
            "Standard, this time",
            _index(found.speed),
            _time(found.time_min),
            same_why,
            not by_shadow,
        ),
    )
