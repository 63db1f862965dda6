"""How one material answers beside another that had the same light and the same time."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, log

from vadrin.core.figure import Basis, Figure, absent
from vadrin.core.results.one_strip_rule import RULE_EXPONENT
from vadrin.core.results.strip_metrics import StripMetrics

ONE_TIME_ALONE = absent("it was developed for one time alone")


@dataclass(frozen=True)
class Comparison:
    """A strip of another material relative to the reference's strip of the nearest time.

    Attributes
    ----------
    strip, reference : str
        Labels.
    speed_stops : Figure
        Stops by which its Zone I EI is higher.
    contrast : Figure
        Its average gradient over the reference's.
    base_fog : Figure
        Density by which its base plus fog is higher.
    toe_share : Figure
        Its toe slope, as a share of gamma, less the reference's.
    shoulder_stops : Figure
        Stops by which its straight line reaches further over the meter point.
    time_factor : Figure
        Factor on the time that would bring it to the reference's contrast; a rule of thumb.
    match_min : Figure
        Minutes at which it has the reference's contrast, by its own tested times; absent where
        it was tried at one time alone, or not that far.
    """

    strip: str
    reference: str
    speed_stops: Figure
    contrast: Figure
    base_fog: Figure
    toe_share: Figure
    shoulder_stops: Figure
    time_factor: Figure
    match_min: Figure = ONE_TIME_ALONE


def _half(figure: Figure, logarithm: bool) -> float | None:
    if figure.low is None or figure.high is None or (logarithm and figure.low <= 0):
        return None
    if logarithm:
        return 0.5 * log(figure.high / figure.low)
    return 0.5 * (figure.high - figure.low)


def _between(one: Figure, reference: Figure, logarithm: bool) -> Figure:
    """One less the other, or ln of their ratio; the errors of two fits add as squares."""
    if one.value is None or reference.value is None:
        return absent(one.why or reference.why)
    value = log(one.value / reference.value) if logarithm else one.value - reference.value
    mine, other = _half(one, logarithm), _half(reference, logarithm)
    if mine is None or other is None:
        return Figure(value)
    reach = (mine**2 + other**2) ** 0.5
    return Figure(value, value - reach, value + reach)


def _each(figure: Figure, change: float) -> Figure:
    """A figure in another unit."""
    if figure.value is None:
        return figure
    low, high = (None if v is None else v * change for v in (figure.low, figure.high))
    return Figure(figure.value * change, low, high)


def _ratio(ln: Figure, power: float = 1.0, basis: Basis = Basis.MEASURED) -> Figure:
    if ln.value is None or ln.low is None or ln.high is None:
        return ln if ln.value is None else Figure(exp(power * ln.value), basis=basis)
    low, high = sorted((exp(power * ln.low), exp(power * ln.high)))
    return Figure(exp(power * ln.value), low, high, basis=basis)


def compare(one: StripMetrics, reference: StripMetrics) -> Comparison:
    """Set a strip beside the reference's."""
    contrast = _between(one.average_gradient, reference.average_gradient, True)
    return Comparison(
        one.label,
        reference.label,
        _each(_between(one.zone_ei, reference.zone_ei, True), 1 / log(2)),
        _ratio(contrast),
        _between(one.base_fog, reference.base_fog, False),
        _between(one.toe_share, reference.toe_share, False),
        _between(one.shoulder_stops, reference.shoulder_stops, False),
        _ratio(contrast, -RULE_EXPONENT, Basis.RULE),
    )


def matched_time(wanted: Figure, found: Figure) -> Figure:
    """The time at which another material has the reference's contrast, measured.

    Parameters
    ----------
    wanted : Figure
        The reference's average gradient.
    found : Figure
        The other material's time for it, as if it were sure.
    """
    if found.value is None or found.low is None or found.high is None:
        return found
    if wanted.low is None or wanted.high is None or wanted.low <= 0:
        return found
    # Both are off: the other's time for a contrast, and the contrast that is to be met, which
    # time follows by more than its share.
    own = 0.5 * log(found.high / found.low)
    met = RULE_EXPONENT * 0.5 * log(wanted.high / wanted.low)
    reach = exp((own**2 + met**2) ** 0.5)
    return Figure(found.value, found.value / reach, found.value * reach)


def compare_all(
    reference: tuple[StripMetrics, ...], others: tuple[StripMetrics, ...]
) -> tuple[Comparison, ...]:
    """Set every other strip beside the reference's strip of the nearest time."""
    if not reference:
        return ()

    def apart(one: StripMetrics, other: StripMetrics) -> float:
        return abs((one.restated_min or 0.0) - (other.restated_min or 0.0))

    return tuple(
        compare(one, min(reference, key=lambda ref, one=one: apart(one, ref)))  # type: ignore[misc]
        for one in others
    )
