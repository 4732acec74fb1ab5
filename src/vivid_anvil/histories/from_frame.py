"""A load history from a data frame."""

from __future__ import annotations

from typing import Any

from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories.columns import history_of
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.units import opened
from vivid_anvil.writing.read_table import column_numbers, headers


@opened()
def history_from_frame(
    frame: Any, name: str = "data frame", *, sample_rate: float | str | None = None, rows: str = "samples at even steps"
) -> LoadHistory:
    """A history from a data frame whose columns are headed with units, `time [s]`, `force [kN]`.

    Without a time column the index is the time where it is named as one (`time [s]`), else `sample_rate` is needed.

    Parameters
    ----------
    frame : any
        A pandas data frame; its columns are headed "force [kN]".
    name : str, default "data frame"
        What it is called in messages, tables and reports.
    sample_rate : float or str, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.
    rows : str, default "samples at even steps"
        What a row is: "samples at even steps", or "peaks and valleys", whose times may be uneven or missing.

    Returns
    -------
    LoadHistory
        The history.

    Raises
    ------
    InputError
        As readers of files do.

    Examples
    --------
    >>> import pandas as pd
    >>> history_from_frame(pd.DataFrame({"time [s]": [0.0, 0.1, 0.2], "force [kN]": [1.0, 3.0, 2.0]}))
    <LoadHistory data frame: 0.2 s at 10 Hz, force>
    """

    if not hasattr(frame, "columns"):
        raise InputError("load history", f"a {type(frame).__name__}", "a data frame")
    whole = frame.reset_index() if "[" in str(frame.index.name) else frame
    cells = [str(cell) for cell in whole.columns]
    heads = headers(cells, lambda i: f"{name}, column {i + 1}")
    columns = [column_numbers(whole.iloc[:, i], f"{name}, column {cell!r}") for i, cell in enumerate(cells)]
    return history_of(name, heads, columns, sample_rate, name, 1, rows)
