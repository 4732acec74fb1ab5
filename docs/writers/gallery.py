"""The gallery: each example is run as it stands, and shown with its pictures, what it prints and its text."""

from __future__ import annotations

import ast
import hashlib
import os
import re
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from writers.marks import text

ROOT = Path(__file__).parents[2]
EXAMPLES, KEPT = ROOT / "examples", ROOT / "build" / "gallery"
MOST_PICTURES, MOST_LINES = 2, 40
OPENING = """# Gallery

Scripts that run as they stand, in an empty folder, on the demo or on data of their own; the tests run each and read what it
prints.

"""


def write_gallery(folder: Path) -> None:
    """A page with all pictures, and one for each example."""
    folder.mkdir(parents=True)
    cards, names = [], []
    scripts = sorted(EXAMPLES.glob("*.py"))
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        shown_by = dict(zip(scripts, pool.map(lambda script: _run(script, folder), scripts), strict=True))
    for script, (pictures, printed) in shown_by.items():
        says = ast.get_docstring(ast.parse(script.read_text(encoding="utf-8"))) or ""
        title = script.stem.replace("_", " ").capitalize()
        first = says.partition("\n")[0]
        (folder / f"{script.stem}.md").write_text(_page(title, first, script, pictures, printed), encoding="utf-8")
        names.append(script.stem)
        shown = f"[![{title}]({pictures[0]})]({script.stem}.md)\n\n" if pictures else ""
        cards.append(f"## [{title}]({script.stem}.md)\n\n{text(first)}\n\n{shown}")
    listed = "\n".join(names)
    page = f"{OPENING}```{{toctree}}\n:hidden:\n\n{listed}\n```\n\n{''.join(cards)}"
    (folder / "index.md").write_text(page, encoding="utf-8")


def _run(script: Path, folder: Path) -> tuple[list[str], str]:
    """Names of the pictures that the script saves, copied beside the page, and what it prints."""
    kept = KEPT / _state(script)
    if not (kept / "printed.txt").exists():
        _run_into(script, kept)
    found = sorted(kept.glob("*.png"))[:MOST_PICTURES]
    if not found:
        raise RuntimeError(f"{script.name}: an example of the gallery saves a picture")
    names = [f"{script.stem}-{re.sub(r'[^a-z0-9.]+', '-', path.name.lower())}" for path in found]
    for path, name in zip(found, names, strict=True):
        shutil.copy(path, folder / name)
    return names, (kept / "printed.txt").read_text(encoding="utf-8")


def _state(script: Path) -> str:
    """A name that changes with the script and with any file of the package: what was run before need not run again."""
    package = sorted((ROOT / "src").rglob("*.py"))
    whole = hashlib.sha256(b"".join(path.read_bytes() for path in (script, *package))).hexdigest()
    return f"{script.stem}-{whole[:16]}"


def _run_into(script: Path, kept: Path) -> None:
    """Run it in an empty folder; its pictures and what it printed are kept."""
    with tempfile.TemporaryDirectory() as place:
        done = subprocess.run(
            [sys.executable, str(script), *([place] if _takes_folder(script) else [])],
            cwd=place,
            capture_output=True,
            text=True,
            check=False,
            env={**os.environ, "MPLBACKEND": "agg", "PYTHONIOENCODING": "utf-8"},
        )
        if done.returncode:
            raise RuntimeError(f"{script.name}: {done.stderr}")
        kept.mkdir(parents=True, exist_ok=True)
        for path in Path(place).rglob("*.png"):
            shutil.copy(path, kept / path.name)
        (kept / "printed.txt").write_text(done.stdout.replace(place, "folder"), encoding="utf-8")


def _takes_folder(script: Path) -> bool:
    """Whether its first argument is the folder for its files."""
    return "[folder" in script.read_text(encoding="utf-8").partition("import")[0]


def _page(title: str, says: str, script: Path, pictures: list[str], printed: str) -> str:
    lines = printed.rstrip().splitlines()
    more = f"\n... and {len(lines) - MOST_LINES} more lines" if len(lines) > MOST_LINES else ""
    shown = "".join(f"![{title}]({name})\n\n" for name in pictures)
    output = "\n".join(lines[:MOST_LINES]) + more
    return (
        f"# {title}\n\n{text(says)}\n\n{shown}"
        f"```{{literalinclude}} ../../../examples/{script.name}\n:language: python\n:caption: examples/{script.name}\n```\n\n"
        f"It prints:\n\n```text\n{output}\n```\n"
    )
