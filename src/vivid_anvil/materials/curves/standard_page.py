"""What is told of standards with weld and detail classes."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from vivid_anvil.materials.curves.standards import DetailStandard
from vivid_anvil.units import UnitSystem, in_unit
from vivid_anvil.writing.result import Page
from vivid_anvil.writing.table import Column, Table


def standards_table(standards: Mapping[str, DetailStandard]) -> Table:
    """Which standards there are."""
    of = list(standards.values())
    many = [len({name for curves in one.curves for name in curves.classes}) for one in of]
    columns = (
        Column("standard", [f"{one.name} ({one.edition})" for one in of]),
        Column("what", [one.title for one in of]),
        Column("classes", many),
    )
    return Table("", columns, "standards")


def classes_table(standards: Sequence[DetailStandard]) -> Table:
    """A row a class of some standards."""
    rows = [(one, curves, name) for one in standards for curves in one.curves for name in curves.classes]
    columns = (
        Column("standard", [one.name for one, _, _ in rows]),
        Column("component", [curves.component for _, curves, _ in rows]),
        Column("loading", [curves.loading for _, curves, _ in rows]),
        Column("class", [name for _, _, name in rows]),
        Column("curve", [curves.what for _, curves, _ in rows]),
    )
    return Table("", columns, "classes")


def standard_pages(standard: DetailStandard, units: UnitSystem = "metric") -> tuple[Page, ...]:
    """Curves, classes, thickness exponents and environments of one standard."""
    words = [("", f"Stress {standard.stress}, R = {standard.r_ratio}. Valid for {standard.validity}.")]
    words += [("", f"Note: {standard.note}")] if standard.note else []
    pages = [Page(f"{standard.name} ({standard.edition}): {standard.title}", tuple(words))]
    thickness: dict[str, float] = {}
    environments: dict[str, Mapping[str, Any]] = {}
    for one in standard.curves:
        told = f"{one.what}. Classes: {', '.join(one.classes)}. Source: {one.source}."
        pages.append(Page(f"{one.component} stress, {one.loading} amplitude", (("", told),)))
        thickness |= dict(one.thickness_exponents)
        environments |= dict(one.environments)
    reference = next((curve.reference_thickness for curve in standard.curves if curve.reference_thickness), None)
    if thickness and reference is not None:
        exponents = tuple(("", f"{value:g}  {name}") for name, value in thickness.items())
        pages.append(Page(f"Thickness above {in_unit(reference, 'length', units)}: exponent", exponents))
    for name, found in environments.items():
        knees = ", no knee" if found.get("knees") == "none" else ""
        told = f"stresses times {found['stress_factor']:g}{knees} ({found.get('source', '')})"
        pages.append(Page(f"Environment: {name}", (("", told),)))
    return tuple(pages)
