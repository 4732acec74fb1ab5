"""What the commands grow and inspections do: read, grow, plan, show, write."""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.cli.draw import growth_drawings
from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.cli.run import DETAILS, chosen
from vivid_anvil.cli.run_flaws import grown_flaws
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
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
        drawings: list[Drawing] = [Drawing(f"growth {fit.tests.name}", fit, units)]
        written = outputs.write(fit.to_dict(), fit.tables()[0], drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.page(fit.page(units), units))
    show.say_written(out, written)


def grow(path: Path, asked: Growing, outputs: Outputs, units: UnitSystem) -> None:
    """The cracks of a study, on request after the damage that makes them."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.acceptance import FlawGrowth
        from vivid_anvil.growth import GrowthResult, course_of_all
        from vivid_anvil.writing.result import Page

        study, growths, flaws = _grown(path, asked.spot, watch)
        totals = [_total(study, growth) for growth in growths] if asked.after_damage else []
        worst = sorted(growths, key=lambda one: one.life_repeats)
        shown = worst[: asked.details]
        record: dict[str, Any] = {"title": study.title, "cracks": [growth.to_dict() for growth in growths]}
        if flaws:
            record["flaws"] = [one.to_dict() for one in flaws]
        if totals:
            record["whole lives"] = [one.to_dict() for one in totals]
        drawings = growth_drawings(shown, units)
        drawings += [Drawing(f"flaw growth {one.assessment.flaw.name}", one, units) for one in flaws[: asked.details]]
        table = course_of_all(growths) if growths else FlawGrowth.overview(flaws)
        written = outputs.write(record, table, drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    tables: tuple[Any, ...] = (GrowthResult.overview(worst),) if len(growths) > 1 else ()
    tables += (FlawGrowth.overview(flaws),) if len(flaws) > 1 else ()
    out.print(show.page(Page(study.title, study.words, tables), units))
    for one in shown:
        out.print(show.page(one.page(units), units))
    if len(worst) > len(shown):
        left = len(worst) - len(shown)
        out.print(f"\n{left} of {len(worst)} cracks are not told in full: --details {len(worst)} tells all.")
    for total in totals:
        out.print(show.page(total.page(units), units))
    for one in flaws[: asked.details]:
        out.print(show.page(one.page(units), units))
    if len(flaws) > asked.details:
        out.print(f"\n{len(flaws) - asked.details} of {len(flaws)} flaws are not told in full: --spot NAME tells one.")
    show.say_written(out, written)


def inspections(path: Path, asked: Looks, outputs: Outputs, units: UnitSystem) -> None:
    """The plan of one crack, the first by default, with initial sizes and loads around it."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.growth import inspection_plan, limits_over_load, lives_over_size
        from vivid_anvil.growth.load_limits import limits_table
        from vivid_anvil.writing.plain import finding_records

        study, growths, flaws = _grown(path, asked.spot, watch)
    if not growths:
        _looks(study, flaws, asked, outputs, units)
        return
    with progress("planning") as watch:
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
            Drawing(f"inspections {name}", plan, units),
            Drawing(f"initial size {name}", lives, units),
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


def _looks(study: Any, flaws: list[Any], asked: Looks, outputs: Outputs, units: UnitSystem) -> None:
    """The plan of looks at a flaw: that of the name, else the most urgent one that may stay today."""
    with progress("planning") as watch:
        from vivid_anvil.acceptance import flaw_looks
        from vivid_anvil.writing.result import Result

        if asked.first is not None:
            raise InputError("--first", asked.first, "no such option for flaws", "The first look found them.")
        growth = next((one for one in flaws if one.life > 0.0), flaws[0])
        if asked.every is None and not 0.0 < growth.next_look < math.inf:
            found = f"flaw {growth.assessment.flaw.name}, {growth.governed_by}"
            raise InputError("--every", f"none, for {found}", "an interval, such as '1 year'")
        every = growth.next_look if asked.every is None else asked.every
        plan: Result = flaw_looks(growth, every, inspected=study.flaws.inspected, watch=watch)
        drawings: list[Drawing] = [Drawing(f"looks {growth.assessment.flaw.name}", plan, units)]
        written = outputs.write({"title": study.title, **plan.to_dict()}, plan.tables()[0], drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.page(plan.page(units), units))
    show.say_written(out, written)


def _grown(path: Path, spot: str | None, watch: Any) -> tuple[Any, tuple[Any, ...], list[Any]]:
    """The study, its cracks grown, its flaws grown; those of a name where one is asked for."""
    from vivid_anvil.study import grow_cracks, read_study

    study = read_study(path, watch=watch)
    flaws = grown_flaws(study, spot, watch)
    names = [crack.hot_spot.name for crack in study.cracks]
    if not names and not flaws:
        if spot is not None and study.flaws is not None:
            known = [one.name for one in study.flaws.indications]
            raise InputError("--spot", repr(spot), f"one of {listed(known)}", did_you_mean(spot, known))
        what = "no crack, and no flaw with stages" if study.flaws is not None else "no crack"
        raise InputError(path.name, what, "at least one", "Add a table [[cracks]].")
    if not names or (flaws and spot is not None and spot not in names):
        return study, (), flaws
    return study, chosen(grow_cracks(study, watch=watch), names, spot), flaws


def _total(study: Any, growth: Any) -> Any:
    from vivid_anvil.damage import assess_life
    from vivid_anvil.study import total_life

    spot = growth.crack.hot_spot
    if spot.method is None:
        raise InputError(f"--after-damage, {spot.name}", "no S-N curve", "a hot spot with sn_curve", "Give it one.")
    return total_life(assess_life(spot, study.duty, target=study.target_life), growth)
