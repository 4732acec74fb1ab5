"""The ways to write an S-N curve down: a point and a slope, knees, intercepts, Basquin's coefficient, a table of points.

Each gives the same noun, `SNCurve`. Sources: Basquin, O. H. (1910), Proc. ASTM 10, 625-630, N S^m = A.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from typing import Literal, TypedDict, Unpack

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.curves.checks import check_life, check_slope
from vivid_anvil.materials.curves.curve import NO_DAMAGE, Below, RRatio, SNCurve, StressKind
from vivid_anvil.units import DIMENSIONS, coherent, factor, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step, put_in

COUNTED_IN = {"cycles": 1.0, "reversals": 2.0}


class Common(TypedDict, total=False):
    """What every form may state besides its numbers; see `SNCurve`."""

    mean_stress: float | str | None
    tested_from: float
    tested_to: float
    survival_probability: float | None
    log_life_std: float | None
    component: Literal["normal", "shear"]
    basis: str
    source: str
    steps: tuple[Step, ...]
    remarks: tuple[Finding, ...]


@opened()
def straight_curve(
    *,
    name: str,
    stress: StressKind,
    r_ratio: RRatio,
    point_stress: float | str,
    point_life: float,
    slope: float,
    **common: Unpack[Common],
) -> SNCurve:
    """A curve of one slope through a point (stress in MPa or as text, life in cycles).

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    stress : StressKind
        Whether the stress is a "range" or an "amplitude".
    r_ratio : RRatio
        Ratio of the smallest to the largest stress, R, -.
    point_stress : float or str
        Stress of a point on the curve, MPa.
    point_life : float
        Cycles at that point.
    slope : float
        Slope m, -.
    **common : any
        More fields of `SNCurve`, such as `source` or `log_life_std`.

    Returns
    -------
    SNCurve
        The curve.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> line = straight_curve(
    ...     name="line", stress="range", r_ratio="any", point_stress=90.0, point_life=2e6, slope=3
    ... )
    >>> float(line.life(150.0))
    432000.0
    """
    return knee_curve(
        name=name,
        stress=stress,
        r_ratio=r_ratio,
        knee_stress=point_stress,
        knee_life=point_life,
        slope=slope,
        slope_below=slope,
        **common,
    )


@opened()
def knee_curve(
    *,
    name: str,
    stress: StressKind,
    r_ratio: RRatio,
    knee_stress: float | str,
    knee_life: float,
    slope: float,
    slope_below: float,
    **common: Unpack[Common],
) -> SNCurve:
    """A curve of two slopes that meet at the knee; `slope_below` = inf is a fatigue limit.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    stress : StressKind
        Whether the stress is a "range" or an "amplitude".
    r_ratio : RRatio
        Ratio of the smallest to the largest stress, R, -.
    knee_stress : float or str
        Stress at the knee, MPa.
    knee_life : float
        Cycles at the knee.
    slope : float
        Slope m, -.
    slope_below : float
        Slope below the knee, -; inf: no damage there.
    **common : any
        More fields of `SNCurve`, such as `source` or `log_life_std`.

    Returns
    -------
    SNCurve
        The curve.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> knee_curve(
    ...     name="toe", stress="range", r_ratio="any", knee_stress="52 MPa", knee_life=1e7, slope=3, slope_below=5
    ... )
    <SNCurve toe: stress range, any R, m = 3 to 52 MPa at 1e7 cycles, m = 5 below>
    """
    return sloped_curve(
        name=name,
        stress=stress,
        r_ratio=r_ratio,
        knee_stress=knee_stress,
        knee_lives=[knee_life],
        slopes=[slope, slope_below],
        **common,
    )


@opened()
def sloped_curve(
    *,
    name: str,
    stress: StressKind,
    r_ratio: RRatio,
    knee_stress: float | str,
    knee_lives: Sequence[float],
    slopes: Sequence[float],
    **common: Unpack[Common],
) -> SNCurve:
    """A curve with several knees: the stress at the first, the lives of all, and one slope more than knees.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    stress : StressKind
        Whether the stress is a "range" or an "amplitude".
    r_ratio : RRatio
        Ratio of the smallest to the largest stress, R, -.
    knee_stress : float or str
        Stress at the knee, MPa.
    knee_lives : sequence of float
        Cycles at each knee.
    slopes : sequence of float
        Slope m of each line, -.
    **common : any
        More fields of `SNCurve`, such as `source` or `log_life_std`.

    Returns
    -------
    SNCurve
        The curve.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> curve = sloped_curve(
    ...     name="detail", stress="range", r_ratio="any", knee_stress="59 MPa", knee_lives=[5e6, 1e8], slopes=[3, 5, math.inf]
    ... )
    >>> print(curve.shape)
    m = 3 to 59 MPa at 5e6 cycles, m = 5 to 32.41 MPa at 1e8 cycles, no damage below
    """
    where = f"S-N curve {name}"
    if not len(knee_lives) or len(slopes) != len(knee_lives) + 1:
        raise InputError(
            inside(where, "slopes"), f"{len(slopes)} slopes with {len(knee_lives)} knees", "one slope more than knees"
        )
    first = coherent(knee_stress, "stress", inside(where, "knee_stress"))
    if not 0.0 < first < math.inf:
        raise InputError(inside(where, "knee_stress"), f"{first:g} MPa", "a stress above 0 MPa")
    key = "slopes" if len(slopes) > 2 else "slope"
    inner = [check_slope(inside(where, f"{key}"), slope) for slope in slopes[:-1]]
    lives = [
        check_life(inside(where, f"{'knee_life' if len(knee_lives) == 1 else 'knee_lives'}"), life)
        for life in knee_lives
    ]
    if any(later <= earlier for earlier, later in itertools.pairwise(lives)):
        raise InputError(
            inside(where, "knee_lives"), ", ".join(map(number, lives)), "lives that rise from knee to knee"
        )
    if any(later < earlier for earlier, later in itertools.pairwise(inner)):
        raise InputError(
            inside(where, "slopes"), ", ".join(map(number, inner)), "slopes that get no smaller: a flatter curve"
        )
    points = [(first, lives[0])]
    for slope, life in zip(inner[1:], lives[1:], strict=True):
        stress_before, life_before = points[-1]
        points.append((stress_before * (life_before / life) ** (1.0 / slope), life))
    last = check_slope(inside(where, "slope_below"), slopes[-1], or_inf=True)
    return SNCurve(
        name=name,
        stress=stress,
        r_ratio=r_ratio,
        points=tuple(points),
        above=inner[0],
        below=NO_DAMAGE if math.isinf(last) else last,
        **common,
    )


@opened()
def intercept_curve(
    *,
    name: str,
    stress: StressKind,
    r_ratio: RRatio,
    log_a: Sequence[float],
    slopes: Sequence[float],
    unit: str,
    ends_at: float | None = None,
    **common: Unpack[Common],
) -> SNCurve:
    """A curve of lines log10 N = log A - m log10 S, S in `unit`, which meet at its knees; no damage from `ends_at` cycles.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    stress : StressKind
        Whether the stress is a "range" or an "amplitude".
    r_ratio : RRatio
        Ratio of the smallest to the largest stress, R, -.
    log_a : sequence of float
        log10 of a in N = a / S^m, of each line.
    slopes : sequence of float
        Slope m of each line, -.
    unit : str
        Unit of the stress in `log_a`.
    ends_at : float, optional
        Cycles beyond which there is no damage.
    **common : any
        More fields of `SNCurve`, such as `source` or `log_life_std`.

    Returns
    -------
    SNCurve
        The curve.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> curve = intercept_curve(
    ...     name="in air", stress="range", r_ratio="any", log_a=[12.0, 16.0], slopes=[3, 5], unit="MPa"
    ... )
    >>> print(curve.shape)
    m = 3 to 100 MPa at 1e6 cycles, m = 5 below
    """
    where = f"S-N curve {name}"
    if not len(log_a) or len(log_a) != len(slopes):
        raise InputError(
            inside(where, "log_a"), f"{len(log_a)} intercepts with {len(slopes)} slopes", "one for each slope"
        )
    lines = []
    for i, (intercept, slope) in enumerate(zip(log_a, slopes, strict=True), start=1):
        value = checks.real_number(inside(where, f"log_a, number {i}"), intercept, "log10 of A")
        if not -100.0 < value < 200.0:
            raise InputError(
                inside(where, f"log_a, number {i}"),
                f"{value:g}",
                "log10 of A in N S^m = A",
                "Is it A itself? Take log10.",
            )
        lines.append((value, check_slope(inside(where, f"slopes, number {i}"), slope)))
    one = factor(unit, DIMENSIONS["stress"], inside(where, "unit"))
    points = [_meeting(before, after, i, one, where) for i, (before, after) in enumerate(itertools.pairwise(lines), 1)]
    log_last, slope_last = lines[-1]
    below: Below = slope_last
    if ends_at is not None:
        life = check_life(inside(where, "ends_at"), ends_at)
        points.append((one * 10.0 ** ((log_last - math.log10(life)) / slope_last), life))
        below = NO_DAMAGE
    if not points:  # one line without an end: any point of it
        points = [(one * 10.0 ** ((log_last - 6.0) / slope_last), 1e6)]
    return SNCurve(
        name=name, stress=stress, r_ratio=r_ratio, points=tuple(points), above=lines[0][1], below=below, **common
    )


def _meeting(
    before: tuple[float, float], after: tuple[float, float], i: int, one: float, where: str
) -> tuple[float, float]:
    """Where two lines (log A, m) meet: stress in MPa, life."""
    (log_a, m), (log_b, n) = before, after
    if not n > m:
        raise InputError(
            inside(where, "slopes"), f"{m:g}, then {n:g}", "slopes that rise: a flatter curve below each knee"
        )
    log_stress = (log_b - log_a) / (n - m)
    log_life = log_a - m * log_stress
    if not 0.0 < log_life < 30.0:
        raise InputError(
            inside(where, "log_a"),
            f"lines {i} and {i + 1} that meet at 10^{log_life:.3g} cycles",
            "a knee between 1 and 1e30 cycles",
            "Check that both intercepts are for the same unit.",
        )
    return one * 10.0**log_stress, 10.0**log_life


@opened()
def basquin_curve(
    *,
    name: str,
    stress: StressKind,
    r_ratio: RRatio,
    coefficient: float | str,
    exponent: float,
    counted_in: str,
    knee_life: float = 1e6,
    slope_below: float | None = None,
    **common: Unpack[Common],
) -> SNCurve:
    """A curve S = coefficient × (2N)^exponent, `counted_in` "reversals", or coefficient × N^exponent, in "cycles".

    Below the knee, at `knee_life` cycles, with another slope if one is given.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    stress : StressKind
        Whether the stress is a "range" or an "amplitude".
    r_ratio : RRatio
        Ratio of the smallest to the largest stress, R, -.
    coefficient : float or str
        S_f' of Basquin's line, MPa.
    exponent : float
        b of the line, negative, -.
    counted_in : str
        What the line counts: one of `COUNTED_IN`.
    knee_life : float, default 1000000.0
        Cycles at the knee.
    slope_below : float, optional
        Slope below the knee, -; inf: no damage there.
    **common : any
        More fields of `SNCurve`, such as `source` or `log_life_std`.

    Returns
    -------
    SNCurve
        The curve.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> curve = basquin_curve(
    ...     name="steel", stress="amplitude", r_ratio=-1, coefficient="948 MPa", exponent=-0.092, counted_in="reversals"
    ... )
    >>> float(curve.life(300.0)).__round__(1)
    135005.5
    """
    where = f"S-N curve {name}"
    checks.one_of(inside(where, "counted_in"), counted_in, tuple(COUNTED_IN))
    value = checks.real_number(inside(where, "exponent"), exponent, "Basquin's exponent b")
    if not -1.0 <= value < 0.0:
        hint = "The exponent is negative: the stress falls with life."
        if value >= 1.0:
            hint = f"If {value:g} is the slope m of N S^m = constant, the exponent is {number(-1.0 / value)}."
        elif value > 0.0:
            hint = f"Write {number(-value)}: the stress falls with life."
        raise InputError(inside(where, "exponent"), f"{value:g}", "an exponent b between -1 and 0", hint)
    strength = coherent(coefficient, "stress", inside(where, "coefficient"))
    if not 0.0 < strength < math.inf:
        raise InputError(inside(where, "coefficient"), f"{strength:g} MPa", "a stress above 0 MPa")
    life = check_life(inside(where, "knee_life"), knee_life)
    at_knee = strength * (COUNTED_IN[counted_in] * life) ** value
    symbol = "2 × N" if counted_in == "reversals" else "N"
    doubled = f"2 × {put_in(life)}" if counted_in == "reversals" else put_in(life)
    step = Step(
        f"Stress at {number(life)} cycles, counted in {counted_in}",
        f"S = S_f' × ({symbol})^b",
        f"{put_in(strength)} MPa × ({doubled})^{put_in(value)}",
        at_knee,
        "MPa",
        "Basquin 1910",
    )
    common["steps"] = (step, *common.get("steps", ()))
    slope = -1.0 / value
    return knee_curve(
        name=name,
        stress=stress,
        r_ratio=r_ratio,
        knee_stress=at_knee,
        knee_life=life,
        slope=slope,
        slope_below=slope if slope_below is None else slope_below,
        **common,
    )
