"""Strains of a place in computed states, from a table in a file: a row a state."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.spectra.responses.components import COMPONENTS
from vivid_anvil.stress.rubber.states_in_turn import StatesInTurn
from vivid_anvil.stress.rubber.strain_loads import StrainLoads
from vivid_anvil.stress.rubber.strain_measures import STRAIN_MEASURES
from vivid_anvil.stress.rubber.strain_states import StrainStates
from vivid_anvil.units import coherent, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers, read_frame

GRADIENT = ("xx", "xy", "xz", "yx", "yy", "yz", "zx", "zy", "zz")
PLAIN = ("-", "1")


@opened()
def read_strain_states(
    path: str | Path, *, measure: str, shear: str = "tensor", channel: str | None = None, events: Sequence[str] = ()
) -> StrainStates:
    r"""A place from a CSV file or a workbook: a row a state, columns `xx [-]` to `zx [-]`, or nine of a deformation gradient.

    The first column says where each state was computed: with a unit, such as `sink [mm]`, the states hold at values of the
    channel of that name; headed `state`, the channel counts them from 1. Every component has to be there: a strain that is left
    out is not 0. Strains have their unit ([-], [%], [µm/m]).

    Parameters
    ----------
    path : str or path
        The file.
    measure : str
        Which measure of strain it holds: one of `STRAIN_MEASURES`.
    shear : str, default "tensor"
        What the shear components are: one of `SHEARS`.
    channel : str, optional
        The channel that goes through the states; by default that of the first column.
    events : sequence of str, optional
        The events that go through these states; without it all that no other states name.

    Returns
    -------
    StrainStates
        The relation, for a hot spot.

    Raises
    ------
    InputError
        With file and column: for a missing component, an unknown measure, a column without unit.

    Examples
    --------
    >>> from pathlib import Path
    >>> rows = "sink [mm],xx [%],yy [%],zz [%],xy [%],yz [%],zx [%]", "3,20,-9,-8,2,0,0", "6,50,-20,-17,5,0,0"
    >>> _ = Path("edge.csv").write_text("\n".join(rows))
    >>> read_strain_states("edge.csv", measure="nominal").words
    '2 states by sink, 0 to 6 mm'
    """
    one_of("strain states, measure", measure, tuple(STRAIN_MEASURES))
    frame, where = read_frame(path, what="a table of strains")
    heads = [str(cell) for cell in frame.columns]
    wanted = GRADIENT if measure == "deformation gradient" else COMPONENTS
    named = {name_and_unit(head)[0].lower(): head for head in heads[1:]}
    for name in named:
        if name not in wanted:
            raise InputError(
                inside(where, f"column {named[name]!r}"),
                "an unknown column",
                f"one of {listed(wanted)}, behind the column of the states",
                did_you_mean(name, wanted),
            )
    for name in wanted:
        if name not in named:
            raise InputError(
                where, f"no column {name!r}", f"all of {listed(wanted)}", "A strain that is left out is not 0: write 0."
            )
    values = np.column_stack([_strain(frame, named[one], where, measure) for one in wanted])
    first, unit = name_and_unit(heads[0])
    stem = Path(path).stem
    given: dict[str, Any] = {"events": tuple(events)}
    if unit in ("", *PLAIN):
        names = [str(one).strip() for one in frame[heads[0]]]
        names = [f"state {name}" if name.replace(".", "").isdigit() else name for name in names]
        given |= {"channel": channel or first, "cases": [f"{stem}, {name}" for name in names]}
    else:
        places = column_numbers(frame[heads[0]], inside(where, f"column {heads[0]!r}"))
        texts = [f"{one:.15g} {unit}" for one in places.tolist()]
        given |= {"channel": channel or first, "cases": [f"{stem}, {one}" for one in texts], "at": texts}
    return StrainStates.of(values, measure, StrainLoads([StatesInTurn(**given)]), shear=shear)


def _strain(frame: Any, heading: str, where: str, measure: str) -> FloatArray:
    """A column of strains, -."""
    name, unit = name_and_unit(heading)
    place = inside(where, f"column {heading!r}")
    plain = measure in ("right stretch", "deformation gradient")
    if not unit:
        raise InputError(place, "no unit", f"a heading such as '{name} [-]'" + ("" if plain else f" or '{name} [%]'"))
    if unit in PLAIN:
        return column_numbers(frame[heading], place)
    if plain:
        raise InputError(place, f"the unit {unit!r}", f"'{name} [-]': a stretch, 1 where nothing is pulled")
    return column_numbers(frame[heading], place) * coherent(f"1 {unit}", "strain", place)
