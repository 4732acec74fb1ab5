"""Write a load history so that it reads back equal: CSV, Parquet, HDF5."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import numpy as np

from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import replacing
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.units import DIMENSIONS, opened


@opened()
def write_history(history: LoadHistory, path: str | Path) -> Path:
    """Write `history` to `path`, by its ending .csv, .parquet or .h5, in coherent units; returns the path.

    By way of a temporary name, so that no half-written file is left.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    path : str or path
        Where to, by its ending .csv, .parquet or .h5.

    Returns
    -------
    Path
        The file.

    Raises
    ------
    InputError
        For another ending and for a place that cannot be written.

    Examples
    --------
    >>> write_history(history, "lap.parquet").name  # history of the demo: read_history("loaded_lap.csv")
    'lap.parquet'
    """
    path = Path(path)
    history.timed("files of samples")
    writer = WRITERS.get(path.suffix.lower())
    if writer is None:
        raise InputError(path.name, f"the ending {path.suffix!r}", f"one of {listed(WRITERS)}")
    with replacing(path) as temporary:
        writer(history, temporary)
    return path


def _heads(history: LoadHistory) -> list[str]:
    return [f"{channel.name} [{DIMENSIONS[channel.dimension].coherent}]" for channel in history.channels]


def _write_csv(history: LoadHistory, path: Path) -> None:
    import pandas as pd

    time = {"time [s]": history.time}
    columns = {head: one.values for head, one in zip(_heads(history), history.channels, strict=True)}
    pd.DataFrame(time | columns).to_csv(path, index=False, lineterminator="\n")


def _write_parquet(history: LoadHistory, path: Path) -> None:
    needed("pyarrow", path.name)
    import pyarrow as pa
    from pyarrow import parquet

    columns = [pa.array(channel.values) for channel in history.channels]
    table = pa.table(columns, names=_heads(history))
    parquet.write_table(table.replace_schema_metadata({"sample_rate": f"{history.sample_rate!r} Hz"}), path)


def _write_hdf5(history: LoadHistory, path: Path) -> None:
    needed("h5py", path.name)
    import h5py

    with h5py.File(path, "w") as file:
        file.attrs["sample_rate"] = np.float64(history.sample_rate)
        for channel in history.channels:
            file.create_dataset(channel.name, data=channel.values).attrs["unit"] = DIMENSIONS[
                channel.dimension
            ].coherent


WRITERS: dict[str, Callable[[LoadHistory, Path], None]] = {
    ".csv": _write_csv,
    ".parquet": _write_parquet,
    ".h5": _write_hdf5,
}
