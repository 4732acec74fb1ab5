"""What the commands flaws and front do: read, assess, show, write; and what others do with the flaws of a study."""

from __future__ import annotations

import dataclasses
from concurrent.futures import ProcessPoolExecutor
from contextlib import nullcontext
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import UnitSystem

_DRAWN = {
    "FlawAssessment": "flaw",
    "Sensitivity": "what moves",
    "LimitingSizes": "limiting sizes",
    "FlawGrowth": "flaw growth",
    "AllowableFlaws": "may be left",
    "Tearing": "tearing",
}
MANY = 200  # flaws from which processes are worth their start


@dataclass(frozen=True)
class Listing:
    """Which flaw, how many of the most urgent in full, how many processes."""

    flaw: str | None = None
    details: int = 1
    processes: int = 2


def flaws(path: Path, asked: Listing, outputs: Outputs, units: UnitSystem) -> None:
    """The flaws of a study: the list, and the most urgent in full."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.study import assess_fronts, flaw_in_full, read_study

        study = read_study(path, watch=watch)
        found, fronts = listed_flaws(study, watch, asked.processes), assess_fronts(study)
        chosen = (found.flaw(asked.flaw),) if asked.flaw is not None else found.flaws[: asked.details]
        in_full = {one.name: flaw_in_full(study, one, watch=watch) for one in chosen}
        drawings: list[Drawing] = [Drawing("flaws", found, units)] if found.flaws else []
        drawings += [
            Drawing(f"{_DRAWN[type(one).__name__]} {name}", one, units)
            for name, rows in in_full.items()
            for one in rows
            if type(one).__name__ in _DRAWN
        ]
        drawings += [Drawing(f"characterised {one.name}", one.made, units) for one in chosen if one.made.rules]
        drawings += [Drawing(f"front {one.front.name}", one, units) for one in fronts]
        record = {
            "title": study.title,
            **found.to_dict(),
            "in full": {name: {one.title: one.to_dict() for one in rows} for name, rows in in_full.items()},
            "fronts": [one.to_dict() for one in fronts],
        }
        table = found.tables()[0] if found.flaws else _overview(fronts)
        written = outputs.write(record, table, drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    if asked.flaw is None:
        if found.flaws:
            out.print(show.page(found.page(units), units))
        for front in fronts:
            out.print(show.page(front.page(units), units))
    for name, rows in in_full.items():
        for one in rows:
            findings = tuple(one.findings) or None if one is not rows[0] else tuple(one.findings)
            out.print(show.page(dataclasses.replace(one.page(units), findings=findings), units))
        if asked.flaw is None:
            out.print(f"\nAnother flaw in full:  vivid-anvil flaws {path} --flaw NAME")
            out.print(f"This one by hand:  vivid-anvil explain {path} --spot {name!r}")
    show.say_written(out, written)


def _overview(fronts: tuple[Any, ...]) -> Any:
    from vivid_anvil.acceptance import FrontAssessment

    return FrontAssessment.overview(fronts)


def listed_flaws(study: Any, watch: Any, processes: int = 1) -> Any:
    """The list of flaws of a study, a long one by several processes."""
    from vivid_anvil.study import assess_flaws, flaws_of

    several = processes > 1 and len(flaws_of(study).indications) >= MANY
    with ProcessPoolExecutor(processes) if several else nullcontext() as pool:
        return assess_flaws(study, watch=watch, executor=pool)


@dataclass(frozen=True)
class Fronts:
    """How tables of contours are read, and what the worst position is held against."""

    case: str | None = None
    sheet: str | None = None
    youngs_modulus: str = "207 GPa"
    poissons_ratio: float = 0.3
    rule: str = "energy release rate"
    sizes: tuple[str, ...] = ()
    stress: str | None = None


def fronts(paths: list[Path], asked: Fronts, outputs: Outputs, units: UnitSystem) -> None:
    """K along crack fronts; of several sizes the shape that they make."""
    outputs.check()
    with progress("reading the tables") as watch:
        from vivid_anvil.acceptance import CrackFront, crack_of_fronts, read_crack_front

        if bool(asked.sizes) != (asked.stress is not None):
            found = "--size without --stress" if asked.sizes else "--stress without --size"
            raise InputError("front", found, "both: the size of the crack in each table, and the nominal stress")
        found_fronts = [
            read_crack_front(
                path,
                case=asked.case,
                sheet=asked.sheet or 0,
                youngs_modulus=asked.youngs_modulus,  # type: ignore[arg-type]
                poissons_ratio=asked.poissons_ratio,
                rule=asked.rule,
            )
            for path in paths
        ]
        shape = crack_of_fronts(asked.sizes, found_fronts, asked.stress) if asked.stress is not None else None
        drawings: list[Drawing] = [Drawing(f"front {one.name}", one, units) for one in found_fronts]
        record = {"fronts": [one.to_dict() for one in found_fronts]}
        table = found_fronts[0].tables()[0] if len(found_fronts) == 1 else CrackFront.overview(found_fronts)
        if shape is not None:
            table = _points(shape)
            record["shape"] = table.rows()
        written = outputs.write(record, table, drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    for one in found_fronts:
        out.print(show.page(one.page(units), units))
    if shape is not None:
        out.print(show.table(_points(shape), units))
        out.print('\nWritten by --csv these rows are a crack of a study: shape = "table", points = the file.')
    show.say_written(out, written)


def _points(shape: Any) -> Any:
    from vivid_anvil.writing.table import Column, Table

    columns = (
        Column("size", [size for size, _ in shape.points], of="length"),
        Column("Y", [y for _, y in shape.points]),
    )
    return Table("Y of the worst position over the size of the crack", columns, key="points")


def flaw_or_front(study: Any, name: str, watch: Any) -> Any:
    """The assessment of a flaw, or of a crack front, by its name; None where the study has none of that name."""
    from vivid_anvil.study import assess_flaws, assess_fronts

    if study.flaws is None:
        return None
    names = list(study.flaws.fronts)
    if name in names:
        return assess_fronts(study)[names.index(name)]
    found = assess_flaws(study, watch=watch)
    return next((one.assessment for one in found.flaws if name == one.name or name in one.made.of), None)


def grown_flaws(study: Any, spot: str | None, watch: Any) -> list[Any]:
    """Growth of the flaws of a study whose places have stages, the shortest life first; of one by its name."""
    from vivid_anvil.study import assess_flaws, growth_of_flaw

    if study.flaws is None or not study.flaws.indications:
        return []
    found = assess_flaws(study, watch=watch)
    names = [name for one in found.flaws for name in (one.name, *one.made.of)]
    if spot is not None and spot not in names:
        return []
    chosen = found.flaws if spot is None else (found.flaw(spot),)
    growths = [growth_of_flaw(study, one) for one in chosen]
    return sorted((one for one in growths if one is not None), key=lambda one: one.life)
