"""What the part goes through: load histories and events, and their cycles."""

from vivid_anvil.histories.counter import RESIDUES, RainflowCounter, Residue
from vivid_anvil.histories.cycles import Cycles
from vivid_anvil.histories.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.histories.load_history import Channel, LoadHistory
from vivid_anvil.histories.rainflow import FourPointCount, four_point, joined, rainflow
from vivid_anvil.histories.read_csv import read_csv
from vivid_anvil.histories.turning_points import turning_points

__all__ = [
    "RESIDUES",
    "Channel",
    "ConstantAmplitude",
    "Cycles",
    "DutyCycle",
    "Event",
    "FourPointCount",
    "LoadHistory",
    "RainflowCounter",
    "Residue",
    "four_point",
    "joined",
    "rainflow",
    "read_csv",
    "turning_points",
]
