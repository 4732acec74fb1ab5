"""An S-N curve as text for a study file."""

from __future__ import annotations

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.curve import NO_DAMAGE, SNCurve
from vivid_anvil.units import opened


@opened()
def section_text(curve: SNCurve, key: str) -> str:
    """The curve as a TOML table `[sn_curves.key]` that reads back as the same lines; InputError for a converted curve."""
    held = len(curve.points) == 1 and isinstance(curve.above, str)
    found = "one point with its life held above" if held else ""
    if curve.conversion is not None:
        found = f"a curve {curve.conversion.words}"
    elif curve.curved is not None:
        found = f"a curve by a formula, {curve.curved.words}"
    if found:
        raise InputError(
            f"S-N curve {curve.name}",
            found,
            "one of straight lines",
            "Export the curve before the conversion, or a table of it at chosen lives.",
        )
    lines = [f"[sn_curves.{_quoted_key(key)}]", f'stress = "{curve.stress}"', f"r_ratio = {_toml(curve.r_ratio)}"]
    if curve.mean_stress is not None:
        lines.append(f'mean_stress = "{curve.mean_stress!r} MPa"')
    if len(curve.points) == 1:
        slope = curve.above if not isinstance(curve.above, str) else 1.0
        lines += [
            f'knee_stress = "{curve.points[0][0]!r} MPa"',
            f"knee_life = {curve.points[0][1]!r}",
            f"slope = {slope!r}",
        ]
        lines.append(f"slope_below = {'inf' if curve.below == NO_DAMAGE else repr(curve.below)}")
    else:
        points = ", ".join(f'["{stress!r} MPa", {life!r}]' for stress, life in curve.points)
        lines += [f"points = [{points}]", f'interpolation = "{curve.interpolation}"']
        lines += [f"above = {_toml(curve.above)}", f"below = {_toml(curve.below)}"]
    lines += [f"tested_from = {curve.tested_from!r}", f"tested_to = {curve.tested_to!r}"]
    for field in ("survival_probability", "log_life_std"):
        if getattr(curve, field) is not None:
            lines.append(f"{field} = {getattr(curve, field)!r}")
    lines += [f"{field} = {_toml(getattr(curve, field))}" for field in ("component", "basis", "source")]
    return "\n".join(lines) + "\n"


def _toml(value: float | str) -> str:
    if not isinstance(value, str):
        return repr(float(value))
    return '"' + value.replace("\\", "\\\\").replace('"', '\\"').replace("\n", " ") + '"'


def _quoted_key(key: str) -> str:
    return key if key.replace("_", "").replace("-", "").isalnum() and key.isascii() else _toml(key)
