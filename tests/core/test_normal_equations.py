import numpy as np
import pytest

from vadrin.core.fitting.normal_equations import Uncertainty, normal_equations, seen_by

STRIPS, READINGS, SHARED, OWN = 4, 7, 5, 3
SIZE = SHARED + STRIPS * OWN


@pytest.fixture
def arrow():
    """Blocks, and the whole matrix and Jacobian they stand for."""
    rng = np.random.default_rng(3)
    jacobian = rng.standard_normal((STRIPS, READINGS, SHARED + OWN))
    weights = rng.uniform(0.5, 2.0, (STRIPS, READINGS))
    weights[1, 4:] = 0.0
    precision = rng.uniform(0.1, 3.0, SIZE)
    whole = np.zeros((STRIPS, READINGS, SIZE))
    whole[..., :SHARED] = jacobian[..., :SHARED]
    for i in range(STRIPS):
        start = SHARED + OWN * i
        whole[i, :, start : start + OWN] = jacobian[i, :, SHARED:]
    rows = whole.reshape(-1, SIZE)
    matrix = (rows * weights.reshape(-1, 1)).T @ rows + np.diag(precision)
    return normal_equations(jacobian, weights, precision, SHARED), matrix, jacobian, rows, weights


def test_blocks_answer_as_the_whole_matrix_does(arrow):
    blocks, matrix, jacobian, rows, weights = arrow
    inverse = np.linalg.inv(matrix)
    right = np.linspace(-1, 1, SIZE)
    assert blocks.solve(right) == pytest.approx(inverse @ right, rel=1e-6)
    assert blocks.variances() == pytest.approx(np.diag(inverse), rel=1e-6)
    seen = ((rows @ inverse) * rows).sum(1)
    assert blocks.quadratic(jacobian).ravel() == pytest.approx(seen, rel=1e-6)
    told = weights * np.arange(READINGS)
    assert seen_by(jacobian, told, SHARED) == pytest.approx(rows.T @ told.ravel())
    damped = blocks.damped(0.3).solve(right)
    assert damped == pytest.approx(np.linalg.solve(matrix + 0.3 * np.diag(np.diag(matrix)), right))


def test_draws_and_spreads_are_those_of_the_inverse(arrow):
    blocks, matrix, *_ = arrow
    unsure = Uncertainty(blocks, np.array([4.0, 25.0]))
    covariance = np.zeros((SIZE + 2, SIZE + 2))
    covariance[:SIZE, :SIZE] = np.linalg.inv(matrix)
    covariance[SIZE, SIZE], covariance[SIZE + 1, SIZE + 1] = 0.25, 0.04
    halves = unsure.drawn(np.eye(SIZE + 2))
    assert halves.T @ halves == pytest.approx(covariance, rel=1e-6, abs=1e-9)
    by_vector = np.linspace(0.5, -2, SIZE + 2)
    assert unsure.spread(by_vector) ** 2 == pytest.approx(by_vector @ covariance @ by_vector)
