"""What cycles below the knee of an S-N curve do: the curve's own word, or one of the ways in use to continue it.

In: the curve, equivalent stresses, how often each happens. Out: a curve, or damage. Methods: slope continued; slope 2 m - 1
(Haibach, E. 1970, LBF TM 50/70); slope 2 m - 2 (castings, sintered steel, welds: Sonsino, C. M. 2005, Materialprüfung 47, 7);
consistent: the limit falls as damage grows (Haibach, E. 2006, Betriebsfestigkeit, ch. 3.2; Gatts, R. R. 1961).
"""

from __future__ import annotations

import dataclasses

import numpy as np

from vivid_anvil.ground.checks import FloatArray, one_of, together
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.curve import SNCurve
from vivid_anvil.units import many, opened

BELOW_KNEE = {
    "as the curve says": "the curve's own word",
    "no damage": "no damage below the last point of the curve",
    "continued": "the slope m above the last point goes on below it",
    "2m-1": "slope 2 m - 1 below the last point",
    "2m-2": "slope 2 m - 2 below the last point",
    "consistent": "no damage at first; the limit falls as larger cycles do damage, and lets smaller ones in",
}
_SLOPES = {"continued": (1.0, 0.0), "2m-1": (2.0, 1.0), "2m-2": (2.0, 2.0)}


@opened()
def curve_below_knee(curve: SNCurve, choice: str, where: str = "below_knee") -> SNCurve:
    """`curve` with what `choice` (a key of `BELOW_KNEE`) says below its last point; "consistent" starts from no damage.

    Raises InputError for an unknown choice, and for a curve that is not straight in log S, log N.

    >>> from vivid_anvil.materials.curves.forms import knee_curve
    >>> steel = knee_curve(
    ...     name="s", stress="amplitude", r_ratio=-1, knee_stress=80.0, knee_life=1e6, slope=5, slope_below=9
    ... )
    >>> curve_below_knee(steel, "2m-2").below
    8.0
    """
    one_of(where, choice, tuple(BELOW_KNEE))
    if choice == "as the curve says":
        return curve
    slope = slope_above_end(curve, where)
    if choice in ("no damage", "consistent"):
        return dataclasses.replace(curve, below="no damage")
    factor, less = _SLOPES[choice]
    return dataclasses.replace(curve, below=factor * slope - less)


def slope_above_end(curve: SNCurve, where: str) -> float:
    """The slope m of the line that ends at the last point; InputError where there is none."""
    slope = float(curve.segments.rate[-2])
    if curve.interpolation != "log-log" or curve.curved is not None or not slope >= 1.0:
        raise InputError(
            where,
            f"the curve {curve.name!r}, {curve.shape}",
            "a curve that ends in a straight line in log S, log N",
            "Choose 'as the curve says', and state what holds below in the curve.",
        )
    return slope


@opened(stress=many("stress", at_least=0.0), per_repeat=many(at_least=0.0))
def consistent_damage(stress: FloatArray, per_repeat: FloatArray, curve: SNCurve) -> FloatArray:
    """Damage per repeat of each cycle, averaged over a life in which the fatigue limit falls with the damage D.

    limit(D) = limit (1 - D)^(1 / q), q = m - 1, m the slope above the knee; cycles above the momentary limit do damage by the
    slope continued. The sum of the averages is 1 / life. `stress`, MPa in the curve's terms; all arrays of shape (k,).

    >>> from vivid_anvil.materials.curves.forms import knee_curve
    >>> steel = knee_curve(
    ...     name="s", stress="amplitude", r_ratio=-1, knee_stress=100.0, knee_life=1e6, slope=5, slope_below=float("inf")
    ... )
    >>> found = consistent_damage(np.array([200.0, 80.0]), np.array([1e2, 1e5]), steel)
    >>> float(found.sum()) > 1e2 / float(steel.life(200.0))  # the small cycles join in later
    True
    """
    together("consistent damage", stress=stress, per_repeat=per_repeat)
    stress, per_repeat = np.atleast_1d(stress), np.atleast_1d(per_repeat)
    slope = slope_above_end(curve, "consistent")
    limit, life = curve.limit, float(curve.point_lives[-1])
    continued = dataclasses.replace(curve, below=slope)
    with np.errstate(divide="ignore"):
        rate = np.asarray(per_repeat / continued.life(stress))
    joins = np.clip(1.0 - np.minimum(stress / limit, 1.0) ** (slope - 1.0), 0.0, 1.0)  # the damage from which it counts
    order = np.argsort(joins, kind="stable")
    starts, speed = joins[order], np.cumsum(rate[order])
    ends = np.append(starts[1:], 1.0)
    if not speed.size or starts[0] > 0.0 or life <= 0.0:
        return np.zeros_like(stress)
    with np.errstate(divide="ignore", invalid="ignore"):
        repeats = np.where(ends > starts, (ends - starts) / speed, 0.0)
    total = float(repeats.sum())
    active = np.cumsum(repeats[::-1])[::-1]  # repeats in which each cycle, in this order, does damage
    found = np.empty_like(rate)
    found[order] = rate[order] * active / total
    return found
