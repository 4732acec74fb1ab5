"""The start page and the pages per job are followed as a reader would: files written, code run, commands typed, output held."""

import re
import shlex
from pathlib import Path

import pytest

from vivid_anvil.writing.meanings import finding_meanings

pytestmark = pytest.mark.slow

DOCS = Path(__file__).parents[1] / "docs"
FOLLOWED = [DOCS / "start.md", *sorted((DOCS / "jobs").glob("*.md"))]
BLOCK = re.compile(r"^```(console|python|\{code-block\} toml\n:caption: \S+)\n(.*?)^```$", re.DOTALL | re.MULTILINE)


def blocks(page):
    """What is to be done on a page, in its order: kind and text."""
    return BLOCK.findall(page.read_text(encoding="utf-8"))


def steps(text):
    """Commands of a console, each with the lines that are shown of what it prints."""
    found = []
    for line in text.splitlines():
        if line.startswith("$ "):
            found.append((line[2:], []))
        else:
            found[-1][1].append(line)
    return found


@pytest.mark.parametrize("page", FOLLOWED, ids=lambda page: page.stem)
def test_a_page_is_followed(page, run, tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    monkeypatch.setenv("COLUMNS", "80")
    commands = 0
    for kind, text in blocks(page):
        if kind.startswith("{code-block}"):
            Path(kind.rpartition(" ")[2]).write_text(text.lstrip("\n"), encoding="utf-8")
        elif kind == "python":
            exec(compile(text, str(page), "exec"), {})
        else:
            for command, shown in steps(text):
                commands += _typed(command, shown, run, monkeypatch)
    assert commands >= 4


def _typed(command, shown, run, monkeypatch):
    """1 for a command of ours whose output holds the lines that are shown, in their order; 0 for another one."""
    program, *arguments = shlex.split(command)
    if program == "cd":
        monkeypatch.chdir(arguments[0])
    if program != "vivid-anvil":
        return 0
    code, out, err = run(*arguments)
    assert (code, err) == (0, ""), command
    rest = [" ".join(line.split()) for line in out.splitlines()]
    for line in shown:
        at = next((i for i, printed in enumerate(rest) if " ".join(line.split()) in printed), None)
        assert at is not None, f"{command}: {line!r} is not among\n" + "\n".join(rest)
        rest = rest[at + 1 :]
    return 1


def test_every_job_names_its_mistakes_by_findings_that_there_are():
    codes = {one.name for one in finding_meanings()}
    for page in FOLLOWED[1:]:
        named = re.findall(r"\[([a-z-]+)\]\(#finding-([a-z-]+)\)", page.read_text(encoding="utf-8"))
        assert len(named) >= 4, page.name
        assert all(word == target and target in codes for word, target in named), page.name
