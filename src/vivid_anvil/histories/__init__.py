"""What the part goes through: load histories and events, and their cycles."""

from vivid_anvil.histories.between import BETWEEN, BETWEEN_EVENTS, Source, worst_case_pairs
from vivid_anvil.histories.channel_sum import ChannelSum
from vivid_anvil.histories.check_history import ChannelCheck, check_history
from vivid_anvil.histories.constant_amplitude import ConstantAmplitude
from vivid_anvil.histories.counter import RANGES_AND_MEANS, RANGES_ONLY, RESIDUES, RainflowCounter, Residue
from vivid_anvil.histories.cycles import Cycles
from vivid_anvil.histories.events import DutyCycle, Event
from vivid_anvil.histories.exceedance import Exceedance, classes_of_exceedance, exceedance
from vivid_anvil.histories.gate import Gated, gate
from vivid_anvil.histories.gated import GatedHistory
from vivid_anvil.histories.load_history import Channel, LoadHistory, Steps
from vivid_anvil.histories.load_sequence import LoadSequence
from vivid_anvil.histories.load_states import LoadStates
from vivid_anvil.histories.matrix import (
    CLASS_VALUES,
    MATRICES,
    CycleMatrix,
    binning_effect,
    binning_findings,
    cycle_matrix,
)
from vivid_anvil.histories.other_counts import (
    PeakCount,
    level_crossings,
    peaks,
    peaks_between_crossings,
    range_pair,
    simple_range,
    time_at_level,
)
from vivid_anvil.histories.programmes import (
    BlockProgramme,
    LoadSpectrum,
    block_programme,
    load_spectrum,
    read_programme,
    read_spectrum,
)
from vivid_anvil.histories.rainflow import FourPointCount, four_point, joined, rainflow
from vivid_anvil.histories.read_csv import read_csv
from vivid_anvil.histories.read_history import READERS, read_history
from vivid_anvil.histories.read_tables import read_excel, read_hdf5, read_mdf, read_npy, read_parquet
from vivid_anvil.histories.reconstruct import ORDERS, reconstruct
from vivid_anvil.histories.repairs import (
    REPAIRS,
    combine,
    cut,
    high_pass,
    interpolate_spikes,
    join,
    low_pass,
    remove_drift,
    remove_offset,
    repair_step,
    resample,
    scale,
)
from vivid_anvil.histories.repeated_times import repeated_times
from vivid_anvil.histories.rosette import ROSETTES, principal_strains, principal_stresses
from vivid_anvil.histories.stream import FileCount, count_chunks, count_file, stream_channel
from vivid_anvil.histories.tail import TAILS, TailFit, fit_tail
from vivid_anvil.histories.turning_points import turning_points
from vivid_anvil.histories.write_history import write_history

__all__ = [
    "BETWEEN",
    "BETWEEN_EVENTS",
    "CLASS_VALUES",
    "MATRICES",
    "ORDERS",
    "RANGES_AND_MEANS",
    "RANGES_ONLY",
    "READERS",
    "REPAIRS",
    "RESIDUES",
    "ROSETTES",
    "TAILS",
    "BlockProgramme",
    "Channel",
    "ChannelCheck",
    "ChannelSum",
    "ConstantAmplitude",
    "CycleMatrix",
    "Cycles",
    "DutyCycle",
    "Event",
    "Exceedance",
    "FileCount",
    "FourPointCount",
    "Gated",
    "GatedHistory",
    "LoadHistory",
    "LoadSequence",
    "LoadSpectrum",
    "LoadStates",
    "PeakCount",
    "RainflowCounter",
    "Residue",
    "Source",
    "Steps",
    "TailFit",
    "binning_effect",
    "binning_findings",
    "block_programme",
    "check_history",
    "classes_of_exceedance",
    "combine",
    "count_chunks",
    "count_file",
    "cut",
    "cycle_matrix",
    "exceedance",
    "fit_tail",
    "four_point",
    "gate",
    "high_pass",
    "interpolate_spikes",
    "join",
    "joined",
    "level_crossings",
    "load_spectrum",
    "low_pass",
    "peaks",
    "peaks_between_crossings",
    "principal_strains",
    "principal_stresses",
    "rainflow",
    "range_pair",
    "read_csv",
    "read_excel",
    "read_hdf5",
    "read_history",
    "read_mdf",
    "read_npy",
    "read_parquet",
    "read_programme",
    "read_spectrum",
    "reconstruct",
    "remove_drift",
    "remove_offset",
    "repair_step",
    "repeated_times",
    "resample",
    "scale",
    "simple_range",
    "stream_channel",
    "time_at_level",
    "turning_points",
    "worst_case_pairs",
    "write_history",
]
