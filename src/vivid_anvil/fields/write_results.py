"""A model's results written back: VTU for a viewer, CSV or Parquet as tables. Nothing is left half-written."""

from __future__ import annotations

from pathlib import Path

import numpy as np

from vivid_anvil.errors import InputError
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.read_frd import KINDS
from vivid_anvil.files import replacing

KNOWN_KINDS = {kind for kind, _ in KINDS.values()} | {"vertex", "pyramid"}
NO_DAMAGE_LOG_LIFE = 30.0  # log10 of the years shown for "no damage": viewers know no infinity


def write_results(result: ModelResult, path: str | Path) -> Path:
    """Damage, log10 of the life in years, stresses and worst event at each node; `path` ends in .vtu, .csv or .parquet.

    In VTU a node without damage has `no damage` = 1 and `NO_DAMAGE_LOG_LIFE` as the logarithm of its life. A field without
    elements is written as points.
    """
    target = Path(path)
    writers = {".vtu": _vtu, ".csv": _csv, ".parquet": _parquet}
    if target.suffix.lower() not in writers:
        raise InputError(str(target), f"the ending {target.suffix!r}", "one of .vtu, .csv, .parquet")
    if not target.parent.is_dir():
        raise InputError(str(target), "no such folder", "a folder that is there")
    with replacing(target) as temporary:
        writers[target.suffix.lower()](result, Path(temporary))
    return target


def _csv(result: ModelResult, path: Path) -> None:
    result.to_frame().to_csv(path, index=False)


def _parquet(result: ModelResult, path: Path) -> None:
    result.to_frame().to_parquet(path, index=False)


def _vtu(result: ModelResult, path: Path) -> None:
    import meshio

    field, values = result.field, result.values
    years = result.life_years
    finite = np.isfinite(years)
    log_life = np.full(field.size, NO_DAMAGE_LOG_LIFE)
    log_life[finite] = np.log10(np.maximum(years[finite], 1e-300))
    cells = [(one.kind, np.asarray(one.nodes)) for one in field.elements if one.kind in KNOWN_KINDS]
    if not cells:
        cells = [("vertex", np.arange(field.size)[:, None])]
    data = {
        "node": field.node_ids.astype(np.int64),
        "damage per repeat": values.damage,
        "log10 life in years": log_life,
        "no damage": (~finite).astype(np.int64),
        "worst event": values.worst_event.astype(np.int64),
        "lowest stress MPa": values.lowest,
        "highest stress MPa": values.highest,
    }
    meshio.Mesh(field.coordinates, cells, point_data=data).write(path, file_format="vtu")
