"""Make the pictures in docs/screenshots from the demo: python docs/make_screenshots.py

Figures are saved as the commands draw them; what a command prints is drawn whole, in the colours of its terminal.
"""

from __future__ import annotations

import os
import shlex
import subprocess
import sys
import tempfile
import textwrap
import time
from pathlib import Path

from matplotlib.figure import Figure
from rich.cells import cell_len
from rich.console import Console
from rich.terminal_theme import MONOKAI as THEME
from rich.text import Text

from vivid_anvil.figures import plot
from vivid_anvil.growth import crack_course, inspection_plan, lives_over_size, visited_law
from vivid_anvil.study import grow_cracks, read_study

FOLDER = Path(__file__).parent / "screenshots"
EXAMPLES = Path(__file__).parents[1] / "examples"
SHOWN = os.environ | {"FORCE_COLOR": "1", "TERM": "xterm-256color", "COLUMNS": "100"}
COLUMNS, LINE = 100, 0.232  # of a terminal; height of a line, inches
COMMANDS = {
    "command-model": ["model", "hanger_head.toml"],
    "command-check": ["check", "larkfell.toml"],
    "command-life": ["life", "larkfell.toml"],
    "command-grow": ["grow", "larkfell.toml"],
    "command-explain": ["explain", "larkfell.toml"],
    "command-count": ["count", "loaded_lap.csv", "--gate", "0.1 kN", "--matrix", "range-mean", "--figures", "gated"],
    "command-fit": ["fit", "tube_tests.csv", "--figures", "curves"],
    "command-vibration": ["vibration", "sensor_bracket.toml", "--spot", "bend, by hand", "--figures", "figures"],
    "command-tailor": [
        *("tailor", "sensor_bracket.toml", "--time", "8 h", "--slope", "5", "--from", "10 Hz", "--to", "400 Hz"),
        *("--quality-factor", "33", "--against", "general_test.csv", "--against-time", "24 h", "--figures", "figures"),
    ],
    "command-flaws": ["flaws", "tower_base.toml", "--details", "0"],
    "command-bad-input": ["life", "misspelt.toml"],
}
METHODS = ("grease-hole-in-the-bore", "groove-of-the-shaft", "upper-face", "root-of-the-bar")
FIGURES = {
    "figure-life-weld": "life-weld-toe-at-the-grip-head",
    "figure-vibration": "vibration-running-bend-by-hand",
    "figure-flaw": "flaw-h2",
}


def terminal(arguments: list[str], printed: str, path: Path) -> None:
    """What a terminal shows, whole and in its colours, as a picture."""
    asked = textwrap.fill(f"$ vivid-anvil {shlex.join(arguments)}", COLUMNS - 2, subsequent_indent="      ")
    text = Text.from_ansi(f"{asked}\n{printed}")
    lines = text.split("\n", allow_blank=True)
    figure = Figure(figsize=(12.8, max(8.0, 0.4 + LINE * len(lines))), dpi=100, facecolor="#12181f")
    size = figure.get_size_inches()
    console = Console(width=COLUMNS, force_terminal=True, color_system="truecolor")
    for i, line in enumerate(lines):
        column = 0
        for segment in line.render(console):
            style = segment.style
            colour = "#e8edf2" if style is None or style.color is None else style.color.get_truecolor(THEME).hex
            figure.text(
                (0.15 + 0.1222 * column) / size[0],
                1.0 - (0.2 + LINE * i) / size[1],
                segment.text.rstrip("\n"),
                family="DejaVu Sans Mono",
                fontsize=14.6,
                color=colour,
                weight="bold" if style is not None and style.bold else "normal",
                va="top",
                parse_math=False,
            )
            column += cell_len(segment.text.rstrip("\n"))
    figure.savefig(path)


def crack(folder: Path, path: Path) -> None:
    """Growth with inspections, law, course and initial sizes of the demo's crack, each drawn at the size that it has here."""
    study = read_study(folder / "larkfell.toml")
    grown = grow_cracks(study)[0]
    figure = Figure(figsize=(16.0, 10.0), dpi=80, layout="constrained")
    panels = figure.subplots(2, 2).ravel()
    for axes, thing in zip(
        panels, (inspection_plan(grown), visited_law(grown), crack_course(grown), lives_over_size(grown)), strict=True
    ):
        plot(thing, ax=axes)
    figure.savefig(path)


def page(file: Path, path: Path) -> None:
    """A page with figures to look around in, as a browser shows it."""
    from selenium import webdriver
    from selenium.webdriver.chrome.service import Service
    from selenium.webdriver.support.ui import WebDriverWait

    options = webdriver.ChromeOptions()
    options.binary_location = "/usr/bin/chromium"
    for one in ("--headless=new", "--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader"):
        options.add_argument(one)
    browser = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    browser.set_window_size(1280, 1040)
    browser.get(file.resolve().as_uri())
    browser.execute_script("document.querySelector('#part-2').scrollIntoView()")
    WebDriverWait(browser, 60).until(
        lambda found: found.execute_script("return document.querySelector('#figure-2').dataset.drawn === 'yes'")
    )
    browser.execute_script("document.querySelectorAll('button.place')[2].click()")
    time.sleep(3.0)
    browser.save_screenshot(str(path))
    browser.quit()


def first_pages(document: Path, path: Path) -> None:
    """The first page of a report, and that with all places, side by side."""
    import pypdfium2
    from PIL import Image

    pages = pypdfium2.PdfDocument(document)
    second = next(i for i, one in enumerate(pages) if "what is used" in one.get_textpage().get_text_range())
    drawn = [pages[i].render(scale=1.9).to_pil() for i in (0, second)]
    width, height = drawn[0].size
    both = Image.new("RGB", (2 * width, height), "white")
    for i, one in enumerate(drawn):
        both.paste(one, (i * width, 0))
    both.thumbnail((1600, 1130))
    both.save(path)


def one_above_other(pictures: list[Path], path: Path) -> None:
    """Pictures as one."""
    from PIL import Image

    drawn = [Image.open(one).convert("RGB") for one in pictures]
    whole = Image.new("RGB", (drawn[0].width, sum(one.height for one in drawn)), "white")
    at = 0
    for one in drawn:
        whole.paste(one, (0, at))
        at += one.height
    whole.save(path)


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
            told = {"cwd": folder, "check": False, "capture_output": True, "text": True, "env": SHOWN}
            done = subprocess.run([*command, *arguments], **told)
            errors = "\n".join(line for line in done.stderr.splitlines() if not ("━" in line or "\x1b[?25" in line))
            terminal(arguments, done.stdout if done.returncode == 0 else errors, FOLDER / f"{name}.png")
        subprocess.run([sys.executable, EXAMPLES / "hanger_head_model.py", folder], check=True, capture_output=True)
        bush = ["model", "suspension_bush.toml", "--figures", "bush"]
        subprocess.run([*command, *bush], cwd=folder, check=True, capture_output=True)
        one_above_other(
            [Path(folder) / "model.png", Path(folder) / "bush" / "model-corner.png"], FOLDER / "figure-model.png"
        )
        crack(Path(folder), FOLDER / "figure-crack.png")
        report = ["report", "larkfell.toml", "report.pdf"]
        subprocess.run([*command, *report], cwd=folder, check=True, capture_output=True)
        first_pages(Path(folder) / "report.pdf", FOLDER / "page-report.png")
        model = ["model", "hanger_head.toml", "--page", "model.html"]
        subprocess.run([*command, *model], cwd=folder, check=True, capture_output=True)
        page(Path(folder) / "model.html", FOLDER / "page-model.png")
        in_full = ["flaws", "tower_base.toml", "--flaw", "H2", "--figures", "figures"]
        yields = ["life", "suspension_pin.toml", "--figures", "figures"]
        turns = ["life", "grip_shaft.toml", "--figures", "figures"]
        tears = ["life", "suspension_bush.toml", "--figures", "figures"]
        laid = ["life", "safety_bar.toml", "--figures", "figures"]
        for asked in (in_full, yields, turns, tears, laid):
            subprocess.run([*command, *asked], cwd=folder, check=True, capture_output=True)
        methods = [Path(folder) / "figures" / f"life-{name}.png" for name in METHODS]
        one_above_other(methods, FOLDER / "figure-methods.png")
        for name, drawn in FIGURES.items():
            (FOLDER / f"{name}.png").write_bytes((Path(folder) / "figures" / f"{drawn}.png").read_bytes())


if __name__ == "__main__":
    main()
