"""Make the pictures in docs/screenshots from the demo: python docs/make_screenshots.py

Figures are saved as the commands draw them; what a command prints is rendered as text, 1280x800.
"""

from __future__ import annotations

import shlex
import subprocess
import sys
import tempfile
from pathlib import Path

import matplotlib.image
from matplotlib.figure import Figure

from vivid_anvil.figures import plot, save_figure
from vivid_anvil.study import read_study

FOLDER = Path(__file__).parent / "screenshots"
EXAMPLES = Path(__file__).parents[1] / "examples"
LINES = 38
COMMANDS = {
    "command-model": ["model", "hanger_head.toml"],
    "command-check": ["check", "larkfell.toml"],
    "command-life": ["life", "larkfell.toml"],
    "command-grow": ["grow", "larkfell.toml"],
    "command-inspections": ["inspections", "larkfell.toml", "--every", "1 year", "--figures", "figures"],
    "command-explain": ["explain", "larkfell.toml"],
    "command-count": ["count", "loaded_lap.csv", "--gate", "0.1 kN", "--matrix", "range-mean", "--figures", "gated"],
    "command-curve": ["curve", "class:EN 1993-1-9/71", "--at", "1e5,2e6,5e6,1e8", "--unit", "ksi"],
    "command-fit": ["fit", "tube_tests.csv", "--figures", "curves"],
    "command-estimate": ["estimate", "steel", "--strength", "780 MPa", "--surface", "ground", "--size", "40 mm"],
    "command-bad-input": ["life", "misspelt.toml"],
}
FIGURES = {
    "figure-history": "history-loaded-lap",
    "figure-cycles": "cycles-loaded-lap-vertical-force",
    "figure-life-weld": "life-weld-toe-at-the-grip-head",
    "figure-crack": "inspections-weld-toe-at-the-grip-head",
    "figure-fit": "../curves/fit-tube_tests",
}
PIECE = ("--r-ratio=0.1", "--piece=compact tension", "--force-range=4.5kN", "--thickness=12.5mm", "--width=50mm")
# Four figures at half size on one picture.
AROUND_A_CRACK = (
    "crack-law-weld-toe-at-the-grip-head",
    "crack-course-weld-toe-at-the-grip-head",
    "initial-size-weld-toe-at-the-grip-head",
    "growth-growth_readings",
)


def terminal(arguments: list[str], printed: str, path: Path) -> None:
    """What a terminal of 80 columns shows, as a picture; `LINES` lines at most."""
    lines = [f"$ vivid-anvil {shlex.join(arguments)}", *printed.splitlines()]
    shown = lines if len(lines) <= LINES else [*lines[: LINES - 1], f"... ({len(lines) - LINES + 1} more lines)"]
    figure = Figure(figsize=(12.8, 8.0), dpi=100, facecolor="#12181f")
    figure.text(
        0.012,
        0.985,
        "\n".join(shown),
        family="DejaVu Sans Mono",
        fontsize=12.2,
        color="#e8edf2",
        va="top",
        linespacing=1.18,
        parse_math=False,
    )
    figure.savefig(path)


def together(paths: list[Path], path: Path) -> None:
    """Four pictures on one."""
    figure = Figure(figsize=(12.8, 8.0), dpi=100)
    for i, one in enumerate(paths):
        axes = figure.add_axes((0.5 * (i % 2), 0.5 - 0.5 * (i // 2), 0.5, 0.5))
        axes.imshow(matplotlib.image.imread(one), interpolation="lanczos")
        axes.set_axis_off()
    figure.savefig(path)


def main() -> None:
    """Run the demo and the commands in a folder that goes away; write the pictures."""
    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-c", "from vivid_anvil.cli import main; main()"]
        subprocess.run([*command, "demo", "."], cwd=folder, check=True, capture_output=True)
        study = Path(folder) / "larkfell.toml"
        misspelt = (
            study.read_text().replace("notch_factor = 2.2", "notch_faktor = 2.2").replace('"355 MPa"', '"355 mPa"')
        )
        (Path(folder) / "misspelt.toml").write_text(misspelt)
        for name, arguments in COMMANDS.items():
            done = subprocess.run([*command, *arguments], cwd=folder, check=False, capture_output=True, text=True)
            terminal(arguments, done.stdout + done.stderr, FOLDER / f"{name}.png")
        curves = list(read_study(study).curves.values())
        save_figure(plot(curves), FOLDER / "figure-curves.png")
        subprocess.run([sys.executable, EXAMPLES / "hanger_head_model.py", folder], check=True, capture_output=True)
        (FOLDER / "figure-model.png").write_bytes((Path(folder) / "model.png").read_bytes())
        tests = ["growth-tests", "growth_readings.csv", *PIECE, "--figures", "figures"]
        subprocess.run([*command, *tests], cwd=folder, check=True, capture_output=True)
        figures = Path(folder) / "figures"
        together([figures / f"{name}.png" for name in AROUND_A_CRACK], FOLDER / "figure-around-a-crack.png")
        for name, drawn in FIGURES.items():
            (FOLDER / f"{name}.png").write_bytes((Path(folder) / "figures" / f"{drawn}.png").read_bytes())


if __name__ == "__main__":
    main()
