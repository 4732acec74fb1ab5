"""What the command on models does: read, assess every node, show the worst places, write."""

from __future__ import annotations

from collections.abc import Iterator
from concurrent.futures import Executor, ThreadPoolExecutor
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.extras import needed
from vivid_anvil.units import UnitSystem

if TYPE_CHECKING:
    from vivid_anvil.damage import LifeResult
    from vivid_anvil.fields import ModelAnswer, ModelResult

VIEWS = ("corner", "front", "back")
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

    @property
    def chosen(self) -> dict[str, Any]:
        """Which places are looked for."""
        return {"node_set": self.node_set, "share_of_worst": self.share, "life_below": self.life_below}

    def check(self) -> None:
        """InputError, before anything is computed, for an ending or a view that cannot be meant."""
        from vivid_anvil.ground.checks import one_of

        if self.nodes_file is not None:
            from vivid_anvil.fields.write_results import writer_for

            writer_for(self.nodes_file, "--nodes")
        one_of("--reserve", self.reserve, RESERVES)
        for name in self.seen_from:
            _view(name)


def model(path: Path, wishes: ModelWishes, outputs: Outputs, units: UnitSystem) -> None:
    """The life at every node of a study's model, and its worst places."""
    outputs.check()
    wishes.check()
    with progress("reading the study") as watch:
        from vivid_anvil.fields import reserves_on_stress, write_results
        from vivid_anvil.study import answer_model, read_study

        study = read_study(path, watch=watch)
        with _workers(wishes) as pool:
            settings: dict[str, Any] = {
                "executor": pool,
                "keep_in": wishes.keep,
                "watch": watch,
                "reserve_on": wishes.reserve,
            }
            answer = answer_model(study, most=wishes.most, **wishes.chosen, **settings)
        result = answer.result
        drawings: list[Drawing] = []
        if answer.life is not None:
            drawings.append(Drawing(f"life {answer.life.title}", answer.life, units))
        drawings += _surfaces(answer, wishes, units, "y" if study.model is None else study.model.up)
        asked, refused = _asked(result, wishes.node)
        record = answer.to_dict()
        if asked is not None:
            record["node"] = asked.to_dict()
            drawings.append(Drawing(f"life node {wishes.node}", asked, units))

        def every_node(path: Path) -> None:
            solved = result.target_repeats is not None and wishes.reserve == "stress"
            every = reserves_on_stress(result, watch=watch) if solved else None
            write_results(result, path, reserves=every)

        written = outputs.write(record, answer.tables()[0], drawings, watch, others=(every_node,))
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.page(answer.page(units), units))
    if refused is not None:
        out.print(show.indented(f"Node {wishes.node} fails at once: {refused}"))
    if asked is not None and wishes.node is not None:
        out.print(show.page(asked.page(units, title=f"{study.title}: node {wishes.node}", in_full=True), units))
        if result.chosen is not None:
            out.print(f"\nOf the stresses there that of {result.chosen[result.field.place_of(wishes.node)]} counts.")
        out.print(f"\n{asked.working(units)}", markup=False, soft_wrap=True)
    show.say_written(out, written)


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
    needed("distributed", "--cluster")
    from distributed import Client

    try:
        client = Client(wishes.cluster, timeout="20s")  # type: ignore[no-untyped-call]
    except (OSError, TimeoutError, ValueError) as error:
        raise InputError("--cluster", f"no answer from {wishes.cluster} ({error})", "a running scheduler") from None
    with client:
        yield client.get_executor()  # type: ignore[no-untyped-call]


def _surfaces(answer: ModelAnswer, wishes: ModelWishes, units: UnitSystem, up: str) -> list[Drawing]:
    """A picture for each view, where there is a surface to see."""
    from vivid_anvil.fields import ModelView
    from vivid_anvil.models import undrawable

    result, places = answer.result, list(answer.places)
    if len(undrawable(result.field.elements)) == len({element.kind for element in result.field.elements}):
        return []
    names = wishes.seen_from or VIEWS
    return [Drawing(f"model {name}", ModelView(result, _view(name), places, up, answer.title), units) for name in names]


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
