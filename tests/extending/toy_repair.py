"""A repair of one's own: a channel turned upside down."""

import dataclasses

from vivid_anvil.histories import REPAIRS, Channel


@REPAIRS.add("turn_over")
def turn_over(history, *, channel):
    """The channel times -1."""
    turned = [Channel(one.name, -one.values, one.dimension) if one.name == channel else one for one in history.channels]
    return dataclasses.replace(history, channels=tuple(turned), repairs=(*history.repairs, f"{channel}: turned over"))
