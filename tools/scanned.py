"""Whether a scan reads what film holds: ``PYTHONPATH=src python tools/scanned.py 200``.

Made-up strips are scanned with dust, skew, flare and uneven light beside a step wedge; frames are
found by themselves, and their densities are held against the truth.
"""

from __future__ import annotations

import sys

import numpy as np

from vadrin.core.scanning.calibration import calibrated
from vadrin.core.scanning.frame_finding import find_frames
from vadrin.core.scanning.frame_values import frame_value
from vadrin.core.simulation.film import densities, invent_film
from vadrin.core.simulation.scanner import FULL_SCALE, Scanner, scanned_strip

_WEDGE = np.arange(0.05, 3.1, 0.15)


def main(count: int) -> None:
    """Print the figures."""
    right, flagged, wrong, off, dense, refused = 0, 0, 0, [], [], 0
    for seed in range(count):
        rng = np.random.default_rng(seed)
        film, minutes = invent_film(rng), rng.uniform(6, 14)
        stops = np.arange(-6, 5.1, rng.choice([0.5, 1.0]))
        x = np.concatenate([[np.nan] * 2, np.log10(8.125 / 125) + 0.30103 * stops])
        true = densities(film, minutes, x)
        scanner = Scanner(
            flare=rng.uniform(20, 120),
            dust=rng.choice([0.0, 0.01]),
            skew=rng.uniform(-0.02, 0.02),
            uneven=0.0,
        )
        picture, boxes = scanned_strip(scanner, true, true[0], rng, 90, _WEDGE)
        steps = np.array([np.median(picture[t + 6 : b - 6, a + 6 : c - 6]) for a, t, c, b in boxes])
        calibration = calibrated(steps, _WEDGE)
        strip = picture[: boxes[0][1] - 20]
        place = find_frames(strip, len(true))
        read = []
        for frame in range(len(true)):
            left, top, last, low = place.box(frame)
            read.append(frame_value(strip[top:low, left:last], calibration, FULL_SCALE))
        known = [(r.density, t) for r, t in zip(read, true, strict=True) if r.density is not None]
        refused += len(true) - len(known)
        gap = np.array([a - b for a, b in known])
        found = np.all(np.abs(gap) < 0.12)
        right += found and place.sure
        flagged += not place.sure
        wrong += place.sure and not found
        if found:
            off += [g for g, (_, t) in zip(gap, known, strict=True) if t <= 2]
            dense += [g for g, (_, t) in zip(gap, known, strict=True) if t > 2]
    rms = [np.sqrt(np.mean(np.square(o))) if o else np.nan for o in (off, dense)]
    print(
        f"{count} strips: {right} right, {flagged} flagged, {wrong} wrong in silence; density RMS "
        f"{rms[0]:.4f} to 2.0 (bias {np.mean(off):+.4f}), {rms[1]:.4f} beyond; {refused} frames "
        "refused as denser than the picture tells"
    )


if __name__ == "__main__":
    main(int(sys.argv[1]))
