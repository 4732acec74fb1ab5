"""S-N curves of weld and detail classes, generated from the tables of a standard.

In: a standard's data file (TOML: classes, slopes, knees, thickness, environments) and a class. Out: `SNCurve` with the steps
of its working. EN 1993-1-9 and the IIW recommendations are shipped; a table of any other standard is a file of the same form.
"""

from __future__ import annotations

import dataclasses
import math
from typing import Any

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.materials.curves.convert import thickness_factor, with_stress_factor
from vivid_anvil.materials.curves.curve import SNCurve
from vivid_anvil.materials.curves.forms import intercept_curve, sloped_curve
from vivid_anvil.materials.curves.standards import DetailCurves, DetailStandard, class_text, standard_named
from vivid_anvil.units import LENGTH, coherent, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step, put_in

PROTECTED = "air"


@opened()
def detail_curve(
    standard: str | DetailStandard,
    detail_class: float | str,
    *,
    component: str = "normal",
    loading: str | None = None,
    environment: str = PROTECTED,
    thickness: float | str | None = None,
    thickness_exponent: float | str | None = None,
    attachment_length: float | str | None = None,
    partial_factor: float = 1.0,
    name: str | None = None,
) -> SNCurve:
    """The S-N curve of a class: nominal stress range, any R.

    `loading` is "variable" (default) or "constant" amplitude. A plate of `thickness` above the reference of the standard lowers
    the curve by (t_ref / t)^k, k = `thickness_exponent`, a number or the name of a detail in the standard's table; with an
    `attachment_length` along the stress (weld toe to weld toe), t is the effective thickness (see `effective_thickness`).
    `partial_factor` (gamma_Mf) divides its stresses.

    Parameters
    ----------
    standard : str or DetailStandard
        Which standard, by its name; or its data file.
    detail_class : float or str
        Detail class of the standard.
    component : str, default "normal"
        Which stress it is for.
    loading : str, optional
        How it is loaded.
    environment : str, default "air"
        In what it works, by the standard.
    thickness : float or str, optional
        Thickness, mm.
    thickness_exponent : float or str, optional
        k of (t_ref / t)^k, -; by default that of the standard.
    attachment_length : float or str, optional
        Length of the attachment along the stress, mm.
    partial_factor : float, default 1.0
        γ_Mf, which the class is divided by, -.
    name : str, optional
        What it is called in messages, tables and reports.

    Returns
    -------
    SNCurve
        The curve, with the steps from the class to it.

    Raises
    ------
    InputError
        For a class, a loading, an environment or a detail that the standard does not have, with those that it has.

    Examples
    --------
    >>> detail_curve("EN 1993-1-9", 71)
    <SNCurve EN 1993-1-9, 71: stress range, any R, m = 3 to 52.31 MPa at 5e6 cycles, m = 5 to 28.73 MPa at 1e8 cycles, ...>
    """
    table = standard if isinstance(standard, DetailStandard) else standard_named(standard)
    class_name = class_text(detail_class)
    chosen = table.find(class_name, component, loading)
    curve = _plain_curve(table, chosen, class_name, name)
    if environment != PROTECTED:
        curve = _in_environment(curve, table, chosen, environment)
    if thickness is not None:
        size, counted = _counted_thickness(curve, thickness, attachment_length)
        curve = dataclasses.replace(curve, steps=(*curve.steps, *counted))
        curve = _thick(curve, table, chosen, class_name, size, thickness_exponent)
    elif thickness_exponent is not None or attachment_length is not None:
        given = "attachment length" if thickness_exponent is None else "thickness exponent"
        raise InputError(curve.name, f"a {given} without thickness", "both", "State the thickness.")
    if partial_factor != 1.0:
        curve = _divided(curve, partial_factor)
    return curve


def _plain_curve(table: DetailStandard, chosen: DetailCurves, class_name: str, name: str | None) -> SNCurve:
    """The curve of the class as the standard prints it."""
    label = f"{table.name}, {class_name}" + (" shear" if chosen.component == "shear" else "")
    label += ", constant amplitude" if chosen.loading == "constant" else ""
    common: dict[str, Any] = {
        "name": name or label,
        "stress": table.stress,
        "r_ratio": table.r_ratio,
        "survival_probability": table.survival_probability,
        "log_life_std": table.log_life_std,
        "component": chosen.component,
        "basis": "standard",
        "source": f"{chosen.source}; {table.validity}".strip("; "),
        "tested_from": 1.0e4,
    }
    if chosen.rows:
        row = chosen.rows[class_name]
        return intercept_curve(
            log_a=row["log_a"], slopes=row["slopes"], unit=chosen.intercept_unit, ends_at=row.get("ends_at"), **common
        )
    stress = coherent(f"{class_name} MPa", "stress", label)
    slope, knee = chosen.slopes[0], chosen.knee_lives[0]
    at_knee = stress * (chosen.class_life / knee) ** (1.0 / slope)
    steps = [
        Step(
            f"Stress range at the knee, from the class at {number(chosen.class_life)} cycles",
            "ΔS_k = ΔS_C × (N_C / N_k)^(1/m)",
            f"{put_in(stress)} MPa × ({put_in(chosen.class_life)} / {put_in(knee)})^(1 / {put_in(slope)})",
            at_knee,
            "MPa",
            chosen.source,
        )
    ]
    lives, slopes = list(chosen.knee_lives), list(chosen.slopes)
    if chosen.ends_at is not None:
        last = at_knee
        for m, before, after in zip(slopes[1:], lives, [*lives[1:], chosen.ends_at], strict=True):
            last *= (before / after) ** (1.0 / m)
        steps.append(
            Step(
                f"Cut-off at {number(chosen.ends_at)} cycles: no damage below",
                "ΔS_L = ΔS_k × (N_k / N_L)^(1/m_2)",
                f"{put_in(at_knee)} MPa × ({put_in(knee)} / {put_in(chosen.ends_at)})^(1 / {put_in(slopes[-1])})",
                last,
                "MPa",
                chosen.source,
            )
        )
        lives.append(chosen.ends_at)
        slopes.append(math.inf)
    if len(slopes) == len(lives):  # one line to its end: no further slope
        slopes.append(math.inf)
    return sloped_curve(knee_stress=at_knee, knee_lives=lives, slopes=slopes, steps=tuple(steps), **common)


def _in_environment(curve: SNCurve, table: DetailStandard, chosen: DetailCurves, environment: str) -> SNCurve:
    if environment not in chosen.environments:
        known = [PROTECTED, *chosen.environments]
        raise InputError(
            inside(f"{curve.name}", "environment"),
            repr(environment),
            f"one of {listed(known)}",
            did_you_mean(environment, known),
        )
    found = chosen.environments[environment]
    factor = float(found["stress_factor"])
    step = Step(
        f"Environment: {environment}",
        "ΔS' = f × ΔS",
        f"{put_in(factor)} × {put_in(curve.points[0][0])} MPa",
        factor * curve.points[0][0],
        "MPa",
        found.get("source", table.name),
    )
    lowered = with_stress_factor(curve, factor, step)
    if found.get("knees") != "none":
        return lowered
    return dataclasses.replace(lowered, points=lowered.points[:1], below=lowered.above)


def _counted_thickness(
    curve: SNCurve, thickness: float | str, attachment_length: float | str | None
) -> tuple[float, tuple[Step, ...]]:
    """The thickness that counts, mm, and the step that leads to it where there is an attachment."""
    size = coherent(thickness, "length", f"{curve.name}, thickness")
    if attachment_length is None:
        return size, ()
    length = coherent(attachment_length, "length", f"{curve.name}, attachment_length")
    found = effective_thickness(size, length)
    short = found != size
    formula, numbers = ("t_eff = L / 2", f"{put_in(length)} mm / 2") if short else ("t_eff = t", f"{put_in(size)} mm")
    title = f"Thickness that counts, attachment {number(length)} mm long, {'at most' if short else 'more than'} twice the plate"
    return found, (Step(title, formula, numbers, found, "mm", "IIW-2259-15, 3.5.2"),)


def _thick(
    curve: SNCurve,
    table: DetailStandard,
    chosen: DetailCurves,
    class_name: str,
    size: float,
    exponent: float | str | None,
) -> SNCurve:
    where = f"{curve.name}, thickness"
    if chosen.reference_thickness is None:
        raise InputError(where, f"{number(size)} mm", "no thickness", f"{table.name} has no thickness correction here.")
    own = chosen.rows.get(class_name, {}).get("thickness_exponent")
    value = own if exponent is None else exponent
    if value is None or (isinstance(value, str) and value not in chosen.thickness_exponents):
        known = [f"{name!r} ({power:g})" for name, power in chosen.thickness_exponents.items()]
        raise InputError(
            f"{where}_exponent",
            "none" if value is None else repr(value),
            "a number, or one of " + ", ".join(known),
            "" if value is None else did_you_mean(str(value), chosen.thickness_exponents),
        )
    power = float(chosen.thickness_exponents[value]) if isinstance(value, str) else float(value)
    factor = thickness_factor(size, chosen.reference_thickness, power)
    thinner = "; a thinner plate counts as the reference" if size <= chosen.reference_thickness else ""
    step = Step(
        f"Factor of a plate {number(size)} mm thick, reference {number(chosen.reference_thickness)} mm{thinner}",
        "f = (t_ref / t)^k",
        f"({put_in(chosen.reference_thickness)} / {put_in(max(size, chosen.reference_thickness))})^{put_in(power)}",
        factor,
        "",
        f"{table.name}, thickness",
    )
    return with_stress_factor(curve, factor, step)


def _divided(curve: SNCurve, partial_factor: float) -> SNCurve:
    value = checks.real_number(inside(f"{curve.name}", "partial_factor"), partial_factor)
    if not 0.5 <= value <= 3.0:
        raise InputError(
            inside(f"{curve.name}", "partial_factor"), f"{value:g}", "a factor on stress, usually 1.0 to 1.35"
        )
    step = Step(
        "Partial factor on fatigue strength",
        "ΔS_d = ΔS / γ_Mf",
        f"{put_in(curve.points[0][0])} MPa / {put_in(value)}",
        curve.points[0][0] / value,
        "MPa",
    )
    remark: tuple[Finding, ...] = ()
    if value < 1.0:
        remark = (
            Finding(
                "warning", "partial-factor", f"The partial factor {value:g} raises the curve.", "Is it the inverse?"
            ),
        )
    lowered = with_stress_factor(curve, 1.0 / value, step)
    return dataclasses.replace(lowered, remarks=(*lowered.remarks, *remark))


@opened(thickness=LENGTH, attachment_length=LENGTH)
def effective_thickness(thickness: float, attachment_length: float) -> float:
    """Thickness that counts for a plate with an attachment, mm: half of its length L if L <= 2 t, else t.

    IIW-2259-15, 3.5.2; L is the length along the stress, weld toe to weld toe.

    >>> effective_thickness(40.0, 50.0)
    25.0
    """
    size = checks.positive_number("thickness", thickness, "a thickness above 0 mm")
    length = checks.positive_number("attachment length", attachment_length, "a length above 0 mm")
    return 0.5 * length if length <= 2.0 * size else size
