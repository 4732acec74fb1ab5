"""The checks of an S-N curve, in one place: what is refused, with the row, the value and what was perhaps meant."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, field_of, inside, listed
from vivid_anvil.materials.curves.given import CurveGiven
from vivid_anvil.units import coherent, number

BASES = ("tests", "typical", "standard", "estimate", "not stated")
INTERPOLATIONS = {
    "log-log": "straight lines in log S, log N",
    "semi-log": "straight lines in S, log N",
    "linear": "straight lines in S, N",
}
ABOVE_ENDS = {"extend": "the first line goes on", "hold": "the first life holds for all higher stresses"}
BELOW_ENDS = {
    "extend": "the last line goes on",
    "hold": "the last life holds for all lower stresses",
    "no damage": "lower stresses do no damage",
}


def check_curve(curve: CurveGiven) -> dict[str, Any]:
    """InputError for what cannot be meant; the fields that are put into their final form."""
    where = f"S-N curve {curve.name}"
    checks.text(field_of("SNCurve", "name"), curve.name)
    checks.one_of(inside(where, "stress"), curve.stress, ("range", "amplitude"))
    checks.one_of(inside(where, "component"), curve.component, ("normal", "shear"))
    checks.one_of(inside(where, "basis"), curve.basis, BASES)
    checks.one_of(inside(where, "interpolation"), curve.interpolation, tuple(INTERPOLATIONS))
    _check_r(curve, where)
    points = checked_points(curve.points, where)
    _check_tested(curve, where)
    return {
        "points": points,
        "above": _checked_end(curve, "above", points, where),
        "below": _checked_end(curve, "below", points, where),
        "steps": tuple(curve.steps),
        "remarks": tuple(curve.remarks),
    }


def check_slope(where: str, slope: Any, *, or_inf: bool = False) -> float:
    """A slope m of 1 or more; InputError that knows the exponent b that may have been meant."""
    value = checks.real_number(where, slope, "a slope m of 1 or more (N S^m = constant)")
    expected = "a slope m of 1 or more (N S^m = constant)"
    if value < 0.0:
        hint = f"If {value:g} is the exponent b of S = S_f' (2N)^b, the slope is {number(-1.0 / value)}."
        raise InputError(where, f"{value:g}", expected, hint)
    if 0.0 < value < 1.0:
        hint = f"If {value:g} is an exponent b without its sign, the slope is {number(1.0 / value)}."
        raise InputError(where, f"{value:g}", expected, hint)
    if not value >= 1.0 or (math.isinf(value) and not or_inf):
        raise InputError(where, f"{value:g}", expected)
    return value


def check_life(where: str, life: Any) -> float:
    """A finite life of at least one cycle."""
    value = checks.real_number(where, life, "a life in cycles")
    if not 1.0 <= value < math.inf:
        raise InputError(
            where, f"{value:g} cycles", "a finite life of at least 1 cycle", "Is it the logarithm of the life?"
        )
    return value


def check_share(where: str, value: Any) -> float:
    """A probability between 0 and 1; InputError that knows percent."""
    share = checks.real_number(where, value, "a share between 0 and 1, such as 0.977")
    if not 0.0 < share < 1.0:
        percent = f"Write {share:g} % as {share / 100:g}." if 1.0 < share < 100.0 else ""
        raise InputError(where, f"{share:g}", "a share between 0 and 1, such as 0.977", percent)
    return share


def _check_r(curve: CurveGiven, where: str) -> None:
    ratio, mean = curve.r_ratio, curve.mean_stress
    if (isinstance(ratio, str) and ratio == "fixed mean") != (mean is not None):
        found = "r_ratio 'fixed mean' without mean_stress" if mean is None else f"mean_stress with r_ratio {ratio!r}"
        raise InputError(inside(where, "r_ratio"), found, "both, for tests at one mean stress; or neither")
    if isinstance(ratio, str) and ratio in ("any", "fixed mean"):
        return
    if not checks.real_number(inside(where, "r_ratio"), ratio, "R, 'any' or 'fixed mean'") < 1.0:
        raise InputError(inside(where, "r_ratio"), f"{ratio:g}", "minimum / maximum below 1, or 'any'")
    if math.isinf(float(ratio)):
        raise InputError(inside(where, "r_ratio"), f"{ratio:g}", "a finite minimum / maximum")


def _check_tested(curve: CurveGiven, where: str) -> None:
    if not 0.0 < curve.tested_from < curve.tested_to:
        raise InputError(
            inside(where, "tested lives"), f"{curve.tested_from:g} to {curve.tested_to:g} cycles", "a range that rises"
        )
    if curve.survival_probability is not None:
        check_share(inside(where, "survival_probability"), curve.survival_probability)
    spread = curve.log_life_std
    if spread is not None and not 0.0 < checks.real_number(inside(where, "log_life_std"), spread) < 3.0:
        raise InputError(
            inside(where, "log_life_std"),
            f"{spread:g}",
            "a standard deviation of log10 N, usually 0.1 to 0.5",
            "Is it that of the natural logarithm, or of the life itself?",
        )


def checked_points(points: Sequence[Sequence[Any]], where: str) -> tuple[tuple[float, float], ...]:
    """Stress falling, life rising; InputError with the row (from 1) otherwise."""
    found: list[tuple[float, float]] = []
    if isinstance(points, str) or not len(points):
        raise InputError(inside(where, "points"), repr(points), "pairs of stress and life")
    for row, point in enumerate(points, start=1):
        here = inside(where, f"point {row}")
        if isinstance(point, str) or not hasattr(point, "__len__") or len(point) != 2:
            raise InputError(here, repr(point), "a pair of stress and life")
        stress, life = coherent(point[0], "stress", here), check_life(f"{here}, life", point[1])
        if not 0.0 < stress < math.inf:
            raise InputError(here, f"{stress:g} MPa", "a stress above 0 MPa")
        found.append((stress, life))
    for row in range(1, len(found)):
        _check_order(found[row - 1], found[row], inside(where, f"points {row} and {row + 1}"))
    return tuple(found)


def _check_order(before: tuple[float, float], after: tuple[float, float], where: str) -> None:
    pair = f"{number(before[0])} MPa at {number(before[1])} cycles, then {number(after[0])} MPa at {number(after[1])} cycles"
    expected = "stress that falls and life that rises from row to row"
    if after == before:
        raise InputError(where, f"the same point twice ({pair})", expected, "Cut one of them out.")
    if after[0] == before[0]:
        hint = "A level part is a fatigue limit: end the table at its first point with below = 'no damage'."
        raise InputError(where, f"one stress with two lives ({pair})", expected, hint)
    if after[0] > before[0] and after[1] < before[1]:
        raise InputError(where, f"rows from low stress to high ({pair})", expected, "Put them in order of life.")
    if not (after[0] < before[0] and after[1] > before[1]):
        raise InputError(where, f"a life that rises with stress ({pair})", expected, "Check the two rows.")


def _checked_end(curve: CurveGiven, end: str, points: tuple[tuple[float, float], ...], where: str) -> float | str:
    """The choice beyond an end: a word, or a slope that fits the one before it."""
    choice = getattr(curve, end)
    words = ABOVE_ENDS if end == "above" else BELOW_ENDS
    if isinstance(choice, str):
        checks.one_of(inside(where, f"{end}"), choice, tuple(words))
        if choice == "extend" and len(points) == 1:
            raise InputError(
                inside(where, f"{end}"), "'extend' with one point", "a slope m, or two points", "One point has no line."
            )
        if choice == "extend" and curve.interpolation == "linear":
            raise InputError(
                inside(where, f"{end}"),
                "'extend' of a linear curve",
                "'hold'" + (" or 'no damage'" if end == "below" else ""),
                "Straight in S and N it would soon reach a life or a stress of 0.",
            )
        return choice
    slope = check_slope(inside(where, f"{'slope' if end == 'above' else 'slope_below'}"), choice, or_inf=end == "below")
    if math.isinf(slope):
        return "no damage"
    if curve.interpolation != "log-log":
        raise InputError(
            inside(where, f"{end}"), f"the slope {slope:g}", f"one of {listed(words)}", "A slope is log-log."
        )
    _check_flatter(curve, end, slope, points, where)
    return slope


def _check_flatter(
    curve: CurveGiven, end: str, slope: float, points: tuple[tuple[float, float], ...], where: str
) -> None:
    """A curve gets flatter with life: the slope below is at least the one above."""
    if end != "below":
        return
    above = curve.above
    if len(points) > 1:
        (high, short), (low, long) = points[-2:]
        above = math.log(long / short) / math.log(high / low)
    if isinstance(above, float | int) and slope < above * (1.0 - 1e-9):
        raise InputError(
            inside(where, "slope_below"),
            f"{slope:g}",
            f"at least the slope above the knee, {number(float(above))}",
            "Below the knee the curve gets flatter: a larger m. For no damage there, write inf.",
        )
