"""Frames told from the blank on a light box: the EI they say, and which frame to ask next.

An answer is a noisy comparison of a frame's net density with the eye's threshold (a psychometric
function with a small share of slips; Wichmann and Hill, Perception and Psychophysics 63, 2001).
Where D' is 0.10 follows from where it is first told, by what toes of film look like; everything
not known is carried as a weighted cloud of possibilities, and the next frame is the one whose
answer is expected to tell most (Kontsevich and Tyler, Vision Research 39, 1999).
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from scipy.special import exp1, ndtr

from vadrin.core.arrays import Array
from vadrin.core.figure import Figure, absent
from vadrin.core.judging.eye_answers import (
    USUAL_LOOKS,
    EyeVerdict,
    LightBoxResult,
    Looks,
    SeenFrame,
    Viewing,
)

SPEED_DENSITY = 0.10
_COUNT = 4000
_SLIPS = 0.08
"""Share of answers that are given at random."""
_NOISE = (0.004, 0.014)
_UNSURE = 0.007
"""Density to each side of the threshold within which an eye says it can't tell."""
_CONTRAST = (0.30, 1.0)
_SHARPNESS = (1.4, 2.6)
_WIDTH = (0.06, 0.20)
OWN_SPREAD = 0.006
"""Standard deviation of a threshold that a tester found with a wedge."""
_SAME = 1e-3
_BEYOND = 0.6
"""Lg units beyond the bracket in which the point may lie."""
_WORTH_ASKING = 0.07
"""Information in nats below which a question is not worth a look."""
_PLAIN = 0.85
"""How likely an answer is of a frame that confirms."""
_CONTRADICTS, _ODD = 0.15, 0.3
"""How likely an answer is by all the others, if it goes with them: one alone, or each of two."""
_BLANK_AFTER = 2
_GRID = np.linspace(-3.0, 2.5, 111)
_EULER = 0.5772156649


class LightBox:
    """All that is possible before any answer, for one strip; `person` says how early each
    possible eye tells, in standard deviations.

    Parameters
    ----------
    log_h : ndarray, shape (n,)
        Lg exposures of the frames that can be asked for.
    viewing : Viewing
    rng : numpy.random.Generator
        Of the cloud.
    meter_constant : float
        k in lux seconds.
    threshold : (float, float), optional
        Net density told and its standard deviation, in the place of the eye's: a paper's.

    Raises
    ------
    ValueError
        For fewer than three exposures.
    """

    def __init__(
        self,
        log_h: Array,
        viewing: Viewing,
        rng: np.random.Generator,
        meter_constant: float,
        threshold: tuple[float, float] | None = None,
    ) -> None:
        self.log_h: Array = np.unique(np.round(log_h, 4)).astype(np.float64)
        if len(self.log_h) < 3:
            raise ValueError("three exposures that differ are needed to find the first one seen")
        self._k = meter_constant
        low, high = self.log_h[0] - _BEYOND, self.log_h[-1] + _BEYOND
        self.speed_point = rng.uniform(low, high, _COUNT)
        middle, spread = threshold or viewing.threshold
        self.person = rng.standard_normal(_COUNT)
        self._threshold = self._told_from((middle, spread))
        self._noise = rng.uniform(*_NOISE, _COUNT)
        self._toes = _toes(rng)
        self._net = self.net_at(self.log_h)
        self._standard = rng.standard_normal(_COUNT)

    def net_at(self, log_h: Array) -> Array:
        """Net densities of exposures in every possibility, shape (n, count)."""
        away = log_h[:, None] - self.speed_point
        place = np.clip((away - _GRID[0]) / (_GRID[1] - _GRID[0]), 0, len(_GRID) - 1.001)
        under = place.astype(np.intp)
        share, every = place - under, np.arange(_COUNT)
        return np.asarray(
            self._toes[every, under] * (1 - share) + self._toes[every, under + 1] * share
        )

    def _told_from(self, threshold: tuple[float, float]) -> Array:
        """Net density first told, in every possibility: who tells early tells early anyhow."""
        return np.asarray(np.maximum(threshold[0] + threshold[1] * self.person, 0.01))

    def _likely(
        self,
        net: Array,
        told: EyeVerdict,
        wider: float = 1.0,
        threshold: tuple[float, float] | None = None,
    ) -> Array:
        """Likelihood of an answer in every possibility, for net densities (..., count)."""
        noise = self._noise * wider
        first = self._threshold if threshold is None else self._told_from(threshold)
        above = ndtr((net - first) / noise)
        if told is EyeVerdict.UNSURE:
            band = ndtr((net - first + _UNSURE) / noise)
            band = band - ndtr((net - first - _UNSURE) / noise)
            return np.asarray((1 - _SLIPS) * band + _SLIPS / 3)
        above = above if told is EyeVerdict.YES else 1 - above
        return np.asarray((1 - _SLIPS) * above + _SLIPS / 2)

    def weights(self, answers: tuple[SeenFrame, ...]) -> Array:
        """How likely every possibility is after the answers, shape (count,), sum 1."""
        alarms = sum(a.log_h is None and a.told is EyeVerdict.YES for a in answers)
        wider = 2.0 if alarms >= 2 else 1.0
        ln = np.zeros(_COUNT)
        for answer in answers:
            net = np.zeros(_COUNT)
            if answer.log_h is not None:
                net = self.net_at(np.array([answer.log_h]))[0]
            ln += np.log(self._likely(net, answer.told, wider, answer.threshold))
        weight = np.exp(ln - ln.max())
        return np.asarray(weight / weight.sum())

    def result(self, answers: tuple[SeenFrame, ...]) -> LightBoxResult:
        """The EI that the answers say, with its 95 % range."""
        alarms = sum(a.log_h is None and a.told is EyeVerdict.YES for a in answers)
        lit = [a for a in answers if a.log_h is not None]
        why = _open_end(lit, self.log_h)
        if why:
            return LightBoxResult(absent(why), alarms)
        weight = self.weights(answers)
        low, middle, high = weighted_range(self.speed_point, weight)
        index, lowest, highest = (self._k / 16 / 10**x for x in (middle, high, low))
        return LightBoxResult(Figure(index, lowest, highest), alarms, self._doubted(answers))

    def _doubted(self, answers: tuple[SeenFrame, ...]) -> float | None:
        """The frame whose answer the others make least likely; None where all go together."""
        likely: list[tuple[float, float]] = []
        for place, answer in enumerate(answers):
            if answer.log_h is None or answer.told is EyeVerdict.UNSURE:
                continue
            weight = self.weights(answers[:place] + answers[place + 1 :])
            net = self.net_at(np.array([answer.log_h]))[0]
            told = self._likely(net, answer.told, 1.0, answer.threshold)
            likely.append((float(told @ weight), answer.log_h))
        odd = sorted(pair for pair in likely if pair[0] < _ODD)
        return odd[0][1] if odd and (odd[0][0] < _CONTRADICTS or len(odd) > 1) else None

    def told_index(self, answers: tuple[SeenFrame, ...], eyes_apart: float = 0.0) -> Figure:
        """The EI at which the frame four stops under the meter is just told, with its range.

        On the light box that is the eye's own; of half-covered strips the paper's.

        Parameters
        ----------
        answers : tuple of SeenFrame
        eyes_apart : float
            How far what this eye tells may lie from what is to count, as a share of it; 0 where
            the eye's own counts.
        """
        lit = [a for a in answers if a.log_h is not None]
        why = _open_end(lit, self.log_h)
        if why:
            return absent(why)
        counts = self._threshold * np.exp(eyes_apart * self._standard)
        # Where each possibility's curve reaches what counts in it.
        first = np.argmax(self._toes >= counts[:, None], axis=1)
        every, before = np.arange(_COUNT), np.maximum(first - 1, 0)
        low, high = self._toes[every, before], self._toes[every, first]
        share = np.clip((counts - low) / np.maximum(high - low, 1e-9), 0.0, 1.0)
        told = self.speed_point + _GRID[before] + share * (_GRID[1] - _GRID[0])
        low_x, middle, high_x = weighted_range(told, self.weights(answers))
        index, lowest, highest = (self._k / 16 / 10**x for x in (middle, high_x, low_x))
        return Figure(index, lowest, highest)

    def next_frame(
        self, answers: tuple[SeenFrame, ...], blanks: bool, looks: Looks = USUAL_LOOKS
    ) -> float | None:
        """Which exposure to ask for next; NaN for a blank, None where nothing more is worth it.

        Parameters
        ----------
        answers : tuple of SeenFrame
        blanks : bool
            Whether there is a blank that can be shown as a check.
        looks : Looks
        """
        asked_blank = any(a.log_h is None for a in answers)
        if len(answers) >= looks.most:
            return None
        if blanks and not asked_blank and len(answers) == _BLANK_AFTER:
            return float("nan")
        told, place = self._told_by(answers)
        if self._enough(answers, told[place], looks):
            return self._to_confirm(answers, looks.a_side)
        return float(self.log_h[place])

    def only_confirms(self, answers: tuple[SeenFrame, ...], looks: Looks = USUAL_LOOKS) -> bool:
        """Whether another look is no longer there to narrow the range."""
        told, place = self._told_by(answers)
        return self._enough(answers, told[place], looks)

    @staticmethod
    def _enough(answers: tuple[SeenFrame, ...], told: float, looks: Looks) -> bool:
        hardly = len(answers) > 1 and told < _WORTH_ASKING
        return bool(hardly or len(answers) >= looks.to_tell)

    def _to_confirm(self, answers: tuple[SeenFrame, ...], enough: int) -> float | None:
        """A frame to each side of the point, looked at once more so that no slip, nor two on one
        frame, can mislead; None where each side was told by enough looks already."""
        weight = self.weights(answers)
        yes = np.asarray(self._likely(self._net, EyeVerdict.YES) @ weight)
        lit = np.array([a.log_h for a in answers if a.log_h is not None])
        sides = []
        for side, near in ((yes >= _PLAIN, 0), (yes <= 1 - _PLAIN, -1)):
            if not side.any():
                continue
            nearest = float(self.log_h[side][near])
            looks = int((np.abs(lit - nearest) < _SAME).sum())
            if looks < enough:
                sides.append((looks, nearest))
        return min(sides)[1] if sides else None

    def _told_by(self, answers: tuple[SeenFrame, ...]) -> tuple[Array, int]:
        """Information each frame's answer is expected to give, in nats, and the best place."""
        weight = self.weights(answers)
        yes = self._likely(self._net, EyeVerdict.YES)
        told = _entropy(yes @ weight) - _entropy(yes) @ weight
        return told, int(np.argmax(told))

    def expected_range(self, answers: tuple[SeenFrame, ...]) -> float:
        """Stops the range of the EI is expected to span after the next question."""
        _, place = self._told_by(answers)
        weight = self.weights(answers)
        spans, shares = [], []
        for told in (EyeVerdict.YES, EyeVerdict.NO):
            likely = weight * self._likely(self._net[place], told)
            shares.append(float(likely.sum()))
            low, _, high = weighted_range(self.speed_point, likely / likely.sum())
            spans.append((high - low) / np.log10(2))
        return float(np.dot(spans, shares) / sum(shares))


def _toes(rng: np.random.Generator) -> Array:
    """Net densities over lg exposures from the speed point, (count, grid): half of them grains
    that answer to a quantum or more, half straight lines bent in evenly."""
    half = _COUNT // 2
    low, high = _CONTRAST
    contrast = low * (high / low) ** rng.uniform(0, 1, (2, half, 1))
    sharp = rng.uniform(*_SHARPNESS, (half, 1))
    width = rng.uniform(*_WIDTH, (half, 1))

    lg_z = np.linspace(-22.0, 15.0, 7401)
    told = _entire_integral(10.0**lg_z)

    def grains(u: Array) -> Array:
        return np.asarray(contrast[0] / (sharp * np.log(10)) * np.interp(sharp * u, lg_z, told))

    def bent(u: Array) -> Array:
        return np.asarray(contrast[1] * width * np.logaddexp(0, u / width))

    return np.concatenate([_from_speed_point(grains, half), _from_speed_point(bent, half)])


def _entire_integral(z: Array) -> Array:
    """The entire part of the exponential integral; small arguments by their series."""
    return np.where(z < 1e-3, z - z * z / 4, exp1(z) + np.log(z) + _EULER)


def _from_speed_point(net: Callable[[Array], Array], count: int) -> Array:
    """Rising curves (count, grid), moved so that each reaches the speed density at 0."""
    low, high = np.full((count, 1), -5.0), np.full((count, 1), 3.0)
    for _ in range(22):
        middle = 0.5 * (low + high)
        under = net(middle) < SPEED_DENSITY
        low, high = np.where(under, middle, low), np.where(under, high, middle)
    return net(high + _GRID)


def weighted_range(values: Array, weight: Array) -> tuple[float, float, float]:
    """The 2.5, 50 and 97.5 per cent points of weighted values."""
    order = np.argsort(values)
    sums = np.cumsum(weight[order])
    low, middle, high = np.interp([0.025, 0.5, 0.975], sums, values[order])
    return float(low), float(middle), float(high)


def _entropy(share: Array) -> Array:
    inside = np.clip(share, 1e-12, 1 - 1e-12)
    return np.asarray(-inside * np.log(inside) - (1 - inside) * np.log1p(-inside))


def _open_end(lit: list[SeenFrame], log_h: Array) -> str:
    """Why the answers do not hold the point between them; empty where they do."""
    if not lit:
        return "no frame was judged yet"
    told = {a.told for a in lit}
    if told == {EyeVerdict.YES}:
        thinnest = min(a.log_h or 0.0 for a in lit)
        if thinnest <= log_h[0] + _SAME:
            return (
                "even the thinnest frame differs from the blank: begin with less exposure next time"
            )
        return "every frame asked for was seen: ask for a thinner one"
    if told == {EyeVerdict.NO}:
        densest = max(a.log_h or 0.0 for a in lit)
        if densest >= log_h[-1] - _SAME:
            return (
                "even the most exposed frame looks like the blank: check exposure and development"
            )
        return "no frame asked for was seen: ask for a denser one"
    return ""
