"""The shapes of the study file: which keys each needs and may have."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.shapes.bars_pipes_holes import (
    AxialPipeCrack,
    BarCrack,
    BarSurfaceCrack,
    DoubleEdgeCrack,
    HoleCrack,
    PipeCrack,
    TableCrack,
)
from vivid_anvil.shapes.one_size import CentreCrack, EdgeCrack
from vivid_anvil.shapes.points import grid_of_rows
from vivid_anvil.shapes.profiles import ProfileEdgeCrack, ProfileSurfaceCrack
from vivid_anvil.shapes.two_sizes import (
    CornerCrack,
    EmbeddedCrack,
    HoleCornerCrack,
    PipeSurfaceCrack,
    SurfaceCrack,
    VesselCrack,
)


@dataclass(frozen=True)
class ShapeForm:
    """How a shape is made of keys: by which function, which it needs, which it may have."""

    made_by: Callable[..., Any]
    needs: Mapping[str, str]
    may_have: Mapping[str, str]
    two_way: bool = False


_BENDING = {"bending_share": "bending_share"}
_PLATE = {"thickness": "thickness", "plate_width": "width"}
_WALL = {"radius": "radius", "wall": "wall"}
SHAPES = {
    "edge": ShapeForm(EdgeCrack, {"plate_width": "width"}, _BENDING),
    "edge, any stress": ShapeForm(ProfileEdgeCrack, {"plate_width": "width", "stress_profile": "stress_profile"}, {}),
    "centre": ShapeForm(CentreCrack, {"plate_width": "width"}, {}),
    "double edge": ShapeForm(DoubleEdgeCrack, {"plate_width": "width"}, {}),
    "hole": ShapeForm(HoleCrack, {"radius": "radius"}, {key: key for key in ("cracks", "plate_width", "pin_share")}),
    "pipe, around": ShapeForm(PipeCrack, _WALL, _BENDING),
    "pipe, along": ShapeForm(AxialPipeCrack, _WALL, {}),
    "round bar": ShapeForm(BarCrack, {"diameter": "width"}, {}),
    "round bar, surface": ShapeForm(BarSurfaceCrack, {"diameter": "width"}, _BENDING),
    "table": ShapeForm(TableCrack, {"points": "points"}, {}),
    "grid": ShapeForm(grid_of_rows, {"points": "points"}, {}, two_way=True),
    "surface": ShapeForm(
        SurfaceCrack,
        _PLATE,
        {**_BENDING, "attachment_length": "attachment_length", "surface_factor": "surface_factor"},
        two_way=True,
    ),
    "surface, any stress": ShapeForm(
        ProfileSurfaceCrack, {**_PLATE, "stress_profile": "stress_profile"}, {}, two_way=True
    ),
    "corner": ShapeForm(CornerCrack, _PLATE, {**_BENDING, "surface_factor": "surface_factor"}, two_way=True),
    "hole, corner": ShapeForm(HoleCornerCrack, {**_PLATE, "radius": "radius"}, {"cracks": "cracks"}, two_way=True),
    "pipe, around, surface": ShapeForm(PipeSurfaceCrack, _WALL, _BENDING, two_way=True),
    "embedded": ShapeForm(
        EmbeddedCrack, _PLATE, {"centre_depth": "centre_depth", "broken_at": "broken_at"}, two_way=True
    ),
    "vessel, inside": ShapeForm(VesselCrack, {"thickness": "thickness", "radius": "inner_radius"}, {}, two_way=True),
}
SHAPE_KEYS = tuple(dict.fromkeys(key for form in SHAPES.values() for key in (*form.needs, *form.may_have)))


def shape_of_keys(name: str, keys: Mapping[str, Any], where: str) -> Any:
    """The shape of that name from its keys; InputError for one that it needs or does not have."""
    if name not in SHAPES:
        raise InputError(f"{where}, shape", repr(name), f"one of {listed(SHAPES)}", did_you_mean(name, SHAPES))
    form = SHAPES[name]
    for key in form.needs:
        if key not in keys:
            raise InputError(f"{where}, {key}", "nothing", f"a value, which a crack of the shape {name!r} needs")
    takes = {**form.needs, **form.may_have}
    for key in keys:
        if key not in takes:
            raise InputError(
                f"{where}, {key}", f"a key that the shape {name!r} does not have", f"its keys: {listed(takes)}"
            )
    return form.made_by(**{takes[key]: value for key, value in keys.items()})
