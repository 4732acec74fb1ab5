"""Normals of a free surface of a model: what the pressure in rubber is found from."""

from __future__ import annotations

import numpy as np

from vivid_anvil.fields.planes import faces_across, normals_by_area
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.units import opened

WHOLE = "whole surface"


@opened()
def free_surface_normals(field: StressField, name: str = WHOLE) -> dict[int, tuple[float, float, float]]:
    """Outward normals of a free surface, by the numbers of its nodes: means over its faces by area, none of other faces.

    Parameters
    ----------
    field : StressField
        The field, with its elements.
    name : str, default "whole surface"
        The set of nodes that the free surface is, or "whole surface". A face belongs to it with all its nodes.

    Returns
    -------
    dict[int, tuple of float]
        Unit normals.

    Raises
    ------
    InputError
        For a set that is not there, one without an outer face, and a field without elements.

    Examples
    --------
    >>> head = free_surface_normals(field)  # field of the demo; node 2613 is in the bore, at 45 degrees
    >>> len(head), [round(one, 3) + 0.0 for one in head[2613]]
    (4164, [-0.711, -0.703, 0.0])
    """
    faces, across = faces_across(field)
    if name != WHOLE:
        wanted = np.zeros(field.size, dtype=bool)
        wanted[field.places_of(name)] = True
        kept = wanted[faces].all(axis=1)
        faces, across = faces[kept], across[kept]
    if not len(faces):
        raise InputError(
            inside(field.place, f"free surface {name}"),
            "no outer face all of whose nodes are in the set",
            "a set of nodes on the surface of the model",
        )
    normals = normals_by_area(field, faces, across)
    found = {}
    for place in np.flatnonzero(np.isfinite(normals[:, 0])).tolist():
        x, y, z = normals[place].tolist()
        found[int(field.node_ids[place])] = (x, y, z)
    return found
