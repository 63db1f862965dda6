"""The tests for misread readings, each on arrays that hold exactly one case."""

import numpy as np

from vadrin.core.fitting.outliers import deleted_residuals, limit, read_twice, swapped_pair

X = np.array([np.nan, -2.0, -1.5, -1.0, -0.5, 0.0])
STRIP = np.zeros(6)
CURVE = np.array([0.2, 0.22, 0.35, 0.6, 0.9, 1.2])
KEEP = np.ones(6)
NOISE = np.full(6, 0.01)


def look(test, density):
    return test(STRIP, X, density, density - CURVE, KEEP, NOISE)


def test_two_that_changed_places():
    assert look(swapped_pair, CURVE) is None
    changed = CURVE.copy()
    changed[[2, 3]] = changed[[3, 2]]
    assert look(swapped_pair, changed) == (2, 3)


def test_noise_alone_swaps_nothing():
    rng = np.random.default_rng(0)
    found = [look(swapped_pair, CURVE + 0.01 * rng.standard_normal(6)) for _ in range(300)]
    assert sum(pair is not None for pair in found) <= 3


def test_one_read_twice():
    doubled = CURVE.copy()
    doubled[4] = doubled[3]
    assert look(read_twice, doubled) == 4
    assert look(read_twice, CURVE) is None
    flat = np.array([0.2, 0.2, 0.2, 0.6, 0.9, 1.2])
    assert read_twice(STRIP, X, flat, np.zeros(6), KEEP, NOISE) is None


def test_readings_left_out_and_other_strips_are_no_neighbours():
    changed = CURVE.copy()
    changed[[2, 3]] = changed[[3, 2]]
    keep = np.array([1.0, 1, 0, 1, 1, 1])
    assert swapped_pair(STRIP, X, changed, changed - CURVE, keep, NOISE) is None
    apart = np.array([0.0, 0, 0, 1, 1, 1])
    assert swapped_pair(apart, X, changed, changed - CURVE, KEEP, NOISE) is None


def test_deleted_residuals_match_leaving_each_reading_out():
    rng = np.random.default_rng(2)
    design = np.stack([np.ones(12), np.linspace(-1, 1, 12)], 1)
    y = design @ [0.5, 1.0] + 0.02 * rng.standard_normal(12)
    y[4] += 0.2
    fitted, *_ = np.linalg.lstsq(design, y, rcond=None)
    residual = y - design @ fitted
    noise = np.sqrt((residual**2).sum() / 10)
    quadratic = ((design @ np.linalg.inv(design.T @ design / noise**2)) * design).sum(1)
    told = deleted_residuals(residual, quadratic, noise, 10.0)
    assert int(np.argmax(told)) == 4
    assert told[4] > limit(12, 10.0)
    others = np.delete(told, 4)
    assert others.max() < limit(12, 10.0)
