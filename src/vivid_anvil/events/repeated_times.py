"""From one measured occurrence to many end to end, with the residue composed right."""

from __future__ import annotations

from vivid_anvil.counting.cycles import Cycles, joined
from vivid_anvil.events.duty_cycle import DutyCycle
from vivid_anvil.events.event import Event
from vivid_anvil.histories.load import Load
from vivid_anvil.units import opened


@opened()
def repeated_times(load: Load, channel: str, times: int) -> Cycles:
    """Cycles of `times` occurrences of `load` end to end: half cycles at both ends only, everything between closed.

    Parameters
    ----------
    load : Load
        The load that is repeated.
    channel : str
        The channel, by its name.
    times : int
        How often.

    Returns
    -------
    Cycles
        The cycles.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.histories import Channel, LoadHistory
    >>> import numpy as np
    >>> lap = LoadHistory("lap", (Channel("force", np.array([0.0, 3.0, 1.0, 4.0, 0.0]), "force"),), 1.0)
    >>> repeated_times(lap, "force", 1000).total
    2000.0
    """
    duty = DutyCycle("all", (Event("load", load, times),), 1.0, "half cycles", "in the order given")
    tables = [source.cycles.counted(source.cycles.count * source.occurrences) for source in duty.sources(channel)]
    return joined(tables)
