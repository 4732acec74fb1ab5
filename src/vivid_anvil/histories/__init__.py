"""What was measured: load histories, their files, checks and repairs."""

from vivid_anvil.histories.channel import Channel, Steps
from vivid_anvil.histories.check_history import ChannelCheck, check_history
from vivid_anvil.histories.filters import high_pass, low_pass, resample
from vivid_anvil.histories.from_frame import history_from_frame
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.histories.psd_estimate import PSDEstimate, estimate_psd
from vivid_anvil.histories.read_csv import read_csv
from vivid_anvil.histories.read_history import READERS, read_history
from vivid_anvil.histories.read_tables import read_excel, read_hdf5, read_mdf, read_npy, read_parquet
from vivid_anvil.histories.repairs import (
    REPAIRS,
    combine,
    cut,
    interpolate_spikes,
    join,
    remove_drift,
    remove_offset,
    repair_step,
    scale,
)
from vivid_anvil.histories.rosette import ROSETTES, principal_strains, principal_stresses
from vivid_anvil.histories.stream import FileCount, count_chunks, count_file, stream_channel
from vivid_anvil.histories.write_history import write_history

__all__ = [
    "READERS",
    "REPAIRS",
    "ROSETTES",
    "Channel",
    "ChannelCheck",
    "FileCount",
    "LoadHistory",
    "PSDEstimate",
    "Steps",
    "check_history",
    "combine",
    "count_chunks",
    "count_file",
    "cut",
    "estimate_psd",
    "high_pass",
    "history_from_frame",
    "interpolate_spikes",
    "join",
    "low_pass",
    "principal_strains",
    "principal_stresses",
    "read_csv",
    "read_excel",
    "read_hdf5",
    "read_history",
    "read_mdf",
    "read_npy",
    "read_parquet",
    "remove_drift",
    "remove_offset",
    "repair_step",
    "resample",
    "scale",
    "stream_channel",
    "write_history",
]
