"""What the command what-if does: read, vary, show, write."""

from __future__ import annotations

import dataclasses
import tomllib
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import UnitSystem


def what_if(path: Path, key: str, values: Sequence[str], spot: str | None, outputs: Outputs, units: UnitSystem) -> None:
    """Lives for each value of a key, beside the study as it is."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.study import FlawsWhatIf, of_flaws, read_study, what_if_flaws
        from vivid_anvil.study import what_if as vary_lives
        from vivid_anvil.study.what_if import OF_CRACKS

        study = read_study(path, watch=watch)
        vary: Any = what_if_flaws if of_flaws(study, key, spot) else vary_lives
        result = vary(study, key, [_value(one) for text in values for one in _spread(text)], spot=spot, watch=watch)
        drawings: list[Drawing] = [Drawing("what if", result, units)]
        written = outputs.write(result.to_dict(), result.tables()[0], drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    page = result.page(units)
    out.print(show.page(dataclasses.replace(page, words=(), findings=None), units))
    out.print()
    out.print(show.words_grid(page.words))
    if result.key.partition("/")[0] not in OF_CRACKS:
        command = "flaws" if isinstance(result, FlawsWhatIf) else "life"
        out.print(show.findings_summary(result.findings, f"vivid-anvil {command} {path.name}"))
    show.say_written(out, written)


def side_by_side(paths: Sequence[Path], outputs: Outputs, units: UnitSystem) -> None:
    """What differs between studies."""
    outputs.check()
    with progress("reading the studies") as watch:
        from vivid_anvil.study import compare_studies, read_study, run_study

        names = [path.stem for path in paths]
        if len(set(names)) < len(names):
            names = [str(path) for path in paths]
        if len(set(names)) < len(names):
            raise InputError("side-by-side", "the same study twice", "different studies")
        found = {
            name: run_study(read_study(path, watch=watch), watch=watch) for name, path in zip(names, paths, strict=True)
        }
        result = compare_studies(found)
        written = outputs.write(
            result.to_dict(), next((one for one in result.tables() if len(one)), result.tables()[0])
        )
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.page(dataclasses.replace(result.page(units), findings=None), units))
    for name, one in result.results.items():
        out.print(show.heading(name))
        command = "flaws" if one.study.duty_cycle is None else "life"
        out.print(show.findings_summary(one.findings, f"vivid-anvil {command} {name}.toml"))
    show.say_written(out, written)


def _spread(text: str) -> list[str]:
    """`1.8..2.6/5` as five values from 1.8 to 2.6, with their unit where there is one; anything else as it stands."""
    first, dots, rest = text.partition("..")
    last, slash, steps = rest.partition("/")
    if not (dots and slash):
        return [text]
    try:
        (low, unit), (high, other), count = _number(first), _number(last), int(steps)
    except ValueError:
        raise InputError(
            "what-if, values",
            repr(text),
            "a range such as 1.8..2.6/5 or '25 mm..64 mm/4', four values from 25 to 64 mm",
        ) from None
    if unit and other and unit != other:
        raise InputError("what-if, values", repr(text), "one unit at both ends")
    if count < 2 or not low < high:
        raise InputError("what-if, values", repr(text), "a range that rises, of two values or more")
    unit = f" {unit or other}" if unit or other else ""
    return [f"{low + (high - low) * i / (count - 1):.12g}{unit}" for i in range(count)]


def _number(text: str) -> tuple[float, str]:
    """Number and unit of an end of a range."""
    from vivid_anvil.study import number_and_unit

    found = number_and_unit(_value(text))
    if found is None:
        raise ValueError
    return found


def _value(text: str) -> Any:
    """A value as a study file has it: a number, true or false, or else text."""
    try:
        return tomllib.loads(f"value = {text}")["value"]
    except tomllib.TOMLDecodeError:
        return text
