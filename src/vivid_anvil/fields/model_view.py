"""What of a model is to be seen: from where, and which places are marked."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from vivid_anvil.fields.hottest import HotPlace
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.ground.checks import FloatArray, IntArray, one_of
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.models.surface import outer_surface

# Where the eye is, by name, in a picture whose axes are right, up and towards the eye; others by three numbers of the model.
DIRECTIONS = {
    "front": (0.0, 0.0, 1.0),
    "back": (0.0, 0.0, -1.0),
    "right": (1.0, 0.0, 0.0),
    "left": (-1.0, 0.0, 0.0),
    "top": (0.0, 1.0, 0.0),
    "bottom": (0.0, -1.0, 0.0),
    "corner": (1.0, 0.7, 1.4),
}

# For each axis that may point upwards the axes of the model that are right, up and front, as rows.
UPWARDS = {
    "x": np.array([[0.0, 0.0, 1.0], [1.0, 0.0, 0.0], [0.0, 1.0, 0.0]]),
    "y": np.eye(3),
    "z": np.array([[1.0, 0.0, 0.0], [0.0, 0.0, 1.0], [0.0, -1.0, 0.0]]),
}


@dataclass(frozen=True, eq=False, repr=False)
class ModelView:
    """A model's result seen from `direction`, one of `DIRECTIONS` or (x, y, z) towards the eye, with marked places.

    `up` is the axis of the model that points upwards, "x", "y" or "z"; `title` stands above the picture, else the source.
    """

    result: ModelResult
    direction: str | tuple[float, float, float] = "corner"
    places: Sequence[HotPlace] = ()
    up: str = "y"
    title: str = ""

    def __post_init__(self) -> None:
        one_of("model view, up", self.up, tuple(UPWARDS))
        if isinstance(self.direction, str):
            if self.direction not in DIRECTIONS:
                hint = did_you_mean(self.direction, DIRECTIONS)
                raise InputError("model view, direction", repr(self.direction), f"one of {listed(DIRECTIONS)}", hint)
        elif not np.linalg.norm(np.asarray(self.direction, dtype=np.float64)) > 0.0:
            raise InputError("model view, direction", f"{self.direction}", "three numbers, not all 0")

    @cached_property
    def axes(self) -> FloatArray:
        """Rows: to the right, upwards, towards the eye; shape (3, 3)."""
        named = UPWARDS[self.up]
        if isinstance(self.direction, str):
            towards = np.array(DIRECTIONS[self.direction]) @ named
        else:
            towards = np.asarray(self.direction, dtype=np.float64)
        eye = towards / np.linalg.norm(towards)
        height = float(eye @ named[1])
        up = named[1] if abs(height) < 0.999 else -np.sign(height) * named[2]
        right = np.cross(up, eye)
        right /= np.linalg.norm(right)
        return np.array([right, np.cross(eye, right), eye])

    @cached_property
    def seen(self) -> FloatArray:
        """Nodes in the picture: to the right, upwards, towards the eye, mm; shape (n, 3)."""
        return np.asarray(self.result.field.coordinates @ self.axes.T)

    @cached_property
    def faces(self) -> IntArray:
        """Outer faces that look at the eye, the farthest first; shape (m, 4)."""
        faces, closed = outer_surface(self.result.field.elements)
        corners = self.seen[faces]
        if closed:
            across = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
            facing = across[:, 2] > 0.0
            faces, corners = faces[facing], corners[facing]
        return np.asarray(faces[np.argsort(corners[:, :, 2].mean(axis=1), kind="stable")])

    @property
    def side(self) -> str:
        """Where the eye is, in words."""
        if isinstance(self.direction, str):
            return f"the {self.direction}"
        return "({:g}, {:g}, {:g})".format(*self.direction)

    def is_hidden(self, place: int) -> bool:
        """Whether no face at this node looks at the eye, or another face stands before it."""
        if not bool((self.faces == place).any()):
            return True
        here = self.seen[place]
        corners = self.seen[self.faces]
        near = np.flatnonzero(
            (corners[:, :, 2].max(axis=1) > here[2])
            & (corners[:, :, :2].min(axis=1) <= here[:2]).all(axis=1)
            & (corners[:, :, :2].max(axis=1) >= here[:2]).all(axis=1)
            & ~(self.faces == place).any(axis=1)
        )
        return any(_stands_before(corners[face][[0, i, i + 1]], here) for face in near for i in (1, 2))

    def __repr__(self) -> str:
        return f"<ModelView from {self.side}: {self.result!r}>"


def _stands_before(triangle: FloatArray, here: FloatArray) -> bool:
    """Whether a triangle covers a point, seen along the third axis, and is nearer to the eye by more than rounding."""
    flat = np.column_stack([triangle[1, :2] - triangle[0, :2], triangle[2, :2] - triangle[0, :2]])
    size = abs(float(np.linalg.det(flat)))
    reach = float(np.ptp(triangle, axis=0).max())
    if size <= 1e-12 * reach**2:
        return False
    share = np.linalg.solve(flat, here[:2] - triangle[0, :2])
    depth = triangle[0, 2] + share @ (triangle[1:, 2] - triangle[0, 2])
    return bool(share.min() > -1e-9 and share.sum() < 1.0 + 1e-9 and depth > here[2] + 1e-6 * reach)
