"""Cracks in thin shells: plates where the shell is flat, bulging where it is not, through the wall in the end."""

import math

import pytest

from vivid_anvil import (
    AxialPipeCrack,
    CentreCrack,
    CylinderSurfaceCrack,
    EmbeddedCrack,
    InputError,
    SphereCrack,
    SphereSurfaceCrack,
    SurfaceCrack,
)
from vivid_anvil.shapes.solutions import part_bulging, reference_stress, sphere_bulging, surface_share

WALL = 20.0
SHELLS = {"cylinder": CylinderSurfaceCrack, "sphere": SphereSurfaceCrack}


@pytest.mark.parametrize("kind", SHELLS)
def test_a_flat_shell_is_a_plate(kind):
    shell = SHELLS[kind](radius=1e9, wall=WALL, bending_share=0.3)
    plate = SurfaceCrack(thickness=WALL, plate_width=1e9, bending_share=0.3)
    assert shell.factors(5.0, 12.0) == pytest.approx(plate.factors(5.0, 12.0), rel=2e-3)


@pytest.mark.parametrize("kind", SHELLS)
def test_only_the_membrane_part_bulges(kind):
    shell = SHELLS[kind](radius=400.0, wall=WALL)
    plate = SurfaceCrack(thickness=WALL, plate_width=40.0 * shell.longest)
    bulging = shell.bulging(8.0, 40.0)
    assert bulging > 1.0
    assert shell.factors(8.0, 40.0) == pytest.approx([bulging * one for one in plate.factors(8.0, 40.0)])
    assert shell.under(1.0).ends(8.0, 40.0) == pytest.approx(plate.under(1.0).ends(8.0, 40.0))
    lost = float(surface_share(8.0, 40.0, WALL))
    assert shell.collapse_stress(8.0, 40.0, 100.0) == pytest.approx(1.2 * bulging * 100.0)
    assert shell.under(1.0).collapse_stress(8.0, 40.0, 100.0) == pytest.approx(
        float(reference_stress(0.0, 100.0, lost))
    )


def test_bulging_by_hand():
    through = math.sqrt(1.0 + 1.6 * 40.0**2 / (400.0 * WALL))
    own = CylinderSurfaceCrack(radius=400.0, wall=WALL).bulging(8.0, 40.0)
    assert own == pytest.approx((1.0 - 0.4 / through) / 0.6)
    assert part_bulging(0.0, 2.0) == 1.0
    x = 1.818 * 60.0 / math.sqrt(1000.0 * WALL)
    by_hand = (1.0005 + 0.49001 * x + 0.32409 * x**2) / (1.0 + 0.50077 * x - 0.011519 * x**2)
    assert float(sphere_bulging(60.0, 1000.0, WALL)) == pytest.approx(by_hand)
    sphere = SphereCrack(radius=1000.0, wall=WALL)
    assert float(sphere.geometry_factor(60.0)) == pytest.approx(by_hand)
    assert float(sphere.net_section_stress(60.0, 100.0)) == pytest.approx(100.0 * by_hand)


def test_they_become_cracks_through_the_wall():
    cylinder, sizes = CylinderSurfaceCrack(radius=400.0, wall=WALL).after(WALL, 40.0)
    assert isinstance(cylinder, AxialPipeCrack)
    assert sizes == (40.0,)
    sphere, _ = SphereSurfaceCrack(radius=400.0, wall=WALL).after(WALL, 40.0)
    assert isinstance(sphere, SphereCrack)


@pytest.mark.parametrize("noun", [*SHELLS.values(), SphereCrack])
def test_thick_shells_are_refused(noun):
    with pytest.raises(InputError, match="a thin shell"):
        noun(radius=100.0, wall=WALL)
    with pytest.raises(InputError, match="up to 9"):
        sphere_bulging(5000.0, 1000.0, WALL)


def test_bending_counts_for_cracks_that_only_know_what_it_is_at_most():
    embedded = EmbeddedCrack(thickness=25.0, plate_width=300.0, centre_depth=8.0)
    membrane, bending = embedded.ends_of_parts(3.0, 9.0)
    assert bending == pytest.approx(
        [one * (1.0 - 2.0 * 5.0 / 25.0) for one in membrane]
    )  # at the nearer end, 5 mm deep
    centre = CentreCrack("300 mm")
    assert centre.ends_of_parts(20.0)[1] == pytest.approx(centre.ends(20.0))
    assert centre.reference_stress_of(130.0, 60.0, 35.0) > centre.reference_stress_of(130.0, 0.0, 35.0)
    assert [step.value for step in centre.reference_steps(130.0, 60.0, (35.0,))][-1] == centre.reference_stress_of(
        130.0, 60.0, 35.0
    )
    steps = embedded.reference_steps(150.0, 40.0, (3.0, 9.0))
    assert steps[-1].value == pytest.approx(embedded.reference_stress_of(150.0, 40.0, 3.0, 9.0))
