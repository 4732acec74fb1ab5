"""What the command solve does: what would just meet the target, and which test does the damage of the service."""

from __future__ import annotations

import math
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.cli.run import say_written
from vivid_anvil.events.calendar import plural
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import UnitSystem, coherent, in_unit, number
from vivid_anvil.writing.plain import finding_records

# What a needed class has in common with the present one.
_AS_NOW = (
    "loading",
    "component",
    "thickness",
    "attachment_length",
    "thickness_exponent",
    "environment",
    "partial_factor",
)


@dataclass(frozen=True)
class Questions:
    """What is asked beside load factor, repeats and class."""

    key: str | None = None
    between: str | None = None
    standard: str | None = None
    test_cycles: float | None = None
    test_stress: str | None = None
    leave_out: tuple[str, ...] = ()


def solve(path: Path, spot: str | None, asked: Questions, outputs: Outputs, units: UnitSystem) -> None:
    """The answers for one hot spot, the worst by default."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.study import lives_of_places, place_names, read_study

        study = read_study(path, watch=watch)
        names = place_names(study)
        if not names:
            raise InputError(path.name, "no hot spot with an S-N curve, and no model", "at least one")
        if spot is not None and spot not in names:
            raise InputError("--spot", repr(spot), f"one of {listed(names)}", did_you_mean(spot, names))
        lives = lives_of_places(study, spot, watch=watch)
        place = min(lives, key=lambda name: lives[name].life_repeats)
        life = lives[place]
        if study.target_life is None:
            raise InputError(path.name, "no target_life", "a target, such as target_life = '30 years'", "Add it.")
        watch("solving", 0, 1)
        rows = [*_of_the_target(study, place, life, asked, units), *_tests(life, asked, units)]
        watch("solving", 1, 1)
        record = {
            "title": study.title,
            "hot_spot": place,
            "place": life.hot_spot.name,
            "answers": rows,
            "findings": finding_records(life.findings),
        }
        written = outputs.write(record, rows)
    from vivid_anvil.cli import tables

    out = tables.console()
    out.print(tables.heading(f"{life.hot_spot.name}: to meet {study.target_life}"))
    out.print(tables.answers_table(rows))
    out.print(tables.findings_summary(life.findings, f"vivid-anvil life {path.name}"))
    say_written(out, written)


def _of_the_target(study: Any, place: str, life: Any, asked: Questions, units: UnitSystem) -> list[dict[str, Any]]:
    from vivid_anvil.damage import class_needed

    repeat = life.duty_cycle.repeat
    rows = [
        _row("all loads times", life.reserve_on_stress),
        _row(f"{plural(repeat).capitalize()} until the critical sum", life.life_repeats, repeat),
        _level_row(
            "constant stress {} that does the same in 2e6 cycles", life, life.damage_equivalent_stress(2e6), units
        ),
    ]
    reserve = life.reserve_on_stress
    if reserve is not None:
        rows[0]["shown"] += _beyond(life, reserve * max(life.peak_stress, -life.lowest_stress), units)
    like = _section_of(study, life.hot_spot.curve.name)
    standard = asked.standard or like.get("standard")
    if standard is not None:
        found = class_needed(life, standard, **{key: like[key] for key in _AS_NOW if key in like})
        rows.append(_row(f"class of {standard} needed", "none is enough" if found is None else float(found)))
    if asked.key is not None:
        rows.append(_solved(study, place, asked))
    return rows


def _section_of(study: Any, curve: str) -> dict[str, Any]:
    """The section of the study that the curve is made of, where it is a class of a shipped standard; else empty."""
    section = dict(study.data.get("sn_curves", {}).get(curve, {}))
    return section if "standard" in section and "standard_file" not in section else {}


def _solved(study: Any, spot: str, asked: Questions) -> dict[str, Any]:
    from vivid_anvil.study import value_that_meets_target

    low, dots, high = (asked.between or "").partition("..")
    if not dots:
        raise InputError("--between", repr(asked.between), "two values, such as 1.2..2.6 or '300..900 MPa'")
    high, _, unit = high.strip().partition(" ")
    try:
        ends = float(low), float(high)
    except ValueError:
        raise InputError("--between", repr(asked.between), "two numbers and at most one unit") from None
    value = value_that_meets_target(study, str(asked.key), *ends, unit, spot=spot)
    return {"question": str(asked.key), "answer": value, "unit": unit, "shown": f"{number(value, 5)} {unit}".rstrip()}


def _tests(life: Any, asked: Questions, units: UnitSystem) -> list[dict[str, Any]]:
    from vivid_anvil.damage import accelerated_test, cycles_of_test

    what = f"{life.curve.stress} at {life.curve.at_r}"
    rows = []
    if asked.test_cycles is not None:
        level = life.damage_equivalent_stress(asked.test_cycles)
        rows.append(_level_row(f"test of {number(asked.test_cycles)} cycles: stress {{}}", life, level, units))
    if asked.test_stress is not None:
        level = coherent(asked.test_stress, "stress", "--test-stress")
        found = cycles_of_test(life, level)
        row = _row(f"test at a stress {what} of {in_unit(level, 'stress', units)}: cycles", found, "cycle")
        row["shown"] = (row["shown"] if math.isfinite(found) else "none is enough: no damage there") + _beyond(
            life, _peak_of(life, level), units
        )
        rows.append(row)
    if asked.leave_out:
        limits = [coherent(one, "stress", "--leave-out") for one in asked.leave_out]
        for row in accelerated_test(life, limits).rows():
            below = in_unit(row["omitted below [MPa]"], "stress", units)
            kept = (
                f"{row['share of damage kept']:.1%} of the damage, {number(row['cycles per repeat kept'])} cycles each"
            )
            rows.append(_row(f"test without ranges below {below}: repeats ({kept})", row["repeats"], "repeat"))
    return rows


def _level_row(question: str, life: Any, level: float, units: UnitSystem) -> dict[str, Any]:
    """A stress of constant cycles in the curve's terms: range or amplitude, at which R, and whether a part can bear its peak."""
    row = _row(question.format(f"{life.curve.stress} at {life.curve.at_r}"), level, "MPa", units)
    if level == 0.0:
        row["shown"] = (
            f"any below {in_unit(life.curve.limit, 'stress', units)}" if life.curve.limit > 0.0 else "none: no damage"
        )
    row["shown"] += _beyond(life, _peak_of(life, level), units)
    return row


def _peak_of(life: Any, level: float) -> float:
    """Largest stress, MPa, of cycles of that range or amplitude at the R of the curve; half the range where R is open."""
    swing = level if life.curve.stress == "range" else 2.0 * level
    r_ratio = life.curve.r_ratio
    if isinstance(r_ratio, str) or not r_ratio < 1.0:
        return 0.5 * swing
    return float(swing / (1.0 - r_ratio))


def _beyond(life: Any, peak: float, units: UnitSystem) -> str:
    """What an expert says where a peak stress, MPa, is above a strength; else nothing."""
    material = life.hot_spot.material
    for name, strength in (("ultimate", material.ultimate_strength), ("yield", material.yield_strength)):
        if strength is not None and peak > strength:
            high, limit = in_unit(peak, "stress", units), in_unit(strength, "stress", units)
            return f"; its peak of {high} is above the {name} strength, {limit}"
    return ""


def _row(question: str, answer: float | str | None, unit: str = "", units: UnitSystem = "metric") -> dict[str, Any]:
    from vivid_anvil.writing.plain import plain

    if isinstance(answer, str) or answer is None:
        text = answer or "-"
    else:
        text = in_unit(answer, "stress", units) if unit == "MPa" else number(answer)
    return {"question": question, "answer": plain(answer), "unit": unit, "shown": text}
