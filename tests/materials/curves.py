"""Curves of every form, for the tests that must hold for all of them."""

import math

from hypothesis import strategies as st

from vivid_anvil.materials import knee_curve, sloped_curve, table_curve

POINTS = [(400.0, 1e4), (250.0, 1e5), (180.0, 1e6), (150.0, 1e7)]
SETTINGS = {"name": "weld", "stress": "range", "r_ratio": "any"}


def table(above="hold", below="no damage", interpolation="log-log", **settings):
    return table_curve(
        **SETTINGS | {"points": POINTS, "above": above, "below": below, "interpolation": interpolation} | settings
    )


@st.composite
def points(draw):
    """Two to eight points, stress falling and life rising."""
    steps = draw(st.lists(st.tuples(st.floats(1.02, 1.8), st.floats(1.05, 30.0)), min_size=1, max_size=7))
    found = [(draw(st.floats(50.0, 900.0)), draw(st.floats(1e3, 1e5)))]
    for fall, rise in steps:
        found.append((found[-1][0] / fall, found[-1][1] * rise))
    return found


tables = st.builds(
    lambda rows, form, above, below: table(
        above, "hold" if form == "linear" and below == "extend" else below, form, points=rows
    ),
    points(),
    st.sampled_from(["log-log", "semi-log", "linear"]),
    st.sampled_from(["hold"]),
    st.sampled_from(["hold", "no damage", "extend"]),
)
knees = st.builds(
    lambda stress, life, slope, more: knee_curve(
        **SETTINGS, knee_stress=stress, knee_life=life, slope=slope, slope_below=slope + more
    ),
    st.floats(1.0, 2000.0),
    st.floats(1e3, 1e8),
    st.floats(1.0, 15.0),
    st.floats(0.0, 15.0),
)
slopes = st.builds(
    lambda stress, slope, ends: sloped_curve(
        **SETTINGS,
        knee_stress=stress,
        knee_lives=[5e6, 1e8],
        slopes=[slope, slope + 2.0, math.inf if ends else slope + 9.0],
    ),
    st.floats(5.0, 500.0),
    st.floats(1.5, 9.0),
    st.booleans(),
)
curves = st.one_of(tables, knees, slopes)
