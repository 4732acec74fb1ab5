"""S-N curves from a table of points, and from a formula."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Unpack

import numpy as np

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.curves.checks import checked_points
from vivid_anvil.materials.curves.curve import Above, Below, Interpolation, RRatio, SNCurve, StressKind
from vivid_anvil.materials.curves.curved import CurvedForm
from vivid_anvil.materials.curves.forms import Common
from vivid_anvil.units import one, opened


@opened()
def table_curve(
    *,
    name: str,
    stress: StressKind,
    r_ratio: RRatio,
    points: Sequence[Sequence[Any]],
    above: Above,
    below: Below,
    interpolation: Interpolation = "log-log",
    **common: Unpack[Common],
) -> SNCurve:
    """A curve through a table of points (stress, life), at least two; tested between its first and its last life.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    stress : StressKind
        Whether the stress is a "range" or an "amplitude".
    r_ratio : RRatio
        Ratio of the smallest to the largest stress, R, -.
    points : sequence of sequence
        Rows of stress, MPa or text, and life, cycles.
    above : Above
        What holds above the first point: a slope, or a word.
    below : Below
        What holds below the last point: a slope, or a word such as "no damage".
    interpolation : Interpolation, default "log-log"
        Between the points: one of `INTERPOLATIONS`.
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
    >>> curve = table_curve(
    ...     name="coupons", stress="range", r_ratio=0.1, points=[("400 MPa", 1e4), ("250 MPa", 1e5), ("180 MPa", 1e6)],
    ...     above="hold", below="no damage",
    ... )
    >>> curve.life([500.0, 300.0, 170.0]).round()
    array([10000., 40934., inf])
    """
    if len(points) < 2:
        raise InputError(
            inside(f"S-N curve {name}", "points"),
            f"{len(points)} point",
            "at least two",
            "For one point, state a slope: point_stress, point_life and slope.",
        )
    checked = checked_points(points, f"S-N curve {name}")
    common.setdefault("tested_from", checked[0][1])
    common.setdefault("tested_to", checked[-1][1])
    return SNCurve(
        name=name,
        stress=stress,
        r_ratio=r_ratio,
        points=checked,
        above=above,
        below=below,
        interpolation=interpolation,
        **common,
    )


@opened(tested_from=one(at_least=1.0), tested_to=one(at_least=1.0))
def curved_curve(
    *,
    name: str,
    form: CurvedForm,
    stress: StressKind,
    r_ratio: RRatio,
    tested_from: float,
    tested_to: float,
    **settings: Any,
) -> SNCurve:
    """A curve by a formula, one of `CURVED_FORMS`, tested between two lives, cycles; `settings` as of `SNCurve`.

    The formula holds beyond the tested lives too, which findings tell.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    form : CurvedForm
        A formula: one of `FORMS`.
    stress : StressKind
        Whether the stress is a "range" or an "amplitude".
    r_ratio : RRatio
        Ratio of the smallest to the largest stress, R, -.
    tested_from : float
        Fewest cycles that were tested.
    tested_to : float
        Most cycles that were tested.
    **settings : any
        More fields of `SNCurve`.

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
    >>> from vivid_anvil.materials.curves.asymptotic import Stromeyer
    >>> form = Stromeyer(endurance="80 MPa", exponent=3.0, point_stress="180 MPa", point_life=1e5)
    >>> bar = curved_curve(name="bar", form=form, stress="amplitude", r_ratio=-1, tested_from=1e4, tested_to=1e7)
    >>> float(bar.life(130.0)), bar.limit, bar.has_limit
    (800000.0, 80.0, True)
    """
    where = f"S-N curve {name}"
    if not tested_to > tested_from:
        raise InputError(
            inside(where, "tested_to"), f"{tested_to:g} cycles", f"above tested_from, {tested_from:g} cycles"
        )
    lives = np.array([tested_from, tested_to])
    points = tuple(zip(form.stress_at(lives).tolist(), lives.tolist(), strict=True))
    ends: dict[str, Any] = {"above": "extend", "below": "no damage" if form.limit > 0.0 else "extend"}
    tested: dict[str, Any] = {"tested_from": tested_from, "tested_to": tested_to}
    return SNCurve(name=name, stress=stress, r_ratio=r_ratio, points=points, curved=form, **ends, **tested, **settings)
