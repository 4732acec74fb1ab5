"""A page and a picture of a model with 100 000 triangles of surface, and the report of a study: seconds and megabytes.

python benchmarks/pages.py [triangles]
python benchmarks/pages.py 100000 larkfell-demo/larkfell.toml
"""

from __future__ import annotations

import sys
import tempfile
import time
from pathlib import Path

import numpy as np
from whole_model import SPOT, model

from vivid_anvil.fields import ModelView, assess_model, hottest_places
from vivid_anvil.figures import plot, save_figure
from vivid_anvil.models import Elements, StressField
from vivid_anvil.pages import write_page
from vivid_anvil.reports import build_report, write_report
from vivid_anvil.study import read_study, run_study


def shell(triangles: int) -> ModelView:
    """A wavy shell of so many triangles, two a quadrilateral, with stresses that are highest at one corner."""
    side = int(np.sqrt(triangles / 2.0)) + 1
    _, loads, duty = model(4, 2_000)
    x, y = (one.ravel() for one in np.meshgrid(np.linspace(0.0, 900.0, side), np.linspace(0.0, 600.0, side)))
    points = np.column_stack([x, y, 40.0 * np.sin(x / 90.0) * np.cos(y / 70.0)])
    corner = (np.arange(side - 1)[:, None] * side + np.arange(side - 1)).ravel()
    quads = np.column_stack([corner, corner + 1, corner + side + 1, corner + side])
    level = 60.0 * np.exp(-np.hypot(x, y) / 400.0) * (1.0 + 0.3 * np.sin(x / 30.0) * np.sin(y / 25.0))
    stresses = np.stack(
        [level[:, None] * np.array([1.0, 0.3, 0.0, 0.2, 0.0, 0.0]) * share for share in (1.0, 0.3, 0.1)]
    )
    field = StressField(
        cases=("one", "two", "three"),
        node_ids=np.arange(len(points)) + 1,
        coordinates=points,
        stresses=stresses,
        elements=(Elements("quad", quads, np.arange(len(quads)) + 1),),
        node_sets={"left half": np.flatnonzero(x < 450.0)},
    )
    result = assess_model(field, loads, duty, SPOT)
    return ModelView(result, "corner", hottest_places(result, 10), "z", "shell")


def timed(name: str, path: Path, make: object) -> None:
    start = time.perf_counter()
    make(path)  # type: ignore[operator]
    print(f"{name:32s} {time.perf_counter() - start:7.2f} s {path.stat().st_size / 1e6:7.2f} MB")


if __name__ == "__main__":
    view = shell(int(sys.argv[1]) if len(sys.argv) > 1 else 100_000)
    with tempfile.TemporaryDirectory() as made:
        folder = Path(made)
        timed("page of the model", folder / "model.html", lambda path: write_page({"model": view}, path))
        timed("picture of the model", folder / "model.png", lambda path: save_figure(plot(view), path))
        if len(sys.argv) > 2:
            result = run_study(read_study(sys.argv[2]))
            plot(result.lives[0]) if result.lives else None  # fonts and the like are there
            document = build_report(result)
            for ending in (".html", ".docx", ".pdf"):
                timed(f"report as {ending}", folder / f"r{ending}", lambda path: write_report(document, path))
            timed(
                "building it again, then as .html",
                folder / "a.html",
                lambda path: write_report(build_report(result), path),
            )
        if len(sys.argv) > 3:
            write_page({"model": view}, sys.argv[3])
