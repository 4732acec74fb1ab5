"""What a crack remembers of larger cycles: retardation, one model a file."""

from vivid_anvil.growth.memories.constant_closure import ConstantClosure
from vivid_anvil.growth.memories.retardation import RETARDATIONS, NoRetardation, Retardation
from vivid_anvil.growth.memories.wheeler import Wheeler
from vivid_anvil.growth.memories.willenborg import Willenborg

__all__ = ["RETARDATIONS", "ConstantClosure", "NoRetardation", "Retardation", "Wheeler", "Willenborg"]
