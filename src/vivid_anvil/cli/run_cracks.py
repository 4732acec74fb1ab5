"""What the commands grow and inspections do: read, grow, plan, show, write."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Any

from vivid_anvil.cli.draw import draw, growth_drawings
from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.cli.run import DETAILS, chosen
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import UnitSystem


@dataclass(frozen=True)
class Growing:
    """Which crack, how many of the worst in full, and whether the whole life is asked for."""

    spot: str | None = None
    details: int = DETAILS
    after_damage: bool = False


@dataclass(frozen=True)
class Looks:
    """Of which crack a plan is made, how often to look, when first."""

    spot: str | None = None
    every: str | None = None
    first: str | None = None


@dataclass(frozen=True)
class Readings:
    """What is known of the piece on which a crack was measured, and how its law is fitted."""

    r_ratio: float | None = None
    piece: str | None = None
    force_range: str | None = None
    thickness: str | None = None
    width: str | None = None
    method: str = "polynomial"
    slope: float | None = None


def growth_tests(path: Path, readings: Readings, outputs: Outputs, units: UnitSystem) -> None:
    """A growth law from tests."""
    outputs.check()
    with progress("reading the tests") as watch:
        from vivid_anvil.materials import fit_growth_law, read_growth_tests

        given = {key: getattr(readings, key) for key in ("piece", "force_range", "thickness", "width", "method")}
        fit = fit_growth_law(read_growth_tests(path, r_ratio=readings.r_ratio, **given), slope=readings.slope)
        drawings: list[Drawing] = [(f"growth {fit.tests.name}", partial(draw, fit, units))]
        written = outputs.write(fit.to_dict(), fit.tables()[0], drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.page(fit.page(units), units))
    show.say_written(out, written)


def grow(path: Path, asked: Growing, outputs: Outputs, units: UnitSystem) -> None:
    """The cracks of a study, on request after the damage that makes them."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.growth import GrowthResult, course_of_all
        from vivid_anvil.writing.result import Page

        study, growths = _grown(path, asked.spot, watch)
        totals = [_total(study, growth) for growth in growths] if asked.after_damage else []
        worst = sorted(growths, key=lambda one: one.life_repeats)
        shown = worst[: asked.details]
        record: dict[str, Any] = {"title": study.title, "cracks": [growth.to_dict() for growth in growths]}
        if totals:
            record["whole lives"] = [one.to_dict() for one in totals]
        written = outputs.write(record, course_of_all(growths), growth_drawings(shown, units), watch)
    from vivid_anvil.cli import show

    out = show.console()
    tables = (GrowthResult.overview(worst),) if len(growths) > 1 else ()
    out.print(show.page(Page(study.title, study.words, tables), units))
    for one in shown:
        out.print(show.page(one.page(units), units))
    if len(worst) > len(shown):
        left = len(worst) - len(shown)
        out.print(f"\n{left} of {len(worst)} cracks are not told in full: --details {len(worst)} tells all.")
    for total in totals:
        out.print(show.page(total.page(units), units))
    show.say_written(out, written)


def inspections(path: Path, asked: Looks, outputs: Outputs, units: UnitSystem) -> None:
    """The plan of one crack, the first by default, with initial sizes and loads around it."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.growth import inspection_plan, limits_over_load, lives_over_size
        from vivid_anvil.growth.load_limits import limits_table
        from vivid_anvil.writing.plain import finding_records

        study, growths = _grown(path, asked.spot, watch)
        growth = growths[0]
        plan = inspection_plan(growth, every=asked.every, first=asked.first)
        lives = lives_over_size(growth, watch=watch)
        limits = limits_table(limits_over_load(growth))
        findings = (*plan.findings, *growth.findings)
        record = {
            "title": study.title,
            **plan.to_dict(),
            **lives.to_dict(),
            limits.key: limits.rows(),
            "findings": finding_records(findings),
        }
        name = growth.crack.hot_spot.name
        drawings: list[Drawing] = [
            (f"inspections {name}", partial(draw, plan, units)),
            (f"initial size {name}", partial(draw, lives, units)),
        ]
        written = outputs.write(record, plan.tables()[0], drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    for page in (plan.page(units), dataclasses.replace(lives.page(units), findings=None)):
        out.print(show.page(page, units))
    out.print(show.table(limits, units))
    out.print()
    out.print(show.findings_summary(findings, f"vivid-anvil grow {path.name}"))
    show.say_written(out, written)


def _grown(path: Path, spot: str | None, watch: Any) -> tuple[Any, tuple[Any, ...]]:
    from vivid_anvil.study import grow_cracks, read_study

    study = read_study(path, watch=watch)
    if not study.cracks:
        raise InputError(path.name, "no crack", "at least one", "Add a table [[cracks]].")
    names = [crack.hot_spot.name for crack in study.cracks]
    return study, chosen(grow_cracks(study, watch=watch), names, spot)


def _total(study: Any, growth: Any) -> Any:
    from vivid_anvil.damage import assess_life
    from vivid_anvil.study import total_life

    spot = growth.crack.hot_spot
    if spot.method is None:
        raise InputError(f"--after-damage, {spot.name}", "no S-N curve", "a hot spot with sn_curve", "Give it one.")
    return total_life(assess_life(spot, study.duty_cycle, target=study.target_life), growth)
