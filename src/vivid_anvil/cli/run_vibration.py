"""What the commands `vibration` and `tailor` do: read, look, show, write."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import UnitSystem


@dataclass(frozen=True)
class Looking:
    """The settings of the command `vibration`."""

    spot: str | None = None
    event: str | None = None
    channel: str | None = None
    exposure: str | None = None
    slope: float = 5.0
    synthesis: str | None = None
    seed: int = 1
    segment: str | None = None
    overlap: float = 0.5
    window: str = "hann"
    between: str | None = None


@dataclass(frozen=True)
class Tailoring:
    """The settings of the command `tailor`."""

    time: str
    slope: float
    channel: str | None = None
    quality_factor: float | None = None
    low: str = "5 Hz"
    high: str = "500 Hz"
    per_octave: int = 12
    corners: tuple[str, ...] = ()
    service_life: str | None = None
    exposure: str | None = None
    against: Path | None = None
    against_time: str | None = None


def vibration(path: Path, how: Looking, outputs: Outputs, units: UnitSystem) -> None:
    """Look at the vibration of a study, at a PSD, at a frequency response, or at a history."""
    outputs.check()
    with progress("reading the file") as watch:
        look = _of_study if path.suffix.lower() == ".toml" else _of_file
        title, results, tables = look(path, how, watch)
        shown = [one.page(units) for one in results]
        record = {
            "file": path.name,
            "vibration": [one.to_dict() for one in results],
            **{one.title: one.rows() for one in tables},
        }
        drawings: list[Drawing] = [Drawing(f"vibration {one.title}", one, units) for one in results]
        first = results[0].tables()[0] if results else tables[0]
        written = outputs.write(record, first, drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.heading(title))
    for page in shown:
        out.print()
        out.print(show.page(page, units))
    for table in tables:
        out.print(show.table(table, units))
    show.say_written(out, written)


Found = tuple[str, list[Any], list[Any]]
Watch = Callable[[str, int, int], None]


def _of_study(path: Path, how: Looking, watch: Watch) -> Found:
    """Every random event and every sine, at each hot spot; and the responses there."""
    from vivid_anvil.damage import look_at_response, sine_table, vibration_views
    from vivid_anvil.spectra import Response
    from vivid_anvil.study import lives_of_places, place_names, read_study

    study = read_study(path, watch=watch)
    names = place_names(study)
    if how.spot is not None and how.spot not in names:
        raise InputError("--spot", repr(how.spot), f"one of {listed(names)}", did_you_mean(how.spot, names))
    events = [event.name for event, _ in study.duty.flat()]
    if how.event is not None and how.event not in events:
        raise InputError("--event", repr(how.event), f"one of {listed(events)}", did_you_mean(how.event, events))
    results: list[Any] = []
    tables: list[Any] = []
    for i, name in enumerate(one for one in names if how.spot in (None, one)):
        watch(f"vibration at {name}", i, len(names))
        life = lives_of_places(study, name, watch=watch)[name]
        for channel, own in getattr(life.hot_spot.fed, "responses", {}).items():
            if isinstance(own, Response) and own.resonances:
                kind = study.duty.dimensions.get(channel, "acceleration")
                results.append(look_at_response(f"{channel}, {name}", own, kind))
        settings: dict[str, Any] = {
            "event": how.event,
            "slope": how.slope,
            "synthesis": how.synthesis,
            "seed": how.seed,
        }
        results += vibration_views(life, **settings)
        table = sine_table(life)
        tables += [table] if len(table) else []
    if not results and not tables:
        raise InputError(
            path.name,
            "nothing that vibrates",
            "a random event, a dwell or a sweep at a hot spot",
            "Such as psd = [...] with exposure = '8 h', or dwells = [...]: see vivid-anvil template.",
        )
    return study.title, results, tables


def _of_file(path: Path, how: Looking, watch: Watch) -> Found:
    """A response, a PSD, or a history of which a PSD is estimated."""
    from vivid_anvil.damage import look_at_response, look_at_vibration
    from vivid_anvil.histories import estimate_psd, read_history
    from vivid_anvil.spectra import read_psd, read_response
    from vivid_anvil.spectra.read_spectra import holds

    what = holds(path) if how.segment is None else "history"
    if what == "response":
        table = read_response(path, between=how.between or "real and imaginary")
        return path.name, [look_at_response(path.stem, table, table.input)], []
    results: list[Any] = []
    if what == "history":
        if how.segment is None:
            raise InputError(
                str(path),
                "a history",
                "a PSD or a frequency response, or a history with --segment",
                "Add for instance --segment '2 s': lines are its inverse apart.",
            )
        history = read_history(path)
        name = how.channel or _only(list(history.dimensions), path)
        watch("estimating the PSD", 0, 1)
        asked: dict[str, Any] = {"segment": how.segment, "overlap": how.overlap, "window": how.window}
        results.append(estimate_psd(history, name, **asked))
        process = results[0].psd
    else:
        name = how.channel or path.stem
        process = read_psd(path, channel=how.channel, between=how.between or "log-log")
    watch("looking", 0, 1)
    settings: dict[str, Any] = {
        "slope": how.slope,
        "exposure": how.exposure,
        "synthesis": how.synthesis,
        "seed": how.seed,
    }
    results.append(look_at_vibration(process, name=name, **settings))
    return path.name, results, []


def _only(names: Sequence[str], path: Path) -> str:
    if len(names) != 1:
        raise InputError("--channel", "none", f"one of {listed(names)} of {path.name}")
    return names[0]


def tailor(path: Path, how: Tailoring, outputs: Outputs, units: UnitSystem) -> None:
    """The random test that does the damage of a service; a given test against it."""
    outputs.check()
    with progress("reading the service") as watch:
        from vivid_anvil.spectra import read_psd
        from vivid_anvil.tailoring import Oscillators, coverage, damage_spectrum, tailored_test

        others = {} if how.quality_factor is None else {"quality_factor": how.quality_factor}
        oscillators = Oscillators.spaced(how.low, how.high, slope=how.slope, per_octave=how.per_octave, **others)
        watch("damage spectrum of the service", 0, 3)
        service = _service(path, how, oscillators)
        watch("tailoring the test", 1, 3)
        corners = list(how.corners) or [how.low, *_middle(how), how.high]
        test = tailored_test(service, how.time, corners=corners)
        results: list[Any] = [test, coverage(service, test.spectrum)]
        if path.suffix.lower() == ".toml":
            results += _on_parts(path, how, test)
        if how.against is not None:
            watch("the given test", 2, 3)
            given = damage_spectrum(read_psd(how.against), oscillators, exposure=how.against_time or how.time)
            results.append(coverage(service, given.called(how.against.stem)))
        drawn = [one for one in results if hasattr(one, "spectrum") or hasattr(one, "bands")]
        drawings: list[Drawing] = [Drawing(f"tailoring {i} {one.title}", one, units) for i, one in enumerate(drawn, 1)]
        record = {"service": service.to_dict(), "results": [one.to_dict() for one in results]}
        written = outputs.write(record, test.tables()[0], drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    for one in results:
        out.print(show.page(one.page(units), units))
        out.print()
    show.say_written(out, written)


def _on_parts(path: Path, how: Tailoring, test: Any) -> list[Any]:
    """The test at the hot spots of the study that feel the input."""
    from vivid_anvil.study import read_study
    from vivid_anvil.study.shaken_parts import shaken_parts

    study = read_study(path)
    repeats = study.duty.repeats_in(how.service_life or study.target_life, "--service-life")
    channel = how.channel or next(name for name, kind in study.duty.dimensions.items() if kind == "acceleration")
    found = shaken_parts(study, test, channel, repeats)
    return [found] if found.names else []


def _middle(how: Tailoring) -> list[str]:
    """A breakpoint an octave, where none are asked for."""
    import math

    from vivid_anvil.units import coherent

    low, high = (coherent(one, "frequency", "tailor") for one in (how.low, how.high))
    many = max(1, round(math.log2(high / low)))
    return [f"{low * (high / low) ** (i / many):.4g} Hz" for i in range(1, many)]


def _service(path: Path, how: Tailoring, oscillators: Any) -> Any:
    """Damage spectrum of a study's duty cycle over its life, of a PSD, or of a history."""
    from vivid_anvil.spectra import read_psd
    from vivid_anvil.spectra.read_spectra import holds
    from vivid_anvil.tailoring import damage_spectrum

    if path.suffix.lower() == ".toml":
        from vivid_anvil.study import read_study

        study = read_study(path)
        target = how.service_life or study.target_life
        if target is None:
            raise InputError(path.name, "no target_life", "how long the service is", "Add --service-life '30 years'.")
        repeats = study.duty.repeats_in(target, "--service-life")
        found = damage_spectrum(study.duty, oscillators, channel=how.channel)
        return found.times(repeats).called(f"{study.title}, {target}")
    if holds(path) == "PSD":
        if how.exposure is None:
            raise InputError("--exposure", "none", "how long the PSD acts in service, such as '2000 h'")
        psd = read_psd(path, channel=how.channel)
        return damage_spectrum(psd, oscillators, exposure=how.exposure).called(path.stem)
    from vivid_anvil.histories import read_history

    found = damage_spectrum(read_history(path), oscillators, channel=how.channel).called(path.stem)
    if how.exposure is None:
        return found
    from vivid_anvil.units import coherent

    if found.time is None:
        raise InputError("--exposure", how.exposure, "a history that knows its duration")
    return found.times(coherent(how.exposure, "time", "--exposure") / found.time)
