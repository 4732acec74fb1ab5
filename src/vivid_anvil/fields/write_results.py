"""A model's results written back: VTU for a viewer, CSV or Parquet as tables. Nothing is left half-written."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.fields.endless_nodes import endless_life_of_nodes
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.proportionality import trust_of_nodes
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import replacing
from vivid_anvil.models.read_frd import KINDS
from vivid_anvil.units import opened

KNOWN_KINDS = {kind for kind, _ in KINDS.values()} | {"vertex", "pyramid"}
NEEDS = {".vtu": "meshio", ".parquet": "pyarrow"}  # packages
NO_DAMAGE_LOG_LIFE = 30.0  # log10 of the life shown for "no damage": viewers know no infinity
LARGEST = 1e300  # damage of a node that fails at once
NO_LIMIT = 1e30  # reserve shown where there is no limit


@opened()
def write_results(result: ModelResult, path: str | Path, *, reserves: FloatArray | None = None) -> Path:
    """Damage, life, stresses, worst event, biaxiality and load path at each node; `path` ends in .vtu, .csv or .parquet.

    `reserves` are the factors of `reserves_on_stress` at every node, written too. In VTU lives stand as log10 of years (without a
    calendar of repeats), a node without damage has `no damage` = 1 and `NO_DAMAGE_LOG_LIFE` there, a reserve without limit is
    `NO_LIMIT`. A field without elements is written as points.

    Parameters
    ----------
    result : ModelResult
        The result that is asked.
    path : str or path
        Where to, by its ending .vtu, .csv or .parquet.
    reserves : ndarray, optional
        Reserve factors at every node, -.

    Returns
    -------
    Path
        The file.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> write_results(model, "nodes.csv").name  # of the demo: run_model(read_study("hanger_head.toml"))
    'nodes.csv'
    """
    target = Path(path)
    writer = writer_for(target, str(target))
    if not target.parent.is_dir():
        raise InputError(str(target), "no such folder", "a folder that is there")
    if reserves is not None and reserves.shape != (result.field.size,):
        raise InputError("write results, reserves", f"shape {reserves.shape}", f"({result.field.size},), one a node")
    with replacing(target) as temporary:
        writer(result, reserves, Path(temporary))
    return target


def writer_for(path: Path, where: str) -> Callable[[ModelResult, FloatArray | None, Path], None]:
    """What writes a file of that ending; InputError for another one, and where its package is not installed."""
    writers = {".vtu": _vtu, ".csv": _csv, ".parquet": _parquet}
    ending = path.suffix.lower()
    if ending not in writers:
        raise InputError(where, str(path), f"a file that ends in {', '.join(writers)}")
    if ending in NEEDS:
        needed(NEEDS[ending], where)
    return writers[ending]


def _frame(result: ModelResult, reserves: FloatArray | None) -> Any:
    frame = result.to_frame()
    trust = trust_of_nodes(result)
    if reserves is not None:
        frame["reserve on stress"] = reserves
    frame["biaxiality"], frame["off straight line"] = trust.biaxiality, trust.off_line
    for name, used in _endless(result).items():
        frame[name] = used
    if result.field.spread is not None:
        frame["elements disagree by"] = result.field.spread
    return frame


def _endless(result: ModelResult) -> dict[str, FloatArray]:
    """The share of the fatigue limit at each node by each criterion for endless life."""
    found = endless_life_of_nodes(result)
    return {} if found is None else {f"used of the limit by {name}": used for name, used in found.used.items()}


def _csv(result: ModelResult, reserves: FloatArray | None, path: Path) -> None:
    _frame(result, reserves).to_csv(path, index=False)


def _parquet(result: ModelResult, reserves: FloatArray | None, path: Path) -> None:
    _frame(result, reserves).to_parquet(path, index=False)


def _vtu(result: ModelResult, reserves: FloatArray | None, path: Path) -> None:
    import meshio

    field, values = result.field, result.values
    years, calendar = result.life_years, result.duty_cycle.calendar
    life, unit = (result.life_repeats, calendar.repeats) if years is None else (years, "years")
    finite = np.isfinite(life)
    log_life = np.full(field.size, NO_DAMAGE_LOG_LIFE)
    log_life[finite] = np.log10(np.maximum(life[finite], 1e-300))
    cells = [(element.kind, np.asarray(element.nodes)) for element in field.elements if element.kind in KNOWN_KINDS]
    if not cells:
        cells = [("vertex", np.arange(field.size)[:, None])]
    data = {
        "node": field.node_ids.astype(np.int64),
        "damage per repeat": np.minimum(values.damage, LARGEST),
        f"log10 life [{unit}]": log_life,
        "no damage": (~finite).astype(np.int64),
        "worst event": values.worst_event.astype(np.int64),
        "lowest stress [MPa]": values.lowest,
        "highest stress [MPa]": values.highest,
    }
    names = result.event_names[:-1]
    data |= {f"damage of {name}": np.minimum(values.by_event[:, i], LARGEST) for i, name in enumerate(names)}
    if result.used_at_target is not None:
        data["used at target"] = np.minimum(result.used_at_target, LARGEST)
    trust = trust_of_nodes(result)
    data |= {"biaxiality": trust.biaxiality, "off straight line": trust.off_line, "direction": trust.direction}
    if reserves is not None:
        data["reserve on stress"] = np.minimum(reserves, NO_LIMIT)
    data |= _endless(result)
    if result.region_of is not None:
        data["region"] = result.region_of.astype(np.int64)
    if result.left_out is not None:
        data["left out"] = result.left_out.astype(np.int64)
    if field.spread is not None:
        data["elements disagree by"] = field.spread
    meshio.Mesh(field.coordinates, cells, point_data=data).write(path, file_format="vtu")
