"""What the command on strain-life curves does: read, fit, estimate; call, show, write."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.units import UnitSystem

CARD, ESTIMATE, OF_STUDY = "card:", "estimate:", "#"
TESTS = (".csv", ".xlsx")
_WAYS = "'card:NAME', 'estimate:METHOD', 'study.toml', 'study.toml#CURVE', or a file of tests (.csv, .xlsx)"


@dataclass(frozen=True)
class StrainWishes:
    """What the curves are made of, and how they are wanted."""

    youngs_modulus: str | None = None
    strength: str | None = None
    hardness: float | None = None
    fracture_strain: str | None = None
    group: str | None = None
    form: str | None = None
    survival: float | None = None
    at: str | None = None
    cards: Path | None = None
    sheet: str | None = None


def strain_life(specifications: Sequence[str], wishes: StrainWishes, outputs: Outputs, units: UnitSystem) -> None:
    """One curve in full, or several side by side; tests with their fit."""
    outputs.check()
    with progress("reading the curves") as watch:
        from vivid_anvil.materials.strain.page import parts_table

        fits, curves = [], []
        for text in specifications:
            if text.lower().endswith(TESTS):
                fits.append(_fit(text, wishes))
                curves.append(fits[-1].curve())
            else:
                curves += _curves_of(text, wishes)
        curves = [one if wishes.survival is None else one.at_survival(wishes.survival) for one in curves]
        amplitudes = _amplitudes(wishes.at)
        table = parts_table(curves, amplitudes)
        drawings = [Drawing(f"strain life {one.name}", one, units) for one in curves]
        drawings += [Drawing(f"fit {one.tests.name}", one, units) for one in fits]
        record = {
            "curves": [curve.record() for curve in curves],
            "fits": [fit.to_dict() for fit in fits],
            table.key: table.rows(),
        }
        written = outputs.write(record, table, drawings, watch)
    from vivid_anvil.cli import show
    from vivid_anvil.materials.strain.page import strain_life_page

    out = show.console()
    for fit in fits:
        out.print(show.page(fit.page(units), units))
    for one in curves:
        out.print(show.page(strain_life_page(one, amplitudes, units), units))
    if len(curves) == 1 and amplitudes is not None and len(amplitudes) == 1:
        for number, step in enumerate((*one.compatible_steps(), *one.steps(amplitudes[0])), 1):
            out.print(f"\n{number}. {step}", markup=False, soft_wrap=True)
    show.say_written(out, written)


def _amplitudes(text: str | None) -> list[float] | None:
    """Strain amplitudes of the option --at."""
    if text is None:
        return None
    from vivid_anvil.units import coherent

    found = [coherent(one.strip(), "strain", "--at") for one in text.split(",")]
    if not all(one > 0.0 for one in found):
        raise InputError("--at", repr(text), "strain amplitudes above 0, such as '0.4 %, 0.2 %'")
    return found


def _fit(text: str, wishes: StrainWishes) -> Any:
    from vivid_anvil.materials.strain import fit_strain_life, read_strain_tests

    if wishes.youngs_modulus is None:
        raise InputError("--youngs-modulus", "nothing", "E, with which strains are parted, such as '206 GPa'")
    from vivid_anvil.units import coherent

    sheet: dict[str, Any] = {} if wishes.sheet is None else {"sheet": wishes.sheet}
    modulus = coherent(wishes.youngs_modulus, "stress", "--youngs-modulus")
    return fit_strain_life(read_strain_tests(text, **sheet), youngs_modulus=modulus)


def _curves_of(text: str, wishes: StrainWishes) -> list[Any]:
    """The curves that one word of the command line names."""
    from vivid_anvil.study import read_card_named, read_study
    from vivid_anvil.study.strain_life_keys import estimated

    if text.startswith(ESTIMATE):
        from vivid_anvil.units import coherent

        given: dict[str, Any] = {"estimate": text.removeprefix(ESTIMATE)}
        for key, value, dimension in (
            ("ultimate_strength", wishes.strength, "stress"),
            ("youngs_modulus", wishes.youngs_modulus, "stress"),
            ("true_fracture_strain", wishes.fracture_strain, "strain"),
        ):
            given |= {} if value is None else {key: coherent(value, dimension, f"--{key}")}
        for key, plain in (("brinell_hardness", wishes.hardness), ("group", wishes.group), ("form", wishes.form)):
            given |= {} if plain is None else {key: plain}
        return [estimated("", given)]
    if text.startswith(CARD):
        name, _, of_card = text.removeprefix(CARD).partition("/")
        card = read_card_named(name, wishes.cards)
        return [card.strain_life(of_card)] if of_card else list(card.strain_lives.values()) or [card.strain_life()]
    path, _, wanted = text.partition(OF_STUDY)
    if not path.endswith(".toml"):
        raise InputError("strain-life", repr(text), _WAYS)
    known = read_study(path).strain_life_curves
    if not known:
        raise InputError(path, "no strain-life curve", "at least one under strain_life_curves")
    if wanted and wanted not in known:
        where = inside(f"{path}", "strain_life_curves")
        raise InputError(where, repr(wanted), f"one of {listed(known)}", did_you_mean(wanted, known))
    return [known[wanted]] if wanted else list(known.values())
