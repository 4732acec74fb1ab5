"""What the command on models does: read, assess every node, show the worst places, write."""

from __future__ import annotations

from collections.abc import Iterator
from concurrent.futures import Executor, ThreadPoolExecutor
from contextlib import contextmanager
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.cli.run import draw, say_written
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import gravest_first
from vivid_anvil.writing.plain import finding_records, plain

if TYPE_CHECKING:
    from vivid_anvil.damage import LifeResult
    from vivid_anvil.fields import HotPlace, ModelResult

VIEWS = ("corner", "front", "back")
ENDINGS = (".vtu", ".csv", ".parquet")
RESERVES = ("stress", "life", "none")


@dataclass(frozen=True)
class ModelWishes:
    """Which places, seen from where, who computes, where finished work is kept, where the result at every node goes."""

    most: int
    node_set: str | None = None
    share: float = 0.0
    life_below: str | None = None
    seen_from: tuple[str, ...] = ()
    threads: int = 2
    cluster: str | None = None
    keep: Path | None = None
    nodes_file: Path | None = None
    node: int | None = None
    reserve: str = "stress"

    def check(self) -> None:
        """InputError, before anything is computed, for an ending or a view that cannot be meant."""
        if self.nodes_file is not None and self.nodes_file.suffix.lower() not in ENDINGS:
            raise InputError("--nodes", str(self.nodes_file), f"a file that ends in {', '.join(ENDINGS)}")
        from vivid_anvil.ground.checks import one_of

        one_of("--reserve", self.reserve, RESERVES)
        for name in self.seen_from:
            _view(name)


def model(path: Path, wishes: ModelWishes, outputs: Outputs, units: UnitSystem) -> None:
    """The life at every node of a study's model, and its worst places."""
    outputs.check()
    wishes.check()
    with progress("reading the study") as watch:
        from vivid_anvil.fields import (
            hottest_places,
            model_findings,
            neighbours_within,
            node_life,
            reserves_on_stress,
            write_results,
        )
        from vivid_anvil.study import read_study, run_model, run_paths

        study = read_study(path, watch=watch)
        with _workers(wishes) as pool:
            result = run_model(study, executor=pool, keep_in=wishes.keep, watch=watch)
        job = study.model
        assert job is not None, "run_model refuses a study without model"
        watch("worst places", 0, 1)
        chosen: dict[str, Any] = {
            "node_set": wishes.node_set,
            "share_of_worst": wishes.share,
            "life_below": wishes.life_below,
        }
        places = hottest_places(result, wishes.most, apart=job.apart, **chosen)
        reserves = _reserves(result, places, wishes.reserve)
        rows = _rows(places, reserves, wishes.reserve)
        findings = model_findings(result, places)
        drawings: list[Drawing] = []
        lasting = next((one for one in places if one.life_repeats > 0.0), None)  # one that fails at once has no working
        if lasting is not None:
            life = node_life(result, lasting.node)
            findings = gravest_first((*findings, *life.findings))
            drawings.append((f"life node {lasting.node}", partial(draw, life, units)))
        drawings += _surfaces(result, places, wishes, units, job.up, study.title)
        record: dict[str, Any] = {
            "title": study.title,
            "nodes": result.field.size,
            "nodes_counted": int(result.values.counted.sum()),
            "measure": job.planes or result.measure.label,
            "places": rows,
            "findings": finding_records(findings),
        }
        paths = run_paths(study)
        path_places = [] if paths is None else hottest_places(paths, paths.field.size, apart=0.0)
        path_reserves = [] if paths is None else _reserves(paths, path_places, wishes.reserve)
        if paths is not None:
            record["paths"] = _rows(path_places, path_reserves, wishes.reserve)
        asked, refused = _asked(result, wishes.node)
        if asked is not None:
            record["node"] = asked.to_dict()
            drawings.append((f"life node {wishes.node}", partial(draw, asked, units)))

        def every_node(path: Path) -> None:
            solved = result.target_repeats is not None and wishes.reserve == "stress"
            every = reserves_on_stress(result, watch=watch) if solved else None
            write_results(result, path, reserves=every)

        written = outputs.write(record, rows, drawings, watch, others=(every_node,))
    from vivid_anvil.cli import model_tables, tables

    out, calendar = tables.console(), study.duty_cycle.calendar
    out.print(tables.heading(study.title))
    out.print(model_tables.facts(result, job.planes or result.measure.label))
    if places:
        apart = job.apart if job.apart is not None else neighbours_within(result.field)
        out.print(model_tables.places_table(places, reserves, calendar, units, wishes.reserve))
        out.print(model_tables.doings_table(places, apart, units))
        out.print()
        out.print(model_tables.worst_cycle(places[0], units))
    else:
        out.print(tables.indented("No place is as bad as asked for."))
    out.print()
    if path_places:
        out.print(model_tables.paths_table(path_places, path_reserves, calendar, units, wishes.reserve))
        out.print()
    out.print(tables.findings_list(findings))
    if refused is not None:
        out.print(tables.indented(f"Node {wishes.node} fails at once: {refused}"))
    if asked is not None and wishes.node is not None:
        from vivid_anvil.damage import life_working
        from vivid_anvil.fields import stress_working

        out.print(tables.life_details(asked, units, f"{study.title}: node {wishes.node}"))
        if asked.damage_per_repeat > 0.0:
            out.print(tables.worst_table(asked, units))
        workings = (stress_working(result, wishes.node, units), life_working(asked, units))
        out.print("\n\n".join(str(one) for one in workings), markup=False, soft_wrap=True)
    say_written(out, written)


def _asked(result: ModelResult, node: int | None) -> tuple[LifeResult | None, InputError | None]:
    """The node as a hot spot; or why a node that fails at once has no hand calculation."""
    from vivid_anvil.fields import node_life

    if node is None:
        return None, None
    if result.field.place_of(node) in result.failed:
        try:
            return node_life(result, node), None
        except InputError as error:
            return None, error
    return node_life(result, node), None


@contextmanager
def _workers(wishes: ModelWishes) -> Iterator[Executor]:
    """Threads of this machine, or the workers of a cluster."""
    if wishes.cluster is None:
        with ThreadPoolExecutor(wishes.threads) as pool:
            yield pool
        return
    try:
        from distributed import Client
    except ImportError:
        raise InputError(
            "--cluster", "no package for clusters", "the extra 'cluster'", "pip install 'vivid-anvil[cluster]'"
        ) from None
    try:
        client = Client(wishes.cluster, timeout="20s")  # type: ignore[no-untyped-call]
    except (OSError, TimeoutError, ValueError) as error:
        raise InputError("--cluster", f"no answer from {wishes.cluster} ({error})", "a running scheduler") from None
    with client:
        yield client.get_executor()  # type: ignore[no-untyped-call]


def _reserves(result: ModelResult, places: list[HotPlace], kind: str) -> list[float | None]:
    from vivid_anvil.fields import reserves_on_stress

    if result.target_repeats is None or kind == "none":
        return [None] * len(places)
    if kind == "life":
        return [one.life_repeats / result.target_repeats for one in places]
    found: list[float | None] = reserves_on_stress(result, [result.field.place_of(one.node) for one in places]).tolist()
    return found


def _rows(places: list[HotPlace], reserves: list[float | None], kind: str) -> list[dict[str, Any]]:
    if kind == "none":
        return [plain(one.to_row()) for one in places]
    return [
        plain({**one.to_row(), f"reserve_on_{kind}": reserve}) for one, reserve in zip(places, reserves, strict=True)
    ]


def _surfaces(
    result: ModelResult, places: list[HotPlace], wishes: ModelWishes, units: UnitSystem, up: str, title: str
) -> list[Drawing]:
    """A picture for each view, where there is a surface to see."""
    from vivid_anvil.fields import ModelView
    from vivid_anvil.models import undrawable

    if len(undrawable(result.field.elements)) == len({one.kind for one in result.field.elements}):
        return []
    names = wishes.seen_from or VIEWS
    return [
        (f"model {name}", partial(draw, ModelView(result, _view(name), places, up, title), units)) for name in names
    ]


def _view(name: str) -> str | tuple[float, float, float]:
    """A side by its name, or a direction by its numbers."""
    if "," not in name:
        from vivid_anvil.fields import DIRECTIONS
        from vivid_anvil.ground.checks import one_of

        one_of("--seen-from", name, tuple(DIRECTIONS))
        return name
    try:
        x, y, z = (float(one) for one in name.split(","))
    except ValueError:
        raise InputError("--seen-from", repr(name), "a side, or three numbers such as 1,0,2") from None
    return x, y, z
