"""Natural frequencies, modal stresses and participation factors of a CalculiX frequency step: its `.frd` and `.dat` files.

In mm, N, s and t modes are normalised to a modal mass of 1 t: stresses are MPa for a modal coordinate of 1 mm √t, participation
factors √t.
"""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.ground.files import existing, read_by_others
from vivid_anvil.models.read_frd import field_of_steps, head_over
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.units import opened

AXES = ("x", "y", "z")
VIBRATION = 2  # what the number in the line over a block says of a shape of vibration
SAME = 1e-4  # share within which a frequency stands in both files


@dataclass(frozen=True, eq=False)
class ModesOfModel:
    """Modal stresses of a model, a case each mode, and its natural frequencies, Hz.

    Parameters
    ----------
    field : StressField
        Stresses for a modal coordinate of 1, MPa/(mm √t).
    natural_frequency : ndarray, shape (modes,)
        Hz.

    Raises
    ------
    InputError
        By what reads one.

    Examples
    --------
    >>> read_modes("sensor_bracket.frd").natural_frequency.round(1)  # in the folder of `vivid-anvil demo`
    array([115. , 222. , 808.6, 915.9])
    """

    field: StressField
    natural_frequency: FloatArray


@read_by_others("a .frd file in text form")
@opened()
def read_modes(path: str | Path) -> ModesOfModel:
    """The modal stresses of a frequency step, in mm, N, s, t.

    Parameters
    ----------
    path : str or path
        The `.frd` file.

    Returns
    -------
    ModesOfModel
        The field, a case each mode, and natural frequencies.

    Raises
    ------
    InputError
        With file and line, for steps that are no shapes of vibration, and modes that are not normalised to a modal mass of 1.

    Examples
    --------
    >>> read_modes("sensor_bracket.frd").field  # in the folder of `vivid-anvil demo`
    <StressField 1464 nodes, 4 cases (mode 1, mode 2, mode 3, mode 4), 198 elements>
    """
    found: list[float] = []

    def look(lines: list[bytes], start: int, name: str, step: int) -> bool:
        head = head_over(lines, start)
        kind = head[56:58].strip()
        if not kind.isdigit() or int(kind) != VIBRATION or b"MODAL" not in head:
            raise InputError(
                f"{name}, line {start + 1}, step {step}",
                "stresses that are no shape of vibration",
                "those of a *FREQUENCY step alone",
                "Write static steps into a file of their own.",
            )
        mass = next(
            (lines[i] for i in range(start - 1, max(start - 12, -1), -1) if lines[i].startswith(b"    1PGM")), b""
        )
        if mass and abs(float(mass[8:].strip() or 1.0) - 1.0) > 1e-5:
            raise InputError(f"{name}, line {start + 1}", "a modal mass that is not 1", "modes normalised to it")
        found.append(float(head[12:24]))
        return True

    field = field_of_steps(path, stress_unit="MPa", length_unit="mm", cases=None, look=look)
    names = [f"mode {i}" for i in range(1, len(found) + 1)]
    own = {name: getattr(field, name) for name in field.__dataclass_fields__} | {"cases": names}
    return ModesOfModel(StressField(**own), read_only(np.array(found)))


@opened()
def read_participation(path: str | Path, natural_frequency: FloatArray | None = None) -> FloatArray:
    """Participation factors of a `.dat` file along x, y, z, √t: shape (modes, 3).

    Parameters
    ----------
    path : str or path
        The file that the frequency step wrote beside its results.
    natural_frequency : ndarray, optional
        Hz: what the modal stresses say, so that both are of one run.

    Returns
    -------
    ndarray, shape (modes, 3)
        A row a mode.

    Raises
    ------
    InputError
        Where the tables are not there, and for other natural frequencies.

    Examples
    --------
    >>> read_participation("sensor_bracket.dat")[0].round(5)  # in the folder of `vivid-anvil demo`
    array([-0.0057 ,  0.     ,  0.01966])
    """
    file = existing(path, "a .dat file")
    rows = file.read_text(encoding="utf-8", errors="replace").splitlines()
    values = _table(rows, "EIGENVALUEOUTPUT", file.name)
    factors = _table(rows, "PARTICIPATIONFACTORS", file.name)
    if len(values) != len(factors):
        raise InputError(file.name, f"{len(values)} modes and {len(factors)} rows of factors", "one row for each mode")
    frequency = values[:, 2]
    if natural_frequency is not None:
        wanted = checks.finite_samples(natural_frequency, where=inside(file.name, "natural_frequency"), unit="Hz")
        same = wanted.size == frequency.size and bool((np.abs(frequency / wanted - 1.0) < SAME).all())
        if not same:
            raise InputError(
                file.name,
                f"natural frequencies {checks.reach(frequency)} Hz",
                f"those of the modal stresses, {checks.reach(wanted)} Hz",
                "Both files must be of one run.",
            )
    return read_only(np.ascontiguousarray(factors[:, :3]))


def _table(rows: list[str], title: str, name: str) -> FloatArray:
    """Numbers below a title, without the numbers of the modes."""
    at = next((i for i, row in enumerate(rows) if "".join(row.split()).startswith(title)), None)
    if at is None:
        raise InputError(name, f"no table {title.lower()}", "the output of a *FREQUENCY step")
    found: list[list[float]] = []
    for row in rows[at + 1 :]:
        cells = row.split()
        if cells and cells[0].isdigit():
            found.append([float(cell) for cell in cells[1:]])
        elif found:
            break
    return np.array(found, dtype=np.float64)


@opened()
def participation_along(factors: FloatArray, direction: str | list[float]) -> FloatArray:
    """Of a base that shakes along an axis, "x", "y" or "z", or along three numbers: shape (modes,).

    >>> participation_along(np.array([[0.0, 0.0, 2.0]]), [0.0, 3.0, 4.0])
    array([1.6])
    """
    if factors.ndim != 2 or factors.shape[1] != 3:
        raise InputError(
            "modes, factors", f"shape {factors.shape}", "participation factors along x, y and z, shape (modes, 3)"
        )
    if isinstance(direction, str):
        checks.one_of("modes, direction", direction, AXES)
        return np.asarray(factors[:, AXES.index(direction)])
    vector = checks.as_numbers("modes, direction", direction)
    if vector.shape != (3,) or not np.linalg.norm(vector) > 0.0:
        raise InputError("modes, direction", f"{direction!r}", "an axis, or three numbers that are not all 0")
    return np.asarray(factors @ (vector / np.linalg.norm(vector)))
