"""Energy that opens cracks in strained rubber: limits, turned bodies, Ogden as another law, pressure, closure, nonsense."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.linalg import expm, logm
from scipy.spatial.transform import Rotation

from tests.rubber_values import SHEET, corners, mode_path, sheet
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.rubber import MooneyRivlin, NeoHookean, Ogden
from vivid_anvil.stress.directions import half_sphere
from vivid_anvil.stress.rubber import STRAIN_MEASURES, StrainPath, cauchy_green, volumes, without_drift

LAW = MooneyRivlin(name="bushing", c10=0.3, c01=0.08)
SAME = Ogden(name="the same", terms=[(0.6, 2.0), (-0.16, -2.0)])
LOOP = corners([(1, 1), (1.6, 1), (1.6, 1.4), (1, 1.4), (1, 1)], 40)
NET = half_sphere(15.0)
FULL = np.array([[0, 3, 5], [3, 1, 4], [5, 4, 2]])


def energies(path, planes=NET, law=LAW, normal=SHEET, closes=False):
    return StrainPath(cauchy_greens=path, law=law, surface_normal=normal, closes=closes).energies(planes)


def six(full):
    return np.column_stack([full[:, i, j] for i, j in ((0, 0), (1, 1), (2, 2), (0, 1), (1, 2), (2, 0))])


@settings(max_examples=20, deadline=None)
@given(seed=st.integers(0, 1000))
def test_turning_body_and_planes_together_changes_nothing(seed):
    turn = Rotation.random(random_state=seed).as_matrix()
    turned = six(np.einsum("ai,nij,bj->nab", turn, LOOP[:, FULL], turn))
    for closes in (False, True):
        found = energies(turned, NET @ turn.T, normal=turn @ np.array(SHEET), closes=closes)
        assert found == pytest.approx(energies(LOOP, closes=closes), abs=1e-12)


def test_one_law_in_two_forms_gives_the_same():
    assert energies(LOOP, law=SAME) == pytest.approx(energies(LOOP), abs=1e-10)


def test_a_bulk_modulus_gives_what_the_free_surface_does_where_the_volume_is_that_of_the_pressure():
    """Simple tension of a nearly incompressible body: the volume follows of the mean stress."""
    import dataclasses

    bulk = 2_000.0
    firm = dataclasses.replace(LAW, bulk_modulus=bulk)
    stretch = np.linspace(1.0, 2.0, 121)
    path = mode_path("simple", 2.0, steps=120)
    own = LAW.principal(np.sqrt(path[:, :3]))
    mean = (own[:, 0] - own[:, 2]) / 3.0
    volume = 1.0 + mean / bulk
    swollen = path * volume[:, None] ** (2.0 / 3.0)
    assert volumes(swollen) == pytest.approx(volume, rel=1e-12)
    found = energies(swollen, law=firm, normal=None)
    assert found[:, -1] == pytest.approx(energies(path)[:, -1], abs=2e-3)
    assert stretch.size == len(path)


def test_small_strains_are_linear_elasticity_and_equibiaxial_tension_is_alike_all_round():
    tiny = 1e-5
    path = np.zeros((3, 6))
    strain = np.array([1.0, -0.3, -0.7, 0.4, 0, 0]) * tiny
    path[:] = [1, 1, 1, 0, 0, 0]
    path += 2.0 * np.array([0.0, 0.5, 1.0])[:, None] * strain
    law = NeoHookean(name="n", c10=0.5)
    stress = 2.0 * 1.0 * (strain - strain[2] * np.array([1, 1, 1, 0, 0, 0]))
    product = stress[FULL] @ strain[FULL]
    expected = 0.5 * np.einsum("pi,ij,pj->p", NET, product, NET)
    assert energies(path, law=law)[:, -1] == pytest.approx(expected, abs=1e-3 * abs(expected).max())
    around = energies(mode_path("equibiaxial", 1.6), sheet(np.arange(0.0, 180.0, 10.0)))[:, -1]
    assert around == pytest.approx(around[0], rel=1e-9)


def test_pure_compression_opens_nothing_and_pulling_opens_the_plane_across():
    assert energies(mode_path("simple", 0.6), closes=True) == pytest.approx(0.0, abs=1e-15)
    pulled = energies(mode_path("simple", 1.8), closes=True)[:, -1]
    assert abs(NET[int(pulled.argmax())][0]) == pytest.approx(abs(NET[:, 0]).max())
    assert pulled.max() <= float(LAW.energy_of("simple", 1.8)) * (1.0 + 1e-9)
    assert energies(mode_path("simple", 1.8), sheet(0.0))[0, -1] == pytest.approx(
        float(LAW.energy_of("simple", 1.8)), rel=1e-5
    )


def test_finer_steps_change_next_to_nothing_and_a_way_there_and_back_comes_to_nothing():
    coarse, fine = (corners([(1, 1), (1.7, 0.8), (1.2, 1.5)], steps) for steps in (12, 200))
    for closes in (False, True):
        assert energies(coarse, closes=closes)[:, -1] == pytest.approx(energies(fine, closes=closes)[:, -1], abs=1e-3)
    there = corners([(1, 1), (1.7, 0.8), (1, 1)], 30)
    assert energies(there)[:, -1] == pytest.approx(0.0, abs=1e-12)
    assert energies(there, closes=True)[:, -1] == pytest.approx(0.0, abs=1e-9)


def test_what_a_closed_path_leaves_is_taken_out_evenly():
    found = energies(LOOP)
    assert abs(found[:, -1]).max() > 0.1
    level = without_drift(found)
    assert level[:, -1] == pytest.approx(0.0, abs=1e-15)
    assert (level >= 0.0).all()
    twice = np.concatenate([LOOP, LOOP[1:]])
    again = energies(twice)
    size = len(LOOP)
    assert again[:, size - 1 :] - again[:, size - 1 : size] == pytest.approx(found, abs=1e-12)  # the same every pass


@pytest.mark.parametrize("measure", STRAIN_MEASURES)
def test_every_measure_of_the_same_deformation_is_the_same_tensor(measure):
    rng = np.random.default_rng(5)
    for _ in range(5):
        gradient = expm(0.4 * rng.normal(size=(3, 3)))
        c = gradient.T @ gradient
        u = expm(0.5 * logm(c)).real
        given_ = {
            "green-lagrange": 0.5 * (c - np.eye(3)),
            "nominal": u - np.eye(3),
            "logarithmic": 0.5 * logm(c).real,
            "right stretch": u,
            "deformation gradient": gradient,
        }[measure]
        rows = given_.reshape(1, 9) if measure == "deformation gradient" else six(given_[None])
        assert cauchy_green(rows, measure)[0] == pytest.approx(six(c[None])[0], rel=1e-9, abs=1e-9)
        if measure != "deformation gradient":
            doubled = rows * np.array([1, 1, 1, 2, 2, 2])
            assert cauchy_green(doubled, measure, shear="engineering") == pytest.approx(cauchy_green(rows, measure))


@pytest.mark.parametrize(
    ("ask", "said"),
    [
        (lambda: cauchy_green([[0.1, 0, 0, 0, 0, 0]], "engineering"), "green-lagrange"),
        (lambda: cauchy_green([[0.1, 0, 0]], "nominal"), "xx, yy, zz"),
        (lambda: cauchy_green([[-1.2, 0, 0, 0, 0, 0]], "nominal"), "stretches above 0"),
        (lambda: cauchy_green([[-0.6, 0, 0, 0, 0, 0]], "green-lagrange"), "stretches above 0"),
        (lambda: cauchy_green([[-1.0, 0, 0, 0, 1, 0, 0, 0, 1]], "deformation gradient"), "order that of rows"),
        (lambda: cauchy_green([[np.nan, 0, 0, 0, 0, 0]], "nominal"), "not finite"),
        (lambda: StrainPath(cauchy_greens=LOOP, law=LAW), "bulk_modulus"),
        (lambda: StrainPath(cauchy_greens=LOOP[:1], law=LAW, surface_normal=SHEET), "two or more"),
    ],
)
def test_nonsense_is_refused(ask, said):
    with pytest.raises(InputError, match=said):
        ask()
