"""Toughness from several test results: the least, the minimum of three equivalent, or a fractile of 5 %."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from scipy.special import stdtrit

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.materials.fracture.from_ctod import CTODToughness
from vivid_anvil.materials.fracture.from_j import JToughness
from vivid_anvil.materials.fracture.toughness import (
    ROOT_1000,
    TOUGHNESSES,
    FoundToughness,
    KToughness,
    Toughness,
    at_front,
    thinner,
)
from vivid_anvil.units import OptionalCoherent, dimension_of, split
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.materials.fracture.metal import Metal

FEW = 3
LOW, HIGH = 0.7, 1.4  # of the mean, beyond which the results scatter
NONE_ABOVE = 15  # results, up to which the minimum of three equivalent is agreed
Rule = Callable[[FloatArray], tuple[float, str, str]]  # K ascending, MPa√m -> K, formula, numbers
RULES: Choices[Rule] = Choices("rule for several results")


@RULES.add("lower bound")
def lower_bound(k: FloatArray) -> tuple[float, str, str]:
    """The least."""
    return float(k[0]), "K_mat = min(K_i)", f"the least of {k.size}"


@RULES.add("minimum of three equivalent")
def minimum_of_three(k: FloatArray) -> tuple[float, str, str]:
    """The lowest of 3 to 5, the second lowest of 6 to 10, the third lowest of 11 to 15 results (BS 7910).

    >>> minimum_of_three(np.arange(60.0, 67.0))[0]
    61.0
    """
    if not FEW <= k.size <= NONE_ABOVE:
        raise InputError(
            inside("toughness", "results"), f"{k.size} results", "3 to 15 for the minimum of three equivalent",
            "Of more take a fractile; of fewer the lower bound.",
        )  # fmt: skip
    rank = math.ceil(k.size / 5)
    return float(k[rank - 1]), "K_mat = K of that rank", f"number {rank} from below of {k.size}"


@RULES.add("5 % fractile, lognormal")
def lognormal_fractile(k: FloatArray) -> tuple[float, str, str]:
    """exp(mean - t √(1 + 1/n) s) of ln K, t of Student for n - 1 and 5 %: EN 1990, annex D, with the deviation unknown.

    >>> round(lognormal_fractile(np.array([80.0, 90.0, 100.0]))[0], 2)
    61.52
    """
    _enough(k)
    logs = np.log(k)
    mean, std = float(logs.mean()), float(logs.std(ddof=1))
    t = float(stdtrit(k.size - 1, 0.95)) * math.sqrt(1.0 + 1.0 / k.size)
    return (
        math.exp(mean - t * std),
        "K_mat = e^(mean - k_n × s) of ln K, k_n = t_(n-1, 5 %) × √(1 + 1/n)",
        f"e^({put_in(mean)} - {put_in(t)} × {put_in(std)})",
    )


@RULES.add("5 % fractile, master curve")
def master_curve_fractile(k: FloatArray) -> tuple[float, str, str]:
    """20 + (K_0 - 20)(ln 1/0.95)^1/4, K_0 = 20 + (Σ (K - 20)⁴ / n)^1/4 MPa√m: for results in the transition.

    >>> round(master_curve_fractile(np.array([80.0, 90.0, 100.0]))[0], 2)
    53.98
    """
    _enough(k)
    if k[0] <= 20.0:
        found = f"a result of {k[0]:.3g} MPa√m"
        raise InputError(inside("toughness", "results"), found, "results above 20 MPa√m", "Take the lower bound.")
    scale = float(np.mean((k - 20.0) ** 4) ** 0.25)
    own = 20.0 + scale * (-math.log(0.95)) ** 0.25
    return (
        own,
        "K_mat = 20 + (Σ (K_i - 20)^4 / n)^(1/4) × (ln(1/0.95))^(1/4), MPa√m",
        f"20 + {put_in(scale)} × (ln(1/0.95))^(1/4)",
    )


def _enough(k: FloatArray) -> None:
    if k.size < FEW:
        found = f"{k.size} result" + ("s" if k.size > 1 else "")
        raise InputError(inside("toughness", "results"), found, "three or more for a fractile", "Take the lower bound.")


@TOUGHNESSES.add("tests")
@dataclass(frozen=True, kw_only=True)
class ToughnessTests(Toughness):
    """A toughness from several results, each a K, a J or a CTOD with its unit.

    Parameters
    ----------
    results : sequence of str
        Each with its unit, such as "82 MPa√m", "61 kJ/m^2" or "0.12 mm".
    rule : str, default "minimum of three equivalent"
        One of `RULES`.
    specimen_thickness : float or text with a unit, optional
        Of the tests, mm: the toughness is then carried to the crack front of the flaw.

    Raises
    ------
    InputError
        For results without unit, another rule, or fewer results than it needs.

    Examples
    --------
    >>> ToughnessTests(results=["82 MPa√m", "91 MPa√m", "77 MPa√m"]).rule
    'minimum of three equivalent'
    """

    results: Sequence[str]
    rule: str = "minimum of three equivalent"
    specimen_thickness: OptionalCoherent = OptionalCoherent("length", above=0.0)

    def __post_init__(self) -> None:
        where = inside("toughness", "results")
        if isinstance(self.results, str) or not isinstance(self.results, Sequence) or not self.results:
            raise InputError(where, shortened(self.results), "one result or more, each with its unit")
        made = tuple(_source(one, inside(where, f"number {i}")) for i, one in enumerate(self.results, 1))
        object.__setattr__(self, "results", tuple(self.results))
        rule = RULES.get(self.rule, inside("toughness", "rule"))
        if all(isinstance(one, KToughness) for one in made):
            rule(np.sort([one.k / ROOT_1000 for one in made]))

    def found(self, metal: Metal, crack_front: float) -> FoundToughness:
        """By the rule, from each result as K."""
        each = [_source(one, "toughness, results").found(metal, crack_front) for one in self.results]
        k = np.sort([one.k for one in each])
        value, formula, numbers = RULES[self.rule](k / ROOT_1000)
        step = Step(f"Toughness from {k.size} results", formula, numbers, value, "MPa√m", self.rule)
        own, carried = at_front(value * ROOT_1000, self.specimen_thickness, crack_front)
        told = (*self._findings(k), *thinner(self.specimen_thickness, crack_front))
        return FoundToughness(own, (step, *carried), told)

    def _findings(self, k: FloatArray) -> list[Finding]:
        found = []
        if k.size < FEW:
            found.append(
                Finding(
                    "warning",
                    "toughness-few",
                    f"The toughness rests on {k.size} result{'s' if k.size > 1 else ''}.",
                    "Three are the least from which scatter can be seen; in the transition take six or more.",
                )
            )
        mean = float(k.mean())
        if k.size >= FEW and (k[0] < LOW * mean or k[-1] > HIGH * mean):
            low, high = k[0] / ROOT_1000, k[-1] / ROOT_1000
            found.append(
                Finding(
                    "warning",
                    "toughness-scatters",
                    f"Toughness results scatter from {low:.3g} to {high:.3g} MPa√m about a mean of {mean / ROOT_1000:.3g}.",
                    "They may be of two kinds, such as weld and heat-affected zone: test more, or take the lower bound.",
                )
            )
        return found


def _source(result: Any, where: str) -> Any:
    """A result as the toughness that its unit says."""
    if not isinstance(result, str):
        raise InputError(where, shortened(result), "text with its unit, such as '82 MPa√m', '61 kJ/m^2' or '0.12 mm'")
    _, unit = split(result, where, "82 MPa√m", "stress intensity")
    kind = dimension_of(unit, where).name
    if kind == "stress intensity":
        return KToughness(k=result)
    if kind == "energy release rate":
        return JToughness(j=result)
    if kind == "length":
        return CTODToughness(ctod=result)
    raise InputError(
        where, f"{result!r}, a {kind}", "a K, a J or a CTOD", "Such as '82 MPa√m', '61 kJ/m^2', '0.12 mm'."
    )
