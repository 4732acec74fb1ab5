"""The reference of formulas: what can be chosen, from the tables of choices, and the lines that hand calculations print."""

from __future__ import annotations

import importlib
import pkgutil
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import vivid_anvil as va
from vivid_anvil.demo import write_demo
from vivid_anvil.ground.choices import Choices
from vivid_anvil.materials import LAWS, MEAN_STRESS_RULES
from vivid_anvil.study import assess_flaws, assess_fronts, assess_lives, flaw_in_full, grow_cracks
from vivid_anvil.writing.working import Step, Working
from writers.marks import code, first_paragraph, table, text

OPENING = """# Formulas

Each choice that a study or an argument may name, with its formula and source as the code states them, then the lines that
`vivid-anvil explain` prints for the places, cracks and flaws of the demo. Every one is held against independent references:
[verification](../verification.md). Units inside are MPa, mm, N, s, Hz and MPa√mm.

## What can be chosen

"""
LINES = """## Lines of the hand calculations

Formula and source of each line, as printed for the demo; `vivid-anvil explain` puts the numbers in.

"""
STUDIES = ("larkfell", "suspension_pin", "grip_shaft", "sensor_bracket", "suspension_bush", "tower_base", "safety_bar")


def write_formulas(file: Path) -> None:
    """Both parts."""
    parts = [OPENING]
    for choices in sorted(every_table(), key=lambda one: one.what):
        rows = [(code(name), _says(choices[name], name)) for name in choices]
        if any(says for _, says in rows):
            what = choices.what.partition(",")[0].replace("_", " ")
            parts.append(f"### {text(what[:1].upper() + what[1:])}\n\n")
            parts.append(table(["name", "what it is"], rows))
    parts.append(LINES)
    for title, workings in _workings():
        parts.append(f"### {text(title)}\n\n")
        parts.append(table(["line", "formula", "unit", "source"], _lines(workings)))
    file.write_text("".join(parts), encoding="utf-8")


def every_table() -> list[Choices[Any]]:
    """All tables of choices of the package."""
    found: dict[int, Choices[Any]] = {}
    for module in pkgutil.walk_packages(va.__path__, "vivid_anvil."):
        if not module.name.startswith(("vivid_anvil.cli", "vivid_anvil.__main__")):
            for thing in vars(importlib.import_module(module.name)).values():
                if isinstance(thing, Choices) and len(thing):
                    found[id(thing)] = thing
    assert {id(LAWS), id(MEAN_STRESS_RULES)} <= found.keys()
    return list(found.values())


def _says(choice: Any, name: str) -> str:
    """What its docstring says first; nothing where it stands on that of a noun of another kind."""
    says = first_paragraph(choice.__doc__ if isinstance(choice, type) or callable(choice) else type(choice).__doc__)
    return text(says) if says and says != name else ""


def _workings() -> Iterator[tuple[str, list[Working]]]:
    """The hand calculations of the demo, study by study."""
    with tempfile.TemporaryDirectory() as place:
        folder = write_demo(place).parent
        for name in STUDIES:
            study = va.read_study(folder / f"{name}.toml")
            answers: list[Any] = [*assess_lives(study), *grow_cracks(study)] if study.duty_cycle else []
            if study.flaws is not None:
                answers += [flaw_in_full(study, one)[0] for one in assess_flaws(study).flaws[:3]]
                answers += assess_fronts(study)
            yield study.title, [one.working("metric") for one in answers]


def _lines(workings: list[Working]) -> list[tuple[str, ...]]:
    """Each formula once."""
    seen: dict[str, Step] = {}
    for working in workings:
        for step in working.steps:
            seen.setdefault(step.formula, step)
    return [(text(one.title), code(one.formula), text(one.unit), text(one.source)) for one in seen.values()]
