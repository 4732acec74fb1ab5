"""The hand calculation of Y at both ends of cracks with two sizes: its numbers give its value, the value is that of the shape."""

import pytest

from tests.by_hand import by_hand
from vivid_anvil import CylinderSurfaceCrack, EmbeddedCrack, PipeSurfaceCrack, SphereSurfaceCrack, SurfaceCrack

PLATE = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
SHAPES = {
    "plate": PLATE,
    "bent plate": PLATE.under(0.4),
    "weld toe": SurfaceCrack(thickness="12 mm", plate_width="150 mm", attachment_length="20 mm"),
    "bent weld toe": SurfaceCrack(
        thickness="12 mm", plate_width="150 mm", attachment_length="20 mm", bending_share=0.3
    ),
    "slow surface": SurfaceCrack(thickness="25 mm", plate_width="300 mm", surface_factor=0.9),
    "embedded": EmbeddedCrack(thickness="25 mm", plate_width="300 mm", centre_depth="9 mm"),
    "pipe": PipeSurfaceCrack(radius="400 mm", wall="16 mm"),
    "cylinder": CylinderSurfaceCrack(radius="400 mm", wall="20 mm", bending_share=0.2),
    "sphere": SphereSurfaceCrack(radius="1 m", wall="20 mm"),
}


@pytest.mark.parametrize("name", SHAPES)
@pytest.mark.parametrize("sizes", [(3.0, 8.0), (4.0, 4.0), (5.0, 3.0)])
@pytest.mark.parametrize("end", [0, 1])
def test_the_steps_to_an_end_can_be_redone(name, sizes, end):
    shape = SHAPES[name]
    steps = shape.steps(sizes, "mm", 1.0, end)
    assert steps[-1].value == pytest.approx(shape.ends(*sizes)[end], rel=1e-12)
    assert shape.end_names[end] in steps[-1].title
    for step in steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=1e-5), step
