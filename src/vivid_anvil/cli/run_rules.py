"""What the command on mean-stress rules does: read, compare, show, write."""

from __future__ import annotations

import dataclasses
from pathlib import Path

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.cli.run import DETAILS, NO_SPOT
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import UnitSystem


def rules(path: Path, spot: str | None, outputs: Outputs, units: UnitSystem, details: int = DETAILS) -> None:
    """All mean-stress rules for one hot spot, or for all whose curve states its R, the worst `details` shown and drawn."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.damage import compare_rules
        from vivid_anvil.study import lives_of_places, place_names, read_study
        from vivid_anvil.writing.table import stacked

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
        worst = sorted(found, key=lambda one: one.base.life_repeats)
        drawings: list[Drawing] = [Drawing(f"rules {one.title}", one, units) for one in worst[:details]]
        record = {"title": study.title, "comparisons": [one.to_dict() for one in found], "without": without}
        written = outputs.write(record, stacked([one.tables()[0] for one in found]), drawings, watch)
    from vivid_anvil.cli import show
    from vivid_anvil.damage.critical_sums import critical_sums_table

    out = show.console()
    out.print(show.heading(study.title))
    for comparison in worst[:details]:
        page = comparison.page(units)
        out.print(show.page(dataclasses.replace(page, words=(), findings=None), units))
        out.print()
        out.print(show.words_grid(page.words))
        out.print(show.findings_summary(comparison.findings, f"vivid-anvil life {path.name}"))
    if len(found) > details:
        out.print(
            f"\n{len(found) - details} of {len(found)} hot spots are not shown: --details {len(found)} shows all."
        )
    for line in without:
        out.print(show.indented(line))
    out.print(show.table(critical_sums_table(), units))
    show.say_written(out, written)
