"""Faces cut into bands: nothing lost or doubled, areas as integrated; bands that grey print tells apart."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from matplotlib.colors import to_rgb

from vivid_anvil.figures.banded import COLOURS, NO_DAMAGE, band_names, cut_into_bands, life_bands, life_heights


def areas(parts):
    """Areas with their sign of parts, a triangle's last corner twice, shape (k,)."""
    one, other = parts[:, 2] - parts[:, 0], parts[:, 3] - parts[:, 1]
    return 0.5 * (one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0])


@settings(max_examples=60, deadline=None)
@given(seed=st.integers(0, 2**32 - 1), many=st.integers(1, 6))
def test_parts_fill_their_faces_once_and_stay_within_their_bands(seed, many):
    rng = np.random.default_rng(seed)
    corners = np.array([[[0.0, 0], [2, 0.2], [1.8, 1.5], [0.1, 1]]] * 5) + rng.uniform(-0.1, 0.1, (5, 4, 2))
    corners[2, 3] = corners[2, 2]  # a triangle
    heights = rng.uniform(0.0, 1.0, (5, 4))
    heights[2, 3] = heights[2, 2]
    edges = [-1.0, *np.sort(rng.uniform(0.05, 0.95, many)), 2.0]
    parts, face, band = cut_into_bands(corners, heights, edges)
    assert (np.diff(face) >= 0).all()
    whole = areas(corners)
    made = areas(parts)
    assert (made > -1e-12).all()  # turned as their faces: none folds over another
    assert np.bincount(face, weights=made, minlength=5) == pytest.approx(whole)
    assert band.min() >= 0
    assert band.max() <= many


def test_the_share_of_a_band_is_that_of_the_even_slope_across_a_triangle():
    corners = np.array([[[0.0, 0], [1, 0], [0, 1], [0, 1]]])
    parts, _, band = cut_into_bands(corners, np.array([[0.0, 1.0, 0.0, 0.0]]), [0.0, 0.5, 1.0])
    shares = np.bincount(band, weights=areas(parts)) / 0.5
    assert shares == pytest.approx([0.75, 0.25])  # the height is x: the area beyond x is (1 - x)^2


def test_all_views_have_the_bands_of_the_whole_model():
    lives = np.array([17.8, 55.0, 1e6, np.inf, 0.0])
    borders = life_bands(lives)
    assert borders == [30.0, 100.0, 300.0, 1000.0, 3000.0, 10000.0]
    heights, edges = life_heights(lives, borders)
    band = np.searchsorted(edges[1:-1], heights, side="right")
    assert band.tolist() == [0, 1, 6, 7, 0]
    assert band_names(borders)[1] == "30 to 100"
    assert life_bands(np.array([np.inf, 0.0])) == []


def test_grey_print_tells_the_bands_apart():
    linear = np.array([to_rgb(colour) for colour in (*COLOURS, NO_DAMAGE)])
    linear = np.where(linear <= 0.04045, linear / 12.92, ((linear + 0.055) / 1.055) ** 2.4)
    lightness = 116.0 * np.cbrt(linear @ [0.2126, 0.7152, 0.0722]) - 16.0  # CIE 1976 L*
    assert (np.diff(lightness) > 5.0).all()
