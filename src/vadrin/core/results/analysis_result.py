"""What a test is worked out by, and everything that comes of it."""

from __future__ import annotations

from dataclasses import dataclass, field

from vadrin.core.diagnostic import Diagnostic
from vadrin.core.exposure.arithmetic import METER_CONSTANT
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.family import Family
from vadrin.core.fitting.fit import INSTRUMENT_NOISE
from vadrin.core.materials.reversal_stages import ReversalStages
from vadrin.core.results.comparison import Comparison
from vadrin.core.results.criteria import Target
from vadrin.core.results.finding import Finding
from vadrin.core.results.method_answers import MethodAnswer
from vadrin.core.results.next_step import NextStep
from vadrin.core.results.push import USUAL_RULES, Push, RulesOfThumb
from vadrin.core.results.push_limits import HeldRange, PushLimits
from vadrin.core.results.rating_method import RATING_METHODS, SHADOW, RatingMethod
from vadrin.core.results.strip_metrics import StripMetrics

NOT_REVERSAL = absent("density rises with exposure: this is no reversal material")


@dataclass(frozen=True)
class Settings:
    """How to work a test out.

    Attributes
    ----------
    target : Target
    method : str
        ``shadow`` rates by the Zone I EI, ``standard`` by 0.8 / H_M, both at the found time.
    pushes : tuple of float
        Stops to answer for.
    rules_of_thumb : RulesOfThumb
        Rules for pushes that were not measured.
    meter_constant : float
        k in lux seconds.
    instrument_noise : float
        Least standard deviation of a reading.
    draws : int
        Draws behind the intervals; 0 leaves the intervals out.
    seed : int
        Of the draws, so that the same readings give the same report.
    """

    target: Target = field(default_factory=Target)
    method: str = SHADOW.key
    pushes: tuple[float, ...] = (-1.0, 0.0, 1.0, 2.0)
    rules_of_thumb: RulesOfThumb = USUAL_RULES
    meter_constant: float = METER_CONSTANT
    instrument_noise: float = INSTRUMENT_NOISE
    draws: int = 200
    seed: int = 1

    @property
    def rates_by(self) -> RatingMethod:
        """The method a film is rated by; the shadow method where another is not known."""
        return RATING_METHODS.get(self.method, SHADOW)


@dataclass(frozen=True)
class Analysis:
    """The whole answer to one test.

    Attributes
    ----------
    settings : Settings
    strips : tuple of StripFigures
    iso : Finding
        Time and speed at the standard's contrast.
    finding : Finding
    push : tuple of Push
    warnings : tuple of Warning
    noise : float or None
        Standard deviation of a reading; None where nothing could be fitted.
    family : Family or None
        Curves over the ladder of times; None for fewer than two times.
    methods : tuple of MethodAnswer
        Every method's EI and time from the same readings.
    limits : PushLimits or None
        How far the film can be pushed.
    held : tuple of HeldRange
        For each strip, the EIs its development holds.
    next_steps : tuple of NextStep
        What would firm the finding up most, the best first.
    reversal_speed : Figure
        Of the first strip, where density falls with exposure.
    compared : tuple of Comparison
        Strips of other materials beside those of the first, which is the reference.
    layers : tuple of StripMetrics
        Of colour material: each strip in each of its channels.
    stages : tuple of ReversalStages
        Of reversal material: each strip's curve after each bath.
    """

    settings: Settings
    strips: tuple[StripMetrics, ...]
    iso: Finding
    finding: Finding
    push: tuple[Push, ...]
    diagnostics: tuple[Diagnostic, ...]
    noise: float | None = None
    family: Family | None = None
    methods: tuple[MethodAnswer, ...] = ()
    limits: PushLimits | None = None
    held: tuple[HeldRange, ...] = ()
    next_steps: tuple[NextStep, ...] = ()
    reversal_speed: Figure = NOT_REVERSAL
    compared: tuple[Comparison, ...] = ()
    layers: tuple[StripMetrics, ...] = ()
    stages: tuple[ReversalStages, ...] = ()

    @property
    def rated_index(self) -> Figure:
        """The EI to rate the film by, as the chosen method has it."""
        rated: Figure = getattr(self.finding, self.method.rates_by)
        return rated

    @property
    def method(self) -> RatingMethod:
        """The method it is rated by."""
        return self.settings.rates_by
