"""Hold every number of commands, examples and reference cases while the code is moved about.

    python -m tests.held_numbers write before.json
    python -m tests.held_numbers write after.json
    python -m tests.held_numbers compare before.json after.json

Numbers are kept to the last digit. Where keys or words have changed, numbers are compared as a heap: what is only before, and
what is only after, is shown. Paths, sizes, hashes and times of a run are left out.
"""

from __future__ import annotations

import contextlib
import io
import json
import os
import re
import runpy
import sys
import tempfile
from collections import Counter
from pathlib import Path
from typing import Any

from tests.all_methods import METHODS
from tests.cli.events import COMMANDS, EVENTS, HEAD, REST, SHORT, lay_files
from tests.reference_values import cases, compared
from tests.study.texts import AT_ONCE, LAWS, SHAPES, changed_study, plain_crack
from vivid_anvil.cli import main
from vivid_anvil.demo import write_demo

EXAMPLES = sorted((Path(__file__).parents[1] / "examples").glob("*.py"))
NUMBER = re.compile(r"(?<![\w.])[-+−]?\d[\d_]*\.?\d*(?:[eE][-+]?\d+)?")
LEFT_OUT = ("inputs/", "sha256", "seconds", "version")
ON_THE_DEMO: dict[str, tuple[str, ...]] = {
    "check": ("check", "larkfell.toml"),
    "check of a model": ("check", "hanger_head.toml"),
    "count": ("count", "loaded_lap.csv", "--channel", "vertical force", "--matrix", "range-mean"),
    "life": ("life", "larkfell.toml", "--details", "9"),
    "life, US": ("life", "larkfell.toml", "--units", "us"),
    "rules": ("rules", "larkfell.toml"),
    "what-if": ("what-if", "larkfell.toml", "load scale", "0.9", "1.1"),
    "solve": ("solve", "larkfell.toml"),
    "grow": ("grow", "larkfell.toml", "--after-damage"),
    "grow, US": ("grow", "larkfell.toml", "--units", "us"),
    "inspections": ("inspections", "larkfell.toml", "--every", "1 year"),
    "explain": ("explain", "larkfell.toml"),
    "model": ("model", "hanger_head.toml", "--reserve", "stress"),
    "what-if of the model": ("what-if", "hanger_head.toml", "load scale", "1.1"),
    "curve": ("curve", "larkfell.toml"),
    "estimate": ("estimate", "steel", "--strength", "780 MPa", "--surface", "ground", "--size", "40 mm"),
    "fit": ("fit", "tube_tests.csv"),
    "growth-tests": (
        *("growth-tests", "growth_readings.csv", "--piece", "compact tension", "--force-range", "4.5 kN"),
        *("--thickness", "12.5 mm", "--width", "50 mm", "--r-ratio", "0.1"),
    ),
    "side-by-side": ("side-by-side", "larkfell.toml", "other.toml"),
}


def numbers_of(text: str) -> list[str]:
    return [found.replace("_", "").replace("−", "-") for found in NUMBER.findall(text)]


def flat(value: Any, path: str = "") -> dict[str, str]:
    if isinstance(value, dict):
        return {key: one for name, inner in value.items() for key, one in flat(inner, f"{path}/{name}").items()}
    if isinstance(value, list):
        return {key: one for i, inner in enumerate(value) for key, one in flat(inner, f"{path}/{i}").items()}
    return {path: repr(value)} if not any(left in path for left in LEFT_OUT) else {}


def called(arguments: tuple[str, ...], outputs: tuple[str, ...]) -> dict[str, Any]:
    """Run the command in this folder; what it printed, its exit code, the numbers of its files."""
    files = [word for kind in outputs for word in (f"--{kind}", f"out.{kind}")]
    sys.argv = ["vivid-anvil", *arguments, *files]
    printed, code = io.StringIO(), 0
    with contextlib.redirect_stdout(printed), contextlib.redirect_stderr(printed):
        try:
            main()
        except SystemExit as ended:
            code = ended.code or 0
    held = {"code": {"": str(code)}, "text": {str(i): n for i, n in enumerate(numbers_of(printed.getvalue()))}}
    if code == 2:
        held["says"] = {"": " ".join(printed.getvalue().split())}
    for name in sorted(Path().glob("out*")):
        text = name.read_text(encoding="utf-8")
        held[name.name] = flat(json.loads(text)) if name.suffix == ".json" else dict(enumerate(numbers_of(text)))
        name.unlink()
    return held


def held_commands(folder: Path) -> dict[str, Any]:
    """All commands on the demo, and each on each kind of event."""
    os.chdir(write_demo(folder / "demo").parent)
    text = Path("larkfell.toml").read_text(encoding="utf-8")
    Path("other.toml").write_text(text.replace("notch_factor = 2.2", "notch_factor = 2.4"), encoding="utf-8")
    held = {f"demo: {name}": called(words, ("json", "csv")) for name, words in ON_THE_DEMO.items()}
    (folder / "events").mkdir()
    os.chdir(folder / "events")
    lay_files(Path())
    for event, text in EVENTS.items():
        Path("study.toml").write_text(HEAD + text + (SHORT if "gate" in event else REST))
        for command, options in COMMANDS.items():
            options = tuple(word for word in options if word not in ("--nodes", "nodes.vtu"))
            held[f"{event}: {command}"] = called((command, "study.toml", *options), ("json", "csv"))
    return held


def held_cracks(folder: Path) -> dict[str, Any]:
    """Every shape, by both ways to grow, and every law, through the command."""
    demo = write_demo(folder / "plain")
    os.chdir(folder / "plain")
    held = {}
    for shape, keys in SHAPES.items():
        for order in ("per repeat", "cycle by cycle"):
            change = [plain_crack(shape, *keys)] + [AT_ONCE] * (order == "per repeat")
            study = changed_study(demo, Path(), *change)
            held[f"crack: {shape}, {order}"] = called(("grow", study.name), ("json", "csv"))
    for law, keys in LAWS.items():
        study = changed_study(demo, Path(), keys)
        held[f"law: {law}"] = called(("grow", study.name, "--after-damage"), ("json", "csv"))
        held[f"law: {law}, explain"] = called(("explain", study.name), ())
    return held


def held_examples(folder: Path) -> dict[str, Any]:
    held = {}
    for example in EXAMPLES:
        (folder / example.stem).mkdir()
        os.chdir(folder / example.stem)
        sys.argv = [str(example)]
        printed = io.StringIO()
        with contextlib.redirect_stdout(printed):
            runpy.run_path(str(example), run_name="__main__")
        held[f"example: {example.stem}"] = {"text": dict(enumerate(numbers_of(printed.getvalue())))}
    return held


def held_references() -> dict[str, Any]:
    return {
        f"reference: {method.name}, {case['id']}": {"": {name: repr(got) for name, _, got in compared(method, case)}}
        for method in METHODS
        for case in cases(method.cases)
    }


def rounded(numbers: list[str]) -> list[str]:
    """Numbers to ten digits: sums in another order differ in the last ones."""
    found = []
    for text in numbers:
        try:
            found.append(f"{float(text):.9e}" if abs(float(text)) > 1e-12 else "0")
        except ValueError:
            found.append(text)
    return sorted(found)


def compare(before: dict[str, Any], after: dict[str, Any]) -> list[str]:
    said = [f"{name}: only before" for name in before.keys() - after.keys()]
    for name, streams in before.items():
        for stream, held in streams.items():
            now = after.get(name, {}).get(stream, {})
            if sorted(held.values()) != sorted(now.values()):
                gone, come = Counter(held.values()), Counter(now.values())
                lost, new = sorted((gone - come).elements()), sorted((come - gone).elements())
                if rounded(lost) == rounded(new):
                    continue
                said.append(f"{name}, {stream}: lost {len(lost)} {lost[:6]}, new {len(new)} {new[:6]}")
    return said


if __name__ == "__main__":
    if sys.argv[1] == "write":
        target = Path(sys.argv[2]).absolute()
        with tempfile.TemporaryDirectory() as name:
            found = {
                **held_references(),
                **held_commands(Path(name)),
                **held_cracks(Path(name)),
                **held_examples(Path(name)),
            }
            os.chdir("/")
        target.write_text(json.dumps(found, indent=0), encoding="utf-8")
        print(f"{len(found)} runs held in {target}")
    else:
        one, other = (json.loads(Path(name).read_text(encoding="utf-8")) for name in sys.argv[2:4])
        found = compare(one, other)
        print("\n".join(found) or "the same numbers")
