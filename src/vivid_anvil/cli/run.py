"""What each command does: read, call, show, write."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.latex import working_in_latex
from vivid_anvil.writing.plain import finding_records

NO_SPOT = (
    "no hot spot",
    "at least one",
    "For a node of a finite-element model: vivid-anvil model STUDY --node NUMBER.",
)


def whole_study(path: Path, outputs: Outputs, units: UnitSystem) -> None:
    """Lives and cracks of a study, all tables, all figures."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.study import read_study, run_study

        study = read_study(path, watch=watch)
        result = run_study(study, watch=watch)
        drawings = [
            *_history_drawings(study, units),
            *_life_drawings(_worst_first(result.lives)[:DETAILS], units),
            *growth_drawings(result.growths, units),
        ]
        written = outputs.write(result.to_dict(), [_life_row(life) for life in result.lives], drawings, watch)
    from vivid_anvil.cli import crack_tables, tables

    out = tables.console()
    _show_lives(out, study, result.lives, units)
    for growth in result.growths:
        out.print(crack_tables.growth_details(growth, units))
    out.print(f"\nStudy file: {path}")
    say_written(out, written)


def next_steps(path: Path) -> None:
    """What to try after the demo."""
    from vivid_anvil.cli import tables

    tables.console().print(
        f"Next: change the study and run  vivid-anvil life {path}\nOr redo a number by hand:  vivid-anvil explain {path}"
    )


def check(path: Path, outputs: Outputs, units: UnitSystem) -> None:
    """The study and what would be computed."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.study import read_study

        study = read_study(path, watch=watch)
    from vivid_anvil.cli import tables

    rows = [
        {"kind": "life", "place": spot.name, "with": f"S-N curve {spot.curve.name}, mean stress {spot.mean_stress}"}
        for spot in study.assessed
        if spot.curve is not None
    ] + [
        {"kind": "crack", "place": crack.hot_spot.name, "with": f"{crack.shape.kind} crack, {crack.law.name}"}
        for crack in study.cracks
    ]
    job = study.model
    if job is not None:
        rows.append(
            {
                "kind": "model",
                "place": f"{job.field.size} nodes",
                "with": f"{job.field.source}, {job.planes or job.measure.label}",
            }
        )
    from vivid_anvil.damage import findings_before_counting

    found_here = {one.name: findings_before_counting(one, study.duty_cycle) for one in study.assessed}
    every = [finding for one in found_here.values() for finding in one]
    written = outputs.write({"title": study.title, "would_compute": rows, "findings": finding_records(every)}, rows)
    out = tables.console()
    out.print(tables.heading(study.title))
    out.print(tables.study_lines(study))
    out.print(tables.duty_cycle_table(study.duty_cycle, units))
    if study.hot_spots:
        out.print(tables.hot_spots_table(study))
    if study.curves:
        out.print(tables.curves_table(study, units))
    if study.cracks:
        out.print(tables.cracks_table(study, units))
    for name, findings in found_here.items():
        if any(one.severity != "note" for one in findings):
            out.print(tables.heading(name))
            out.print(tables.findings_list(one for one in findings if one.severity != "note"))
    lives, cracks = len(study.assessed), len(study.cracks)
    nodes = "" if job is None else f"; and with the command model the lives of {job.field.size} nodes"
    found = f"{_several(lives, 'life', 'lives')} and {_several(cracks, 'crack', 'cracks')}{nodes}"
    severe = sum(one.severity != "note" for one in every)
    sound = "The study can be run" if severe else "The study is sound"
    first = f", with {_several(severe, 'finding', 'findings')} to look at first" if severe else ""
    out.print(f"\n{sound}{first}. It would compute {found}.")
    say_written(out, written)


DETAILS = 3  # hot spots told in full, where nothing else is asked for


def life(path: Path, spot: str | None, outputs: Outputs, units: UnitSystem, details: int = DETAILS) -> None:
    """The lives of a study, the worst `details` of them in full and drawn."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.study import assess_lives, read_study

        study = read_study(path, watch=watch)
        if not study.assessed:
            raise InputError(path.name, "no hot spot with an S-N curve", "at least one", "Give a hot spot an sn_curve.")
        lives = chosen(assess_lives(study, watch=watch), [one.name for one in study.assessed], spot)
        record = {"title": study.title, "lives": [one.to_dict() for one in lives]}
        rows = [_life_row(one) for one in lives]
        drawings = _life_drawings(_worst_first(lives)[:details], units)
        written = outputs.write(record, rows, drawings, watch, partial(_all_cycles, lives))
    from vivid_anvil.cli import tables

    out = tables.console()
    if spot is None:
        _show_lives(out, study, lives, units, details)
    else:
        out.print(tables.life_details(lives[0], units, f"{study.title}: {lives[0].hot_spot.name}"))
        if lives[0].damage_per_repeat > 0.0:
            out.print(tables.worst_table(lives[0], units))
    say_written(out, written)


@dataclass(frozen=True)
class Asked:
    """What is to be explained, and as what it is printed."""

    spot: str | None = None
    event: str | None = None
    stress: str | None = None
    latex: bool = False
    rule: str | None = None


def explain(path: Path, asked: Asked, outputs: Outputs, units: UnitSystem) -> None:
    """The hand calculations of one hot spot and its crack."""
    spot = asked.spot
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.damage import assess_life, life_working
        from vivid_anvil.growth import growth_working
        from vivid_anvil.study import StudyResult, assess_lives, grow_cracks, read_study

        study = read_study(path, watch=watch)
        result = StudyResult(study, assess_lives(study, watch=watch), grow_cracks(study, watch=watch))
    names = list(
        dict.fromkeys(
            [*(one.hot_spot.name for one in result.lives), *(one.crack.hot_spot.name for one in result.growths)]
        )
    )
    if not names:
        raise InputError(path.name, *NO_SPOT)
    worst = result.worst
    name = spot or (worst.hot_spot.name if worst else names[0] if names else "")
    if name not in names:
        raise InputError("--spot", repr(name), f"one of {listed(names)}", did_you_mean(name, names))
    lives = [one for one in result.lives if one.hot_spot.name == name]
    if asked.rule is not None:
        spots = [dataclasses.replace(one.hot_spot, mean_stress=asked.rule) for one in lives]
        lives = [assess_life(one, study.duty_cycle, target=study.target_life) for one in spots]
    workings = [life_working(one, units, event=asked.event, stress=asked.stress) for one in lives]
    workings += [growth_working(one, units) for one in result.growths if one.crack.hot_spot.name == name]
    rows = [
        {
            "working": working.title,
            "step": i,
            "what": step.title,
            "formula": step.formula,
            "numbers": step.numbers,
            "value": step.value,
            "unit": step.unit,
            "source": step.source,
        }
        for working in workings
        for i, step in enumerate(working.steps, start=1)
    ]
    grown: list[Any] = [one for one in result.growths if one.crack.hot_spot.name == name]
    answers: list[Any] = [*lives, *grown]
    findings = [finding for one in answers for finding in one.findings]
    written = outputs.write({"hot_spot": name, "steps": rows, "findings": finding_records(findings)}, rows)
    from vivid_anvil.cli import tables

    out = tables.console()
    as_text = working_in_latex if asked.latex else str
    out.print("\n\n".join(as_text(working) for working in workings), markup=False, soft_wrap=True)
    if not asked.latex:
        out.print()
        out.print(tables.findings_summary(findings, f"vivid-anvil life {path.name}"))
    say_written(out, written)


def chosen(results: tuple[Any, ...], names: list[str], spot: str | None) -> tuple[Any, ...]:
    """The results of the hot spot of that name; all without a name."""
    if spot is None:
        return results
    if spot not in names:
        raise InputError("--spot", repr(spot), f"one of {listed(names)}", did_you_mean(spot, names))
    return tuple(one for one, name in zip(results, names, strict=True) if name == spot)


def _worst_first(lives: Sequence[Any]) -> list[Any]:
    from vivid_anvil.cli import tables

    return tables.worst_first(lives)


def _show_lives(out: Any, study: Any, lives: tuple[Any, ...], units: UnitSystem, details: int = DETAILS) -> None:
    """All lives in a table, the worst of them in full."""
    from vivid_anvil.cli import tables

    out.print(tables.heading(study.title))
    out.print(tables.study_lines(study))
    if lives:
        out.print(tables.lives_table(lives, units))
    for one in _worst_first(lives)[:details]:
        out.print(tables.life_details(one, units))
    if len(lives) > details:
        left = _several(len(lives) - details, "hot spot is", "hot spots are")
        out.print(f"\n{left} not told in full: --details {len(lives)} tells all, --spot NAME one.")


def _life_row(life: Any) -> dict[str, Any]:
    """The scalars of a life result: one line of the CSV file."""
    return {key: value for key, value in life.to_dict().items() if not isinstance(value, dict | list)}


def _all_cycles(lives: Sequence[Any]) -> Any:
    """Every counted cycle of every hot spot with its damage, as one data frame."""
    import pandas as pd

    frames = [one.to_frame().assign(**{"hot spot": one.hot_spot.name, "curve in": one.curve.stress}) for one in lives]
    alike = [
        frame.rename(columns=lambda name: "equivalent stress [MPa]" if name.startswith("equivalent") else name)
        for frame in frames
    ]
    return pd.concat(alike, ignore_index=True)


def _history_drawings(study: Any, units: UnitSystem) -> list[Drawing]:
    drawings: list[Drawing] = []
    for i, (event, _) in enumerate(study.duty_cycle.flat()):
        if event.load.measured is not None:
            drawings.append((f"history {event.name}", partial(draw, event.load, units)))
            for channel in dict.fromkeys(spot.channel for spot in study.hot_spots):
                cycles = study.duty_cycle.sources(channel)[i].cycles
                drawings.append((f"cycles {event.name} {channel}", partial(draw, cycles, units)))
    return drawings


def _life_drawings(lives: Sequence[Any], units: UnitSystem) -> list[Drawing]:
    """Each life, and when its damage happens in the history that does most of it, where one does."""
    drawings: list[Drawing] = []
    for one in lives:
        drawings.append((f"life {one.hot_spot.name}", partial(draw, one, units)))
        if (event := _worst_history(one)) is not None:
            drawings.append((f"damage over time {one.hot_spot.name}", partial(_draw_over_time, one, event, units)))
    return drawings


def _worst_history(life: Any) -> str | None:
    """The event with a history in time that does most damage; None where none does any."""
    timed = {one.name for one in life.spectrum.sources if one.history is not None and one.history.steps == "even"}
    doing = [one for one in life.events if one.name in timed and one.damage > 0.0]
    return max(doing, key=lambda one: one.damage).name if doing else None


def _draw_over_time(life: Any, event: str, units: UnitSystem) -> Any:
    return draw(life.damage_over_time(event), units)


def growth_drawings(growths: Sequence[Any], units: UnitSystem) -> list[Drawing]:
    """For each crack: its growth, the law with what the cycles visit, K along its way."""
    drawings: list[Drawing] = []
    for one in growths:
        name = one.crack.hot_spot.name
        drawings.append((f"crack {name}", partial(draw, one, units)))
        if one.sizes.size > 1:
            drawings.append((f"crack law {name}", partial(_draw_made, "visited_law", one, units)))
            drawings.append((f"crack course {name}", partial(_draw_made, "crack_course", one, units)))
    return drawings


def _draw_made(maker: str, growth: Any, units: UnitSystem) -> Any:
    from vivid_anvil import growth as made_of

    return draw(getattr(made_of, maker)(growth), units)


def draw(thing: Any, units: UnitSystem) -> Any:
    """The figure; matplotlib is loaded only when one is drawn."""
    from vivid_anvil.figures import plot

    return plot(thing, units=units)


def say_written(out: Any, written: list[Path]) -> None:
    """Name the files that were written."""
    for path in written:
        out.print(f"Written: {path}", soft_wrap=True)


def _several(amount: int, one: str, many: str) -> str:
    return f"{amount} {one if amount == 1 else many}"
