"""Indications as an inspection reports them, and the rules by which they become flaws: each said where it was used."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from vivid_anvil.acceptance.flaw import WELDS, Flaw
from vivid_anvil.acceptance.part import KINDS, Part
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import Coherent, OptionalCoherent, number, opened

LIGAMENT_RULE = (
    0.4  # of the half height, below which an embedded flaw counts as reaching the surface (ASME XI, IWA-3300)
)
DEEP = 0.9  # of the wall: a surface flaw deeper counts as through
ACROSS = 90.0  # degrees


@dataclass(frozen=True, kw_only=True)
class Indication:
    """What an inspection found.

    Parameters
    ----------
    name : str
        What it is called.
    kind : str
        One of `KINDS`.
    length : float or text with a unit
        Whole length, mm; of a flaw from an edge, a corner or a hole how far it reaches from there.
    height : float or text with a unit, optional
        In the direction of the wall, mm; of a surface flaw its depth; none for flaws through the wall, from an edge or a hole.
    ligament : float or text with a unit, optional
        Of an embedded flaw the sound metal to the nearer surface, mm.
    angle : float, default 90.0
        Between the length of the flaw and the stress, degrees: 90 is right across it.
    position : float or text with a unit, optional
        Of its middle along the line of flaws, mm; with it neighbours are looked at.
    weld : str, default "none"
        What of a weld it lies in: one of `WELDS`.
    place : str, default ""
        Name of the part that it is in, where there are several.
    stress : str, default ""
        Name of the stresses that pull at it, where there are several.

    Raises
    ------
    InputError
        For another kind, sizes that it does not have, and angles beyond 0 to 180 degrees.

    Examples
    --------
    >>> Indication(name="A1", kind="surface", length="24 mm", height="5 mm").height
    5.0
    """

    name: str
    kind: str
    length: Coherent = Coherent("length", above=0.0)
    height: OptionalCoherent = OptionalCoherent("length", above=0.0)
    ligament: OptionalCoherent = OptionalCoherent("length", at_least=0.0)
    angle: float = ACROSS
    position: OptionalCoherent = OptionalCoherent("length")
    weld: str = "none"
    place: str = ""
    stress: str = ""

    def __post_init__(self) -> None:
        where = f"indication {self.name}"
        checks.text("indication, name", self.name)
        checks.one_of(inside(where, "kind"), self.kind, KINDS)
        checks.one_of(inside(where, "weld"), self.weld, tuple(WELDS))
        if not 0.0 < checks.real_number(inside(where, "angle"), self.angle) < 180.0:
            raise InputError(inside(where, "angle"), f"{self.angle:g} degrees", "between 0 and 180 degrees")
        wants = {
            "height": self.kind in ("surface", "embedded", "corner", "hole corner"),
            "ligament": self.kind == "embedded",
        }
        for key, needed in wants.items():
            if needed != (getattr(self, key) is not None):
                found = "none" if needed else f"{getattr(self, key):g} mm"
                expected = f"a {key} of {_a(self.kind)} flaw" if needed else f"no {key} for {_a(self.kind)} flaw"
                raise InputError(inside(where, key), found, expected)


def _a(kind: str) -> str:
    return f"{'an' if kind[0] in 'aeiou' else 'a'} {kind}"


@dataclass(frozen=True)
class Characterised:
    """A flaw and how it came about.

    Parameters
    ----------
    flaw : Flaw
        What is assessed.
    of : tuple of str
        Names of the indications in it.
    rules : tuple of str
        What was done, in words, in its order.
    found : tuple of Indication
        The indications as they were reported.
    position : float, optional
        Of the middle of the flaw along the line of flaws, mm.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> part = Part(form="plate", wall="25 mm", width="300 mm")
    >>> characterised(part, [Indication(name="A1", kind="surface", length="24 mm", height="5 mm")])[0].rules
    ()
    """

    flaw: Flaw
    of: tuple[str, ...]
    rules: tuple[str, ...]
    found: tuple[Indication, ...] = ()
    position: float | None = None


@dataclass(frozen=True)
class _Box:
    """An indication projected: its kind, length and height, ligament, the middle along the line, all mm; and what was done."""

    kind: str
    length: float
    height: float
    ligament: float
    position: float | None
    weld: str
    of: tuple[str, ...]
    rules: tuple[str, ...]

    def with_rule(self, rule: str, **changes: object) -> _Box:
        return replace(self, rules=(*self.rules, rule), **changes)  # type: ignore[arg-type]


@opened()
def characterised(part: Part, indications: Sequence[Indication]) -> tuple[Characterised, ...]:
    """Indications as flaws: projected across the stress, joined with neighbours, recategorised near a surface.

    Neighbours are joined where the gap between them, along their line, is at most the mean of their lengths: the flaw has
    then the length of both and the gap, and the larger height. Embedded flaws with a ligament below 0.4 of half their height
    become surface flaws that take it in; surface flaws deeper than 0.9 of the wall flaws through it, longer by twice the
    ligament.

    Parameters
    ----------
    part : Part
        The wall.
    indications : sequence of Indication
        What was found; those without position stand alone.

    Returns
    -------
    tuple of Characterised
        Flaws, in the order of their first indication.

    Raises
    ------
    InputError
        For an indication that is higher than the wall, a ligament beyond it, or a kind that the part has no solution for.

    Examples
    --------
    >>> part = Part(form="plate", wall="25 mm", width="300 mm")
    >>> two = [
    ...     Indication(name="A1", kind="surface", length="20 mm", height="5 mm", position="0 mm"),
    ...     Indication(name="A2", kind="surface", length="10 mm", height="3 mm", position="25 mm"),
    ... ]
    >>> (one,) = characterised(part, two)
    >>> one.flaw, one.rules[0]
    (<Flaw A1 + A2: surface, depth 5 mm, half length 20 mm>, 'A1 and A2 joined: a gap of 10 mm, at most ... 15 mm')
    """
    if not len(indications):
        raise InputError("indications", "none", "one or more")
    seen: set[str] = set()
    twice = next((one.name for one in indications if one.name in seen or seen.add(one.name)), None)  # type: ignore[func-returns-value]
    if twice is not None:
        raise InputError("indications, name", f"{twice!r} twice", "each name once")
    boxes = [_projected(part, one) for one in indications]
    known = {one.name: one for one in indications}
    return tuple(_as_flaw(part, _recategorised(part, box), known) for box in _joined(boxes))


def _projected(part: Part, one: Indication) -> _Box:
    """Onto the plane across the stress."""
    where, height = f"indication {one.name}", one.height or 0.0
    if height >= part.wall:
        found = f"{number(height)} mm"
        raise InputError(
            inside(where, "height"), found, f"less than the wall, {number(part.wall)} mm", "Is it through?"
        )
    ligament = one.ligament or 0.0
    if one.kind == "embedded" and ligament + height > part.wall - ligament + 1e-9 * part.wall:
        raise InputError(
            inside(where, "ligament"),
            f"{number(ligament)} mm beside a height of {number(height)} mm",
            f"the ligament to the nearer surface, at most {number(0.5 * (part.wall - height))} mm",
        )
    box = _Box(one.kind, one.length, height, ligament, one.position, one.weld, (one.name,), ())
    if one.angle == ACROSS:
        return box
    length = one.length * math.sin(math.radians(one.angle))
    rule = f"{one.name} projected across the stress: {number(one.length)} mm at {one.angle:g} degrees is {number(length)} mm"
    return box.with_rule(rule, length=length)


def _joined(boxes: list[_Box]) -> list[_Box]:
    """Neighbours of the same kind on a line, joined with the next one until none is near; in the order of the first in each."""
    groups: dict[tuple[str, str], list[_Box]] = {}
    found = [box for box in boxes if box.position is None]
    for box in boxes:
        if box.position is not None:
            groups.setdefault((box.kind, box.weld), []).append(box)
    for rows in groups.values():
        line = sorted(rows, key=lambda box: box.position or 0.0)
        i = 0
        while i + 1 < len(line):
            if _near(line[i], line[i + 1]) is None:
                i += 1
                continue
            line[i : i + 2] = [_both(line[i], line[i + 1])]
            i = max(i - 1, 0)  # what has grown may be near the one before
        found += line
    place = {box.of[0]: i for i, box in enumerate(boxes)}
    return sorted(found, key=lambda box: min(place[name] for name in box.of))


def _gap(one: _Box, other: _Box) -> float:
    """Between both along their line, mm; 0 where they overlap."""
    assert one.position is not None
    assert other.position is not None
    return max(abs(one.position - other.position) - 0.5 * (one.length + other.length), 0.0)


def _near(one: _Box, other: _Box) -> float | None:
    """The gap between two that count as one; None where they stay apart."""
    if (
        one.position is None
        or other.position is None
        or one.kind != other.kind
        or one.kind in ("edge", "corner", "hole", "hole corner")
    ):
        return None
    if one.weld != other.weld:
        return None
    gap = _gap(one, other)
    return gap if gap <= 0.5 * (one.length + other.length) * (1.0 + 1e-9) else None


def _both(one: _Box, other: _Box) -> _Box:
    """One flaw that holds both."""
    gap, mean = _gap(one, other), 0.5 * (one.length + other.length)
    assert one.position is not None
    assert other.position is not None
    low = min(one.position - 0.5 * one.length, other.position - 0.5 * other.length)
    high = max(one.position + 0.5 * one.length, other.position + 0.5 * other.length)
    top = min(one.ligament, other.ligament)
    bottom = max(one.ligament + one.height, other.ligament + other.height)
    rule = (
        f"{' + '.join(one.of)} and {' + '.join(other.of)} joined: a gap of {number(gap)} mm, at most the mean of their "
        f"lengths, {number(mean)} mm"
    )
    return _Box(
        one.kind,
        high - low,
        bottom - top if one.kind == "embedded" else max(one.height, other.height),
        top,
        0.5 * (low + high),
        one.weld,
        (*one.of, *other.of),
        (*one.rules, *other.rules, rule),
    )


def _recategorised(part: Part, box: _Box) -> _Box:
    """An embedded flaw near a surface as one on it, one that is nearly through as through."""
    name = " + ".join(box.of)
    if box.kind == "embedded" and box.ligament < LIGAMENT_RULE * 0.5 * box.height:
        rule = (
            f"{name} taken as a surface flaw: its ligament, {number(box.ligament)} mm, is below 0.4 of half its height, "
            f"{number(LIGAMENT_RULE * 0.5 * box.height)} mm"
        )
        box = box.with_rule(
            rule, kind="surface", height=box.height + box.ligament, length=box.length + 2.0 * box.ligament, ligament=0.0
        )
    if box.kind == "surface" and box.height > DEEP * part.wall:
        left = part.wall - box.height
        rule = f"{name} taken as through the wall: its depth, {number(box.height)} mm, is above 0.9 of {number(part.wall)} mm"
        box = box.with_rule(rule, kind="through", length=box.length + 2.0 * left, height=0.0)
    return box


def _as_flaw(part: Part, box: _Box, known: dict[str, Indication]) -> Characterised:
    name = " + ".join(box.of)
    try:
        flaw = _made(part, box, name)
    except InputError as error:
        raise InputError(f"indication {name}", error.found, error.expected, error.remedy) from None
    return Characterised(flaw, box.of, box.rules, tuple(known[one] for one in box.of), box.position)


def _made(part: Part, box: _Box, name: str) -> Flaw:
    half = 0.5 * box.length
    if box.kind in ("through", "edge", "hole"):
        shape = part.shape_of(box.kind)
        wall = part.wall if shape.wall_thickness is None else None
        size = half if box.kind == "through" else box.length
        return Flaw(name=name, shape=shape, size=size, wall=wall, weld=box.weld)
    if box.kind in ("corner", "hole corner"):
        return Flaw(name=name, shape=part.shape_of(box.kind), size=box.height, half_length=box.length, weld=box.weld)
    if box.kind == "surface":
        return Flaw(name=name, shape=part.shape_of("surface"), size=box.height, half_length=half, weld=box.weld)
    centre = min(box.ligament + 0.5 * box.height, 0.5 * part.wall)
    shape = part.shape_of("embedded", centre_depth=centre)
    return Flaw(name=name, shape=shape, size=0.5 * box.height, half_length=half, weld=box.weld)
