"""The notebooks run from their first cell to their last, each answers in words, tables and figures; they hold no outputs."""

from pathlib import Path

import jupytext
import pytest
from nbclient import NotebookClient

pytestmark = pytest.mark.slow

FOLDER = Path(__file__).parents[1] / "docs" / "notebooks"
PROMISED = {
    "measured_history_to_life": ("28.06 years", "Damage of one such cycle", "load scale"),
    "model_to_hot_spots": ("shear-dominated", "years on its worst plane"),
    "crack_to_inspection_plan": ("net-section yield", "look every", "8.25 years"),
    "vibration_to_test": ("dirlik", "does not cover", "g rms"),
}


def test_every_notebook_is_run_and_shown():
    assert sorted(path.stem for path in FOLDER.glob("*.py")) == sorted(PROMISED)
    listed = (FOLDER / "index.md").read_text(encoding="utf-8")
    assert all(f"\n{name}\n" in listed for name in PROMISED)


@pytest.mark.parametrize("name", PROMISED)
@pytest.mark.filterwarnings("ignore")  # of the kernel's own
def test_a_notebook_runs(name, tmp_path):
    book = jupytext.read(FOLDER / f"{name}.py")
    NotebookClient(book, timeout=600, kernel_name="python3", resources={"metadata": {"path": str(tmp_path)}}).execute()
    outputs = [output for cell in book.cells if cell.cell_type == "code" for output in cell.outputs]
    shown = [output.get("data", {}) for output in outputs]
    text = "\n".join([*(output.get("text", "") for output in outputs), *(data.get("text/html", "") for data in shown)])
    for words in PROMISED[name]:
        assert words in text, words
    assert sum("image/png" in data for data in shown) >= 2
    assert sum("<table" in data.get("text/html", "") for data in shown) >= 2
    assert not any(output.get("name") == "stderr" for output in outputs)
