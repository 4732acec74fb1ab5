"""Planes: circle and ball against every pair and triple, the search whatever its net, criteria that reduce to one another."""

import itertools
import json
import math

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

import vivid_anvil as va
from tests.plane_values import block_damage, criterion, turning
from tests.reference_values import FOLDER
from vivid_anvil.counting import turning_points
from vivid_anvil.stress.planes import (
    CRITERIA,
    SHEAR_AMPLITUDES,
    Paths,
    angles_of,
    crossland,
    dang_van,
    dang_van_constants,
    findley_constant,
    normal_at,
    normal_stress,
    plane_axes,
    plane_map,
    shear_stress,
    sines,
    smallest_circle,
    worst_plane,
)
from vivid_anvil.stress.planes.criteria import elastic_strains, largest_normal
from vivid_anvil.stress.planes.plane_cycles import TensorEvent, counted
from vivid_anvil.stress.planes.smallest_ball import smallest_ball

CASES = {case["id"]: case for case in json.loads((FOLDER / "multiaxial.json").read_text())["cases"]}
FULL = np.array([[0, 3, 5], [3, 1, 4], [5, 4, 2]])
CONSTANTS = {
    "findley": {"k": 0.3},
    "matake": {"k": 0.3},
    "mcdiarmid": {"torsion_limit": 190.0, "ultimate_strength": 850.0},
    "normal stress": {},
    "fatemi-socie": {"k": 0.6, "yield_strength": 480.0},
    "brown-miller": {"s": 0.5},
    "smith-watson-topper": {},
}
points = st.lists(st.tuples(st.integers(-30, 30), st.integers(-30, 30)), min_size=1, max_size=12)
tensors = st.lists(st.lists(st.integers(-9, 9), min_size=6, max_size=6), min_size=2, max_size=6, unique_by=tuple).map(
    lambda rows: 20.0 * np.array(rows, dtype=float)
)


def turned(stress, rotation):
    """A tensor history in axes that are turned."""
    full = rotation @ stress[:, FULL] @ rotation.T
    return np.stack([full[:, i, j] for i, j in ((0, 0), (1, 1), (2, 2), (0, 1), (1, 2), (2, 0))], axis=1)


@settings(max_examples=150, deadline=None)
@given(path=points)
def test_the_circle_holds_all_points_and_none_by_fewer_is_smaller(path):
    found = np.array(path, dtype=float)
    centre, radius = smallest_circle(found)
    assert (np.linalg.norm(found - centre, axis=1) <= radius * (1 + 1e-9) + 1e-9).all()
    ball, size = smallest_ball(found)
    assert radius == pytest.approx(size, rel=1e-9, abs=1e-9)
    chord = float(SHEAR_AMPLITUDES["chord"](found[None])[0])
    assert chord <= radius * (1 + 1e-12) <= 2.0 / math.sqrt(3.0) * chord + 1e-9
    assert ball == pytest.approx(centre, abs=1e-6)


@settings(max_examples=60, deadline=None)
@given(path=st.lists(st.lists(st.integers(-9, 9), min_size=5, max_size=5), min_size=1, max_size=9))
def test_the_ball_is_the_smallest_of_all_subsets(path):
    found = np.array(path, dtype=float)
    centre, radius = smallest_ball(found)
    assert (np.linalg.norm(found - centre, axis=1) <= radius * (1 + 1e-9) + 1e-9).all()
    for size in (2, 3):  # no ball of fewer points that it must hold is larger
        for some in itertools.combinations(range(len(found)), size):
            assert smallest_ball(found[list(some)])[1] <= radius * (1 + 1e-9) + 1e-9


@settings(max_examples=40, deadline=None)
@given(stress=tensors, theta=st.integers(0, 90), phi=st.integers(0, 359))
def test_a_plane_holds_what_the_traction_vector_is(stress, theta, phi):
    normal = normal_at(theta, phi)
    traction = stress[:, FULL] @ normal
    own = normal_stress(stress, normal)[0]
    assert own == pytest.approx(traction @ normal, abs=1e-9)
    shear = shear_stress(stress, normal)[0]
    first, second = (axis[0] for axis in plane_axes(normal))
    assert own[:, None] * normal + shear[:, :1] * first + shear[:, 1:] * second == pytest.approx(traction, abs=1e-9)
    back = normal_at(*(float(one[0]) for one in angles_of(normal)))
    assert abs(back @ normal) == pytest.approx(1.0)


@pytest.mark.parametrize("name", CONSTANTS)
def test_every_criterion_of_the_table_is_tried(name):
    assert set(CONSTANTS) == set(CRITERIA)
    one = criterion(name, **CONSTANTS[name])
    assert one.source
    assert one.suits
    stress = turning(CASES["out-of-phase-1"]["inputs"], 36)
    strain = elastic_strains(stress, 206e3, 0.3)
    found, value = one.worst(stress, strain)
    assert value > 0.0
    assert float(one.values(Paths.of(stress, strain), found.normal[None])[0]) == value


@settings(max_examples=12, deadline=None)
@given(
    stress=tensors, name=st.sampled_from(["findley", "normal stress", "smith-watson-topper"]), seed=st.integers(0, 99)
)
def test_turning_the_whole_history_changes_nothing(stress, name, seed):
    one = criterion(name, **CONSTANTS[name])
    rotation = Rotation.random(random_state=seed).as_matrix()
    values = []
    for history in (stress, turned(stress, rotation)):
        values.append(one.worst(history, elastic_strains(history, 206e3, 0.3))[1])
    assert values[1] == pytest.approx(values[0], rel=1e-4)


@settings(max_examples=12, deadline=None)
@given(stress=tensors, name=st.sampled_from(["findley", "normal stress"]))
def test_the_net_does_not_matter(stress, name):
    one = criterion(name, **CONSTANTS[name])
    values = [one.worst(stress, step_degrees=step)[1] for step in (4.0, 10.0)]
    assert values[1] == pytest.approx(values[0], rel=2e-4)
    damages = [
        worst_plane(lambda n: block_damage(stress, n, 1e15, 5.0), step_degrees=step).value for step in (4.0, 8.0)
    ]
    assert damages[1] == pytest.approx(damages[0], rel=1e-3)


@pytest.mark.parametrize("name", ["findley_circle_plane", "max_normal_plane", "normal_stress_damage_plane"])
@pytest.mark.parametrize("case", ["history-critical-plane", "history3d-critical-plane"])
def test_the_worst_planes_of_the_references_are_found(case, name):
    inputs, wanted = CASES[case]["inputs"], CASES[case]["expected"][name]
    stress = np.array(inputs["stress_MPa"], dtype=float)
    asked = {
        "findley_circle_plane": lambda n: criterion("findley", k=inputs["findley_k"]).values(Paths.of(stress), n),
        "max_normal_plane": lambda n: largest_normal(stress, n),
        "normal_stress_damage_plane": lambda n: block_damage(stress, n, inputs["C"], inputs["m"]),
    }
    found = worst_plane(asked[name])
    planes = [found.normal, *found.ties]
    assert max(abs(float(one @ np.array(wanted))) for one in planes) > math.cos(math.radians(1.0))


@pytest.mark.parametrize("case", ["out-of-phase-1", "out-of-phase-2", "out-of-phase-3"])
def test_planes_that_tie_are_told(case):
    inputs, wanted = CASES[case]["inputs"], CASES[case]["expected"]["findley_planes"]
    found, _ = criterion("findley", k=inputs["findley_k"]).worst(turning(inputs))
    planes = [found.normal, *found.ties]
    for normal in wanted:
        assert max(abs(float(one @ np.array(normal))) for one in planes) > math.cos(math.radians(1.0))
    assert found.unique == (len(wanted) == 1)


def uniaxial(amplitude, mean=0.0):
    stress = np.zeros((2, 6))
    stress[:, 0] = mean + amplitude, mean - amplitude
    return stress


@pytest.mark.parametrize("limits", [(300.0, 180.0), (420.0, 260.0)])
def test_at_both_limits_the_criteria_of_two_limits_say_one(limits):
    axial, torsion = limits
    shear = np.zeros((2, 6))
    shear[:, 3] = torsion, -torsion
    k, findley = findley_constant(axial, torsion)
    a, b = dang_van_constants(axial, torsion)
    for stress in (uniaxial(axial), shear):
        assert criterion("findley", k=k).worst(stress)[1] == pytest.approx(findley, rel=1e-6)
        assert dang_van(stress, a=a, b=b).utilisation == pytest.approx(1.0)
        assert crossland(stress, axial_limit=axial, torsion_limit=torsion) == pytest.approx(1.0)
        matake = criterion("matake", k=2.0 * torsion / axial - 1.0).worst(stress)[1]
        assert matake == pytest.approx(torsion, rel=1e-3)
    repeated = 0.8 * axial
    assert sines(uniaxial(repeated, repeated), repeated_limit=repeated, torsion_limit=torsion) == pytest.approx(1.0)
    assert sines(shear, repeated_limit=repeated, torsion_limit=torsion) == pytest.approx(1.0)


def test_a_uniaxial_history_gives_the_uniaxial_answer():
    stress = uniaxial(200.0, 50.0)
    strain = elastic_strains(stress, 206e3, 0.3)
    assert criterion("normal stress").worst(stress)[1] == pytest.approx(200.0, rel=1e-7)
    assert criterion("smith-watson-topper").worst(stress, strain)[1] == pytest.approx(250.0 * 200.0 / 206e3, rel=1e-7)
    miller = criterion("brown-miller").worst(stress, strain)[1]
    gamma, normal = 1.3 * 200.0 / 206e3, 0.7 * 200.0 / 206e3
    assert miller == pytest.approx(gamma + 0.5 * normal, rel=1e-3)
    k = 0.3
    high = k * 250.0
    assert criterion("findley", k=k).worst(stress)[1] == pytest.approx(0.5 * (math.hypot(200.0, high) + high), rel=1e-6)


def test_a_map_covers_the_half_sphere_and_its_largest_is_near_the_worst():
    stress = np.array(CASES["history-critical-plane"]["inputs"]["stress_MPa"], dtype=float)
    one = criterion("findley", k=0.3)
    normals, values = plane_map(lambda n: one.values(Paths.of(stress), n), step_degrees=4.0)
    worst = one.worst(stress)[1]
    assert values.max() <= worst * (1 + 1e-9)
    assert values.max() > 0.99 * worst
    assert np.linalg.norm(normals, axis=1) == pytest.approx(np.ones(len(normals)))


def test_only_the_planes_that_are_given_are_looked_at():
    across = np.array([[1.0, 0, 0], [1.0, 1.0, 0]])
    found = worst_plane(lambda n: largest_normal(uniaxial(100.0), n), normals=across)
    assert found.value == pytest.approx(100.0)
    assert found.angles == pytest.approx((90.0, 0.0))


def slowly(tau, sigma):
    """Loops of the repeated block with the largest normal stress from where each starts to where the shear is back."""
    top = int(tau.argmax())
    t, s = (np.concatenate([one[top:], one[: top + 1]]) for one in (tau, sigma))
    found, stack = [], []
    for x in turning_points(t).tolist():
        while len(stack) >= 3 and abs(t[stack[-2]] - t[stack[-1]]) <= abs(t[stack[-1]] - t[x]):
            b, c = stack[-2:]
            back = next(j for j in range(c + 1, x + 1) if (t[j] >= t[b] if t[c] < t[b] else t[j] <= t[b]))
            there = np.interp(t[b], *zip(*sorted([(t[back - 1], s[back - 1]), (t[back], s[back])]), strict=True))
            found.append((abs(t[b] - t[c]), max(s[b:back].max(), there)))
            del stack[-2:]
        stack.append(x)
    return sorted([*found, (abs(t[stack[0]] - t[stack[1]]), s.max())])


pairs = st.lists(st.tuples(st.integers(-6, 6), st.integers(-9, 9)), min_size=2, max_size=40)


@example(rows=[(1, 0), (0, 0), (1, 0), (1, 1)])  # a level end
@settings(max_examples=200, deadline=None)
@given(rows=pairs.filter(lambda many: len({one for one, _ in many}) > 1))
def test_each_cycle_on_a_plane_has_the_largest_normal_stress_while_it_lasts(rows):
    tau, sigma = np.array(rows, dtype=float).T
    event = TensorEvent("e", 1.0, np.zeros((len(rows), 6)), None, None, None)
    cycles = counted(event, np.ascontiguousarray(tau), np.ascontiguousarray(sigma))
    own = sorted(zip(cycles.ranges.tolist(), cycles.normals.tolist(), strict=True))
    assert np.array(own) == pytest.approx(np.array(slowly(tau, sigma)), abs=1e-9)


@pytest.mark.parametrize(
    ("ask", "said"),
    [
        (lambda: findley_constant("180 MPa", "300 MPa"), "torsion limit above the other"),
        (lambda: findley_constant("300 MPa", "140 MPa"), "0.5 to 1"),
        (lambda: dang_van_constants("300 MPa", "100 MPa"), "Another criterion"),
        (lambda: crossland([[1.0, 0, 0, 0, 0, 0]], axial_limit="300 MPa", torsion_limit="160 MPa"), "0.5774 to 1"),
        (lambda: criterion("findley", k=-0.1), "0"),
        (lambda: criterion("findley", k=0.3, amplitude="ring"), "one of 'circle', 'chord', 'variance'"),
        (lambda: criterion("fatemi-socie", k=0.3, yield_strength=400.0, plane="any"), "largest shear"),
        (lambda: criterion("brown-miller").worst([[1.0, 0, 0, 0, 0, 0]]), "no strains"),
        (lambda: criterion("findley", k=0.3).worst([[1.0, 2.0]]), "shape"),
        (lambda: criterion("brown-miller").worst([[1.0, 0, 0, 0, 0, 0]] * 2, [[1.0, 0, 0, 0, 0, 0]]), "one of each"),
        (lambda: normal_stress([[1.0, 0, 0, 0, 0, np.nan]], [[1.0, 0, 0]]), "finite|number"),
        (lambda: normal_stress([[1.0, 0, 0, 0, 0, 0]], [[0.0, 0, 0]]), "length 0"),
        (lambda: smallest_circle([[1.0, 2.0, 3.0]]), "shape"),
        (lambda: worst_plane(lambda n: n[:, 0], normals=np.empty((0, 3))), "no plane|shape"),
        (lambda: worst_plane(lambda n: n[:, 0], step_degrees="90 deg"), "up to 45"),
        (lambda: CRITERIA.get("findly", "criterion"), "Did you mean 'findley'"),
    ],
)
def test_nonsense_is_refused(ask, said):
    with pytest.raises(va.InputError, match=said):
        ask()
