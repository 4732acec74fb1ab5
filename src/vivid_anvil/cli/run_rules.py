"""What the command on mean-stress rules does: read, compare, show, write."""

from __future__ import annotations

from functools import partial
from pathlib import Path

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.cli.run import DETAILS, NO_SPOT, draw, say_written
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import UnitSystem


def rules(path: Path, spot: str | None, outputs: Outputs, units: UnitSystem, details: int = DETAILS) -> None:
    """All mean-stress rules for one hot spot, or for all whose curve states its R, the worst `details` shown and drawn."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.damage import compare_rules
        from vivid_anvil.study import lives_of_places, place_names, read_study

        study = read_study(path, watch=watch)
        names = place_names(study)
        if not names:
            raise InputError(path.name, *NO_SPOT)
        if spot is not None and spot not in names:
            raise InputError("--spot", repr(spot), f"one of {listed(names)}", did_you_mean(spot, names))
        found, without = [], []
        chosen = [name for name in names if spot in (None, name)]
        for i, name in enumerate(chosen):
            watch(f"rules for {name}", i, len(chosen))
            try:
                life = lives_of_places(study, name, watch=watch)[name]
                found.append(compare_rules(life))
            except InputError as error:
                if spot is not None:
                    raise
                without.append(f"{error.where}: {error.found}. {error.remedy}")
        rows = [{"hot_spot": one.base.hot_spot.name, **row} for one in found for row in one.rows()]
        worst = sorted(found, key=lambda one: one.base.life_repeats)
        shown = worst[:details]
        drawings: list[Drawing] = [(f"rules {one.base.hot_spot.name}", partial(draw, one, units)) for one in shown]
        record = {"title": study.title, "comparisons": [one.to_dict() for one in found], "without": without}
        written = outputs.write(record, rows, drawings, watch)
    from vivid_anvil.cli import tables

    out = tables.console()
    out.print(tables.heading(study.title))
    for comparison in shown:
        out.print(tables.rules_table(comparison))
        out.print(tables.findings_summary(comparison.base.findings, f"vivid-anvil life {path.name}"))
    if len(found) > len(shown):
        out.print(
            f"\n{len(found) - len(shown)} of {len(found)} hot spots are not shown: --details {len(found)} shows all."
        )
    for line in without:
        out.print(tables.indented(line))
    out.print(tables.critical_sums_table())
    say_written(out, written)
