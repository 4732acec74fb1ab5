"""What the hot spots feel: from load to stress at a point."""

from vivid_anvil.stress.hot_spot import HotSpot
from vivid_anvil.stress.repeat_cycles import RepeatCycles, local_cycles, nominal_cycles

__all__ = ["HotSpot", "RepeatCycles", "local_cycles", "nominal_cycles"]
