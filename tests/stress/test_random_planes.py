"""Random stress on planes: invariants of the covariance, and what is no covariance or no plane."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vivid_anvil import InputError
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.random_planes import greatest_shear_rms, normal_rms, shear_covariance, worst_plane


def covariance(seed):
    sides = np.random.default_rng(seed).normal(0.0, 20.0, (6, 8))
    return sides @ sides.T


@given(st.integers(0, 1000))
def test_three_planes_at_right_angles_hold_the_trace_whatever_their_turn(seed):
    """The sum of three normal stresses is the first invariant: its variance does not turn with the axes."""
    own = covariance(seed)
    turned, _ = np.linalg.qr(np.random.default_rng(seed + 1).normal(size=(3, 3)))
    first = np.array([1.0, 1.0, 1.0, 0.0, 0.0, 0.0])
    weights = normal_weights(turned).sum(axis=0)
    assert weights @ own @ weights == pytest.approx(first @ own @ first)
    assert normal_rms(own, turned) == pytest.approx(normal_rms(own, -turned))
    assert normal_rms(own, 7.0 * turned) == pytest.approx(normal_rms(own, turned))


def test_one_axis_pulled_shears_most_at_45_degrees():
    pull = np.diag([900.0, 0, 0, 0, 0, 0])
    normal, size = worst_plane(lambda n: greatest_shear_rms(pull, n))
    assert size == pytest.approx(15.0, rel=1e-6)
    assert abs(normal[0]) == pytest.approx(np.sqrt(0.5), abs=1e-3)
    assert shear_covariance(pull, [[1.0, 0.0, 0.0]])[0] == pytest.approx(np.zeros((2, 2)))


@pytest.mark.parametrize(
    ("own", "normals", "words"),
    [
        (np.eye(5), [[1, 0, 0]], "shape"),
        (np.eye(6) * np.nan, [[1, 0, 0]], "finite"),
        (np.diag([1.0, -1.0, 0, 0, 0, 0]), [[1, 0, 0]], "semidefinite"),
        (np.eye(6) + np.eye(6, k=1), [[1, 0, 0]], "symmetric"),
        (np.eye(6), [[1, 0]], "normals"),
        (np.eye(6), [[0, 0, 0]], "none of them 0"),
    ],
)
@pytest.mark.parametrize("function", [normal_rms, shear_covariance, greatest_shear_rms])
def test_what_is_no_covariance_or_no_plane_is_told(function, own, normals, words):
    with pytest.raises(InputError, match=words):
        function(own, normals)
    with pytest.raises(InputError, match="step_degrees"):
        worst_plane(lambda n: n[:, 0], step_degrees=0.0)
