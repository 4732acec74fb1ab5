"""Lives of strips that were pulled to and fro until they parted: what the size of the flaws is found from; their files."""

from __future__ import annotations

from pathlib import Path

import numpy as np

from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.materials.rubber.flaw_size import FlawSizes, initial_flaws
from vivid_anvil.materials.rubber.hyperelastic import HyperelasticLaw
from vivid_anvil.materials.rubber.tearing_law import TearingLaw
from vivid_anvil.units import one, opened
from vivid_anvil.writing.known_table import read_known
from vivid_anvil.writing.known_values import known_values

COLUMNS = {"cycles": "", "stretch": "", "energy density": "energy density"}
SAID = "a number: cycles, or a stretch, 1 where nothing is pulled"


@opened(end=one("length", above=0.0), shape_factor=one(above=0.0))
def flaws_of_strips(
    path: str | Path,
    growth: TearingLaw,
    *,
    law: HyperelasticLaw | None = None,
    end: float | str,
    shape_factor: float = np.pi,
) -> FlawSizes:
    """The flaws behind the lives of strips in a CSV or Excel file, each pulled from rest.

    Columns `cycles`, and `energy density [kJ/m^3]` or `stretch` of simple tension, at the largest of each cycle.

    Parameters
    ----------
    path : str or path
        The file.
    growth : TearingLaw
        Growth of cracks in the rubber.
    law : HyperelasticLaw, optional
        Energy of a stretch, where the file holds none.
    end : float or text with a unit
        Size at the end of the life, mm, such as the thickness of the strips.
    shape_factor : float, default π
        k, -.

    Returns
    -------
    FlawSizes
        A size for each strip, their median and scatter.

    Raises
    ------
    InputError
        With file and column, for what is missing or cannot be read, and for lives that no flaw gives.

    Examples
    --------
    >>> from pathlib import Path
    >>> from vivid_anvil.materials.rubber import PowerTearing
    >>> _ = Path("strips.csv").write_text("energy density [kJ/m^3],cycles\\n500,118512\\n400,200000\\n")
    >>> nr = PowerTearing(name="nr", rate=0.0025, at=11.0, slope=2.0)
    >>> flaws_of_strips("strips.csv", nr, end="1.2 mm").each.round(4)
    array([0.04  , 0.0371])
    """
    table = read_known(path, tuple(COLUMNS), what="a file of lives of strips")
    known = {head.column for head in table.headings}
    if "cycles" not in known or ("stretch" in known) == ("energy density" in known):
        raise InputError(
            table.where, f"the columns {listed(known)}", "'cycles', and 'energy density [kJ/m^3]' or 'stretch'"
        )
    lives = known_values(table, "cycles", "", (), SAID)
    if "energy density" in known:
        stored = known_values(table, "energy density", "energy density")
    else:
        stretch = known_values(table, "stretch", "", (), SAID)
        low = np.flatnonzero(~(stretch > 1.0))
        if low.size:
            raise InputError(
                inside(table.where, f"row {low[0] + 1}, stretch"), f"{stretch[low[0]]:g}", "above 1", "Is it a strain?"
            )
        if law is None:
            raise InputError(table.where, "stretches, and no law that gives their energy", "law = MooneyRivlin(...)")
        stored = law.energy_of("simple", stretch)
    return initial_flaws(growth, stored, lives, end=end, shape_factor=shape_factor)  # type: ignore[arg-type]
