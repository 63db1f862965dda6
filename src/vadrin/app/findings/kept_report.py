"""The report and the readings kept with a finding, as typed data.

Older programs wrote other forms, and a file may hold anything: what is of no known form is left
out, so that one odd finding takes no other along.
"""

from __future__ import annotations

import json
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

from vadrin.core.figure import Figure, absent
from vadrin.core.origin import Origin
from vadrin.core.results.hold_rule import HoldRule

_NOT_FOUND = "not found"
PUSH_RULES = (*(rule.value for rule in HoldRule), "hold_contrast", "makers_table", "fixed_share")
"""Every rule for the time of a push, by its key in a report."""


@dataclass(frozen=True)
class KeptStrip:
    """What a report says of a strip.

    Attributes
    ----------
    time_min : float or None
    figures : dict of str to Figure
        By their keys in a report.
    doubtful : bool
        Whether its time was only planned, or assumed.
    """

    time_min: float | None
    figures: dict[str, Figure]
    doubtful: bool = False

    def figure(self, key: str) -> Figure:
        """One figure; absent where the report has none of that name."""
        return self.figures.get(key, absent(_NOT_FOUND))


@dataclass(frozen=True)
class KeptPush:
    """One push or pull of a report: minutes and stops of shadow lost, by each rule."""

    stops: float
    minutes: dict[str, Figure]
    shadow_lost: dict[str, Figure]


@dataclass(frozen=True)
class KeptAnswer:
    """What a type of test that answers in its own words said, and its figures."""

    says: str
    figures: dict[str, Figure]


@dataclass(frozen=True)
class KeptReport:
    """The report a finding keeps; empty where it is of no known form."""

    strips: dict[str, KeptStrip] = field(default_factory=dict)
    pushes: tuple[KeptPush, ...] = ()
    answer: KeptAnswer | None = None
    target_kind: str = ""
    target_value: float | None = None
    time_min: Figure = field(default_factory=lambda: absent(_NOT_FOUND))
    zone_ei: Figure = field(default_factory=lambda: absent(_NOT_FOUND))
    reading_noise: float | None = None

    @classmethod
    def from_json(cls, text: str) -> KeptReport:
        """Read a report; what is of no known form is left out."""
        return _report(text)


@dataclass(frozen=True)
class KeptReadings:
    """A strip as a finding rested on it: how it was developed, and the lines of its frames."""

    time_min: float | None
    temperature_c: float | None
    material: str
    lines: tuple[tuple[Any, ...], ...]


@dataclass(frozen=True)
class KeptBasis:
    """What a finding rested on: settings and judgements by their keys, and the strips."""

    settled: dict[str, Any]
    strips: dict[str, KeptReadings]

    @classmethod
    def from_json(cls, text: str) -> KeptBasis | None:
        """Read a basis; None where it is of no known form."""
        try:
            held = json.loads(text)
            strips = {label: _readings(strip) for label, strip in held.pop("strips").items()}
        except (ValueError, KeyError, TypeError, AttributeError):
            return None
        return cls(held, strips)


def _readings(told: dict[str, Any]) -> KeptReadings:
    lines = tuple(
        (name, x, *((str(channel), float(density)) for channel, density in read))
        for name, x, *read in told["readings"]
    )
    return KeptReadings(
        _number(told["time_min"]), _number(told["temperature_c"]), told.get("material", ""), lines
    )


def _number(told: Any) -> float | None:
    return float(told) if isinstance(told, int | float) else None


def _part(told: Any, key: str) -> dict[str, Any]:
    """A part of a report that has parts of its own; empty where it is something else."""
    part = told.get(key) if isinstance(told, dict) else None
    return part if isinstance(part, dict) else {}


def _figure(told: Any) -> Figure:
    """A figure with its range, or a plain number."""
    if isinstance(told, dict):
        value = _number(told.get("value"))
        low, high = _number(told.get("low")), _number(told.get("high"))
        return absent(_NOT_FOUND) if value is None else Figure(value, low, high)
    value = _number(told)
    return absent(_NOT_FOUND) if value is None else Figure(value)


def _known_figures(told: dict[str, Any]) -> dict[str, Figure]:
    made = {key: _figure(value) for key, value in told.items()}
    return {key: figure for key, figure in made.items() if figure.present}


def _doubtful(strip: dict[str, Any]) -> bool:
    return strip.get("time_from") in (Origin.PLANNED, Origin.ASSUMED)


def _push(told: Any) -> KeptPush | None:
    stops = _number(told.get("stops")) if isinstance(told, dict) else None
    if stops is None:
        return None
    minutes = {rule: _figure(_part(told, rule).get("time_min")) for rule in PUSH_RULES}
    lost = {rule: _figure(_part(told, rule).get("shadow_loss_stops")) for rule in PUSH_RULES}
    return KeptPush(stops, {k: f for k, f in minutes.items() if f.present}, lost)


def _answer(told: Any) -> KeptAnswer | None:
    answer = _part(told, "answer")
    says = answer.get("says")
    if not isinstance(says, str):
        return None
    return KeptAnswer(says, _known_figures(_part(answer, "figures")))


@lru_cache(maxsize=128)
def _report(text: str) -> KeptReport:
    """Read once: the screen asks for the same findings at every key."""
    try:
        told = json.loads(text)
    except (ValueError, TypeError):
        return KeptReport()
    finding, pushes = _part(told, "finding"), told.get("push") if isinstance(told, dict) else None
    target = _part(finding, "target")
    strips = {
        label: KeptStrip(_number(strip.get("time_min")), _known_figures(strip), _doubtful(strip))
        for label, strip in _part(told, "strips").items()
        if isinstance(strip, dict)
    }
    read = [_push(push) for push in pushes] if isinstance(pushes, list) else []
    return KeptReport(
        strips,
        tuple(push for push in read if push is not None),
        _answer(told),
        str(target.get("kind", "")),
        _number(target.get("value")),
        _figure(finding.get("time_min")),
        _figure(finding.get("zone_ei")),
        _number(told.get("reading_noise")) if isinstance(told, dict) else None,
    )
