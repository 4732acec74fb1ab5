"""What the commands demo, check, life and explain do: read, call, show, write."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Any

from vivid_anvil.cli.draw import growth_drawings, history_drawings, life_drawings
from vivid_anvil.cli.outputs import Drawing, Outputs, into_csv
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import UnitSystem

NO_SPOT = (
    "no hot spot",
    "at least one",
    "For a node of a finite-element model: vivid-anvil model STUDY --node NUMBER.",
)
DETAILS = 3  # hot spots told in full, where nothing else is asked for


def whole_study(path: Path, outputs: Outputs, units: UnitSystem) -> None:
    """Lives and cracks of a study, all tables, all figures."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.damage import LifeResult
        from vivid_anvil.study import read_study, run_study, worst_first

        study = read_study(path, watch=watch)
        result = run_study(study, watch=watch)
        drawings = [
            *history_drawings(study, units),
            *life_drawings(worst_first(result.lives)[:DETAILS], units),
            *growth_drawings(result.growths, units),
        ]
        written = outputs.write(result.to_dict(), LifeResult.overview(result.lives), drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    _show_lives(out, study, result.lives, units)
    for growth in result.growths:
        out.print(show.page(growth.page(units), units))
    out.print(f"\nStudy file: {path}")
    show.say_written(out, written)


def next_steps(path: Path) -> None:
    """What to try after the demo."""
    from vivid_anvil.cli import show

    show.console().print(
        f"Next: change the study and run  vivid-anvil life {path}\nOr redo a number by hand:  vivid-anvil explain {path}"
    )


def check(path: Path, outputs: Outputs, units: UnitSystem) -> None:
    """The study and what would be computed."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.study import check_study, read_study

        study = read_study(path, watch=watch)
        result = check_study(study)
        written = outputs.write(result.to_dict(), result.tables()[0])
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.page(dataclasses.replace(result.page(units), findings=None), units))
    for name, findings in result.found.items():
        if any(finding.severity != "note" for finding in findings):
            out.print(show.heading(name))
            out.print(show.findings_list(finding for finding in findings if finding.severity != "note"))
    lives, cracks = len(study.assessed), len(study.cracks)
    nodes = "" if study.model is None else f"; and with the command model the lives of {study.model.field.size} nodes"
    found = f"{_several(lives, 'life', 'lives')} and {_several(cracks, 'crack', 'cracks')}{nodes}"
    if study.flaws is not None:
        many, fronts = result.facts()["number of flaws"], len(study.flaws.fronts)
        of_flaws = _several(many, "flaw", "flaws") + (f" and {_several(fronts, 'front', 'fronts')}" if fronts else "")
        found = of_flaws if study.duty_cycle is None else f"{found}; and with the command flaws {of_flaws}"
    severe = sum(finding.severity != "note" for finding in result.findings)
    sound = "The study can be run" if severe else "The study is sound"
    first = f", with {_several(severe, 'finding', 'findings')} to look at first" if severe else ""
    out.print(f"\n{sound}{first}. It would compute {found}.")
    show.say_written(out, written)


def life(path: Path, spot: str | None, outputs: Outputs, units: UnitSystem, details: int = DETAILS) -> None:
    """The lives of a study, the worst `details` of them in full and drawn."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.damage import LifeResult
        from vivid_anvil.study import assess_lives, read_study, worst_first

        study = read_study(path, watch=watch)
        if not study.assessed:
            raise InputError(path.name, "no hot spot with an S-N curve", "at least one", "Give a hot spot an sn_curve.")
        lives = chosen(assess_lives(study, watch=watch), [spot.name for spot in study.assessed], spot)
        record = {"title": study.title, "lives": [life.to_dict() for life in lives]}
        drawings = life_drawings(worst_first(lives)[:details], units)
        table = LifeResult.overview(lives)
        others = [partial(_all_planes, lives)] if outputs.others else []
        written = outputs.write(record, table, drawings, watch, partial(_all_cycles, lives), others)
    from vivid_anvil.cli import show

    out = show.console()
    if spot is None:
        _show_lives(out, study, lives, units, details)
    else:
        title = f"{study.title}: {lives[0].hot_spot.name}"
        out.print(show.page(lives[0].page(units, title=title, in_full=True), units))
    show.say_written(out, written)


def _all_planes(lives: Sequence[Any], path: Path) -> None:
    """Life on every plane, into a file."""
    from vivid_anvil.damage.lives_on_planes import planes_of_all

    into_csv(planes_of_all(lives), path)


def places(path: Path, most: int, outputs: Outputs, units: UnitSystem) -> None:
    """All places of a study, and what moves the lives that are used most."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.study import all_places, read_study, run_study

        found = all_places(run_study(read_study(path, watch=watch), watch=watch), most=most, watch=watch)
        drawings = [Drawing("places", found, units)]
        written = outputs.write({"title": found.title, **found.to_dict()}, found.tables()[0], drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.page(dataclasses.replace(found.page(units), findings=None), units))
    show.say_written(out, written)


@dataclass(frozen=True)
class Asked:
    """What is to be explained, and as what it is printed."""

    spot: str | None = None
    event: str | None = None
    stress: str | None = None
    latex: bool = False
    rule: str | None = None
    ply: int | None = None
    jump: int | None = None

    @property
    def of_a_jump(self) -> bool:
        """Whether one jump of a laminate is asked for."""
        return self.ply is not None or self.jump is not None


def explain(path: Path, asked: Asked, outputs: Outputs, units: UnitSystem) -> None:
    """The hand calculations of one hot spot and its crack."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.damage import assess_life, life_working
        from vivid_anvil.study import StudyResult, assess_lives, grow_cracks, read_study
        from vivid_anvil.writing.plain import finding_records
        from vivid_anvil.writing.table import stacked

        study = read_study(path, watch=watch)
        flaw = flaw_asked(study, asked.spot, watch)
        result = StudyResult(study, assess_lives(study, watch=watch), grow_cracks(study, watch=watch))
        name = flaw.title if flaw is not None else _spot_asked(result, asked.spot, path)
        lives = [life for life in result.lives if life.hot_spot.name == name]
        grown = [growth for growth in result.growths if growth.crack.hot_spot.name == name]
        if asked.rule is not None:
            spots = [_by_rule(life.hot_spot, asked.rule) for life in lives]
            lives = [assess_life(spot, study.duty, target=study.target_life) for spot in spots]
        if asked.of_a_jump:
            _no_cycles(asked, "one jump of a laminate")
            workings = [life.method.jump_working(life, asked.ply, asked.jump, units) for life in lives]
        else:
            workings = [life_working(life, units, event=asked.event, stress=asked.stress) for life in lives]
        workings += [one.working(units) for one in grown]
        if flaw is not None:
            _no_cycles(asked)
            workings = [flaw.working(units)]
        steps = stacked([one.table() for one in workings])
        answers: list[Any] = [*lives, *grown] if flaw is None else [flaw]
        findings = [finding for one in answers for finding in one.findings]
        record = {"hot spot": name, "steps": steps.rows(), "findings": finding_records(findings)}
        written = outputs.write(record, steps)
    from vivid_anvil.cli import show
    from vivid_anvil.writing.latex import working_in_latex

    out = show.console()
    as_text = working_in_latex if asked.latex else str
    out.print("\n\n".join(as_text(working) for working in workings), markup=False, soft_wrap=True)
    if not asked.latex:
        out.print()
        command = "life" if flaw is None else "flaws"
        out.print(show.findings_summary(findings, f"vivid-anvil {command} {path.name}"))
    show.say_written(out, written)


def flaw_asked(study: Any, name: str | None, watch: Any) -> Any:
    """The flaw or front of that name; without a name the most urgent flaw of a study that has nothing else."""
    from vivid_anvil.cli.run_flaws import flaw_or_front
    from vivid_anvil.study import assess_flaws, assess_fronts

    if study.flaws is None or name in [spot.name for spot in study.hot_spots]:
        return None
    if name is not None:
        found = flaw_or_front(study, name, watch)
        if found is None and not study.hot_spots:
            known = [*(one.name for one in study.flaws.indications), *study.flaws.fronts]
            raise InputError("--spot", repr(name), f"one of {listed(known)}", did_you_mean(name, known))
        return found
    if study.hot_spots or study.model is not None:
        return None
    rows = assess_flaws(study, watch=watch).flaws
    return rows[0].assessment if rows else assess_fronts(study)[0]


def _no_cycles(asked: Asked, of: str = "a flaw") -> None:
    """Options that are of cycles and S-N curves are none of a flaw's, nor of one jump."""
    for name, value in (("--event", asked.event), ("--stress", asked.stress), ("--rule", asked.rule)):
        if value is not None:
            raise InputError(name, repr(value), f"no such option for {of}", "It has no cycle classes.")
    for name, number in (("--ply", asked.ply), ("--jump", asked.jump)):
        if number is not None and of == "a flaw":
            raise InputError(name, f"{number}", "no such option for a flaw", "It is of a laminate.")


def _by_rule(spot: Any, rule: str) -> Any:
    """The hot spot with another mean-stress rule."""
    from vivid_anvil.damage import stress_life_of

    return dataclasses.replace(spot, method=dataclasses.replace(stress_life_of(spot), mean_stress=rule))


def _spot_asked(result: Any, spot: str | None, path: Path) -> str:
    """The hot spot that is to be explained: that of the name, else the worst, else the first with a crack."""
    places = [life.hot_spot.name for life in result.lives] + [growth.crack.hot_spot.name for growth in result.growths]
    names = list(dict.fromkeys(places))
    if not names:
        raise InputError(path.name, *NO_SPOT)
    worst = result.worst
    name = spot or (worst.hot_spot.name if worst else names[0])
    if name not in names:
        raise InputError("--spot", repr(name), f"one of {listed(names)}", did_you_mean(name, names))
    return str(name)


def chosen(results: tuple[Any, ...], names: list[str], spot: str | None) -> tuple[Any, ...]:
    """The results of the hot spot of that name; all without a name."""
    if spot is None:
        return results
    if spot not in names:
        raise InputError("--spot", repr(spot), f"one of {listed(names)}", did_you_mean(spot, names))
    return tuple(one for one, name in zip(results, names, strict=True) if name == spot)


def _show_lives(out: Any, study: Any, lives: tuple[Any, ...], units: UnitSystem, details: int = DETAILS) -> None:
    """All lives in a table, the worst of them in full."""
    from vivid_anvil.cli import show
    from vivid_anvil.damage import LifeResult
    from vivid_anvil.study import worst_first
    from vivid_anvil.writing.result import Page

    worst = worst_first(lives)
    tables = (LifeResult.overview(worst),) if lives else ()
    out.print(show.page(Page(study.title, study.words, tables), units))
    for one in worst[:details]:
        out.print(show.page(one.page(units), units))
    if len(lives) > details:
        left = _several(len(lives) - details, "hot spot is", "hot spots are")
        out.print(f"\n{left} not told in full: --details {len(lives)} tells all, --spot NAME one.")


def _all_cycles(lives: Sequence[Any]) -> Any:
    """Every counted cycle of every hot spot with its damage, as one data frame."""
    import pandas as pd

    frames = [
        life.to_frame().assign(**{"hot spot": life.hot_spot.name, "equivalent in": life.stress_in_words})
        for life in lives
    ]
    return pd.concat(frames, ignore_index=True)


def _several(amount: int, one: str, many: str) -> str:
    return f"{amount} {one if amount == 1 else many}"
