"""What the command on models does: read, assess every node, show the worst places, write."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.cli.run import draw, say_written
from vivid_anvil.errors import InputError
from vivid_anvil.records import finding_records, plain
from vivid_anvil.units import UnitSystem

VIEWS = ("corner", "front", "back")
ENDINGS = (".vtu", ".csv", ".parquet")


@dataclass(frozen=True)
class ModelWishes:
    """How many places, of which set, on how many threads, where the result at every node goes."""

    most: int
    node_set: str | None
    threads: int
    nodes_file: Path | None


def model(path: Path, wishes: ModelWishes, outputs: Outputs, units: UnitSystem) -> None:
    """The life at every node of a study's model, and its worst places."""
    outputs.check()
    if wishes.nodes_file is not None and wishes.nodes_file.suffix.lower() not in ENDINGS:
        raise InputError("--nodes", str(wishes.nodes_file), f"a file that ends in {', '.join(ENDINGS)}")
    with progress("reading the study") as watch:
        from vivid_anvil.fields import (
            ModelView,
            hottest_places,
            node_life,
            node_trust,
            reserves_on_stress,
            write_results,
        )
        from vivid_anvil.study import read_study, run_model

        study = read_study(path, watch=watch)
        with ThreadPoolExecutor(wishes.threads) as pool:
            result = run_model(study, executor=pool, watch=watch)
        job = study.model
        assert job is not None, "run_model refuses a study without model"
        watch("worst places", 0, 1)
        places = hottest_places(result, wishes.most, apart=job.apart, node_set=wishes.node_set)
        at = [job.field.place_of(one.node) for one in places]
        reserves = [None] * len(at) if study.target_life is None else reserves_on_stress(result, at).tolist()
        rows: list[dict[str, Any]] = [
            plain({**one.to_row(), "reserve_on_stress": reserve}) for one, reserve in zip(places, reserves, strict=True)
        ]
        trust, doubts = node_trust(result, places[0].node)
        life = node_life(result, places[0].node)
        findings = (*doubts, *life.findings)
        drawings: list[Drawing] = [(f"life node {places[0].node}", partial(draw, life, units))]
        if job.field.elements:
            drawings += [(f"model {view}", partial(draw, ModelView(result, view, places), units)) for view in VIEWS]
        record = {
            "title": study.title,
            "nodes": job.field.size,
            "nodes_counted": int(result.values.counted.sum()),
            "measure": result.measure.name,
            "places": rows,
            "worst_node_biaxiality": trust.biaxiality,
            "worst_node_off_straight_line": trust.off_line,
            "findings": finding_records(findings),
        }
        written = outputs.write(record, rows, drawings, watch)
        if wishes.nodes_file is not None:
            written.append(write_results(result, wishes.nodes_file))
    from vivid_anvil.cli import model_tables, tables

    out = tables.console()
    out.print(tables.heading(study.title))
    out.print(model_tables.facts(result, trust, units))
    out.print(model_tables.places_table(places, reserves, units))
    out.print()
    out.print(tables.findings_list(findings))
    say_written(out, written)
