"""Whether what a light box says holds: ``PYTHONPATH=src python tools/light_box.py 200``.

Made-up films are judged by made-up eyes whose thresholds and noise are drawn as people's are; the
EI and its range are held against the truth, and against what a densitometer says of one strip.
The second table is of eyes that are known by what they judged before, and asked for fewer looks;
some of their answers are slips.
"""

from __future__ import annotations

import sys

import numpy as np

from vadrin.core.curves import metrics
from vadrin.core.judging.eye_answers import (
    LOOKS_OF_A_KNOWN_EYE,
    USUAL_LOOKS,
    EyeVerdict,
    SeenFrame,
    Viewing,
)
from vadrin.core.judging.light_box import OWN_SPREAD, LightBox
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.simulation.film import curve_at, densities, expose_and_develop, invent_film

_K = 8.125


def judged(
    seed: int, step: float, viewing: Viewing, known: bool = False, slips: float = 0.0
) -> tuple[float, object, int, object]:
    """Ln of the true Zone I EI, the light box's result, the questions, the densitometer's EI."""
    rng = np.random.default_rng(seed)
    film = invent_film(rng)
    minutes = float(rng.uniform(6, 12))
    curve = curve_at(film, minutes)
    point = float(metrics.speed_point(curve, 0.10))
    first = rng.uniform(-6.5, -5.0)
    x = np.log10(_K / 125) + 0.30103 * (first + step * np.arange(12))
    threshold = max(0.012, rng.normal(*viewing.threshold))
    noise = rng.uniform(0.004, 0.014)
    net = densities(film, minutes, x) - float(curve.fog)
    box = LightBox(x, viewing, np.random.default_rng(1), _K)
    answers: tuple[SeenFrame, ...] = ()
    # A threshold that was found before is as good as those looks were.
    own = (max(0.008, threshold + rng.normal(0, 0.004)), OWN_SPREAD) if known else None
    while True:
        wanted = box.next_frame(answers, True, LOOKS_OF_A_KNOWN_EYE if known else USUAL_LOOKS)
        if wanted is None:
            break
        blank = np.isnan(wanted)
        seen = 0.0 if blank else float(net[np.argmin(np.abs(x - wanted))])
        away = seen - threshold + rng.normal(0, noise)
        told = EyeVerdict.YES if away > 0 else EyeVerdict.NO
        if abs(away) < rng.uniform(0, 0.007):
            told = EyeVerdict.UNSURE
        elif rng.random() < slips:
            told = EyeVerdict.NO if told is EyeVerdict.YES else EyeVerdict.YES
        answers += (SeenFrame(None if blank else float(wanted), told, own),)
    strip = expose_and_develop(film, "A", x, minutes, rng)
    meter = analyse((strip,), Settings(draws=100)).strips[0].zone_ei
    truth = float(np.log(_K / 16) - np.log(10) * point)
    return truth, box.result(answers), len(answers), meter


def main(count: int) -> None:
    """Print the tables."""
    for slips in (0.0, 0.04):
        for known in (False, True):
            print(f"eyes {'known' if known else 'not known'}, {100 * slips:.0f} of 100 slip")
            _table(count, known, slips)


def _table(count: int, known: bool, slips: float) -> None:
    for viewing in Viewing:
        for step in (0.5, 1.0):
            held, told, half, meter_half, off, asked = 0, 0, [], [], [], []
            for seed in range(count):
                truth, result, questions, meter = judged(seed, step, viewing, known, slips)
                asked.append(questions)
                index = result.zone_ei
                if index.value is None:
                    continue
                told += 1
                held += np.log(index.low) <= truth <= np.log(index.high)
                half.append(0.5 * np.log2(index.high / index.low))
                off.append((np.log(index.value) - truth) / np.log(2))
                if meter.low:
                    meter_half.append(0.5 * np.log2(meter.high / meter.low))
            rms = np.sqrt(np.mean(np.square(off)))
            print(
                f"{viewing.value}, {step:g} stop: {told} of {count} answered, range holds "
                f"{100 * held / told:.0f} of 100, median ± {np.median(half):.2f} stop "
                f"(densitometer ± {np.median(meter_half):.2f}), bias {np.mean(off):+.2f}, "
                f"RMS {rms:.2f}, {np.mean(asked):.1f} questions, at most {max(asked)}"
            )


if __name__ == "__main__":
    main(int(sys.argv[1]))
