"""How plasticity raises the fracture ratio where primary and secondary stresses act together, one way a function."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

from vivid_anvil.ground.choices import Choices
from vivid_anvil.shapes.solutions.collapse import rho_of_one
from vivid_anvil.writing.working import Step, put_in


class Added(NamedTuple):
    """K_r = (K_p + `factor` K_s) / K_mat + `sum`; `chi` is K_s L_r / K_p."""

    chi: float
    sum: float
    factor: float


Interaction = Callable[[float, float, float], Added]  # K_p, K_s, L_r


@dataclass(frozen=True)
class Way:
    """A way, with its formula and source."""

    added: Interaction
    symbol: str
    formula: str
    source: str

    def steps(self, k_p: float, k_s: float, load_ratio: float) -> tuple[Step, ...]:
        """χ and what comes of it, to redo by hand."""
        if k_s <= 0.0 or not self.formula:
            return ()
        own = self.added(k_p, k_s, load_ratio)
        ratio = f"{put_in(k_s)} × {put_in(load_ratio)} / {put_in(k_p)}"
        value = own.sum if self.symbol == "ρ" else own.factor
        numbers = f"with χ = {put_in(own.chi)}, L_r = {put_in(load_ratio)}"
        return (
            Step("Secondary against primary stress", "χ = K_s × L_r / K_p", ratio, own.chi, ""),
            Step("Interaction by plasticity", self.formula, numbers, value, "", self.source),
        )


INTERACTIONS: Choices[Way] = Choices("interaction")
MOST_CHI = 1e9


def chi_of(k_p: float, k_s: float, load_ratio: float) -> float:
    """χ = K_s L_r / K_p, at most 1e9."""
    return min(k_s * load_ratio / k_p, MOST_CHI) if k_p > 0.0 else (MOST_CHI if k_s * load_ratio > 0.0 else 0.0)


def by_rho(k_p: float, k_s: float, load_ratio: float) -> Added:
    """ρ, added to K_r; 0 where the secondary K is not above 0.

    >>> round(by_rho(1200.0, 400.0, 0.9).sum, 5)
    0.02502
    """
    if k_s <= 0.0:
        return Added(0.0, 0.0, 1.0)
    chi = chi_of(k_p, k_s, load_ratio)
    return Added(chi, rho_of_one(chi, load_ratio), 1.0)


def by_v(k_p: float, k_s: float, load_ratio: float) -> Added:
    """V, a factor on the secondary K: min(1 + 0.2 L_r + 0.02 χ (1 + 2 L_r), 3.1 - 2 L_r) below L_r = 1.05, 1 above.

    >>> round(by_v(1200.0, 400.0, 0.9).factor, 4)
    1.1968
    """
    if k_s <= 0.0:
        return Added(0.0, 0.0, 1.0)
    chi = chi_of(k_p, k_s, load_ratio)
    if load_ratio >= 1.05:
        return Added(chi, 0.0, 1.0)
    own = 1.0 + 0.2 * load_ratio + 0.02 * chi * (1.0 + 2.0 * load_ratio)
    return Added(chi, 0.0, max(min(own, 3.1 - 2.0 * load_ratio), 1.0))


def plain_sum(*_: float) -> Added:
    """Nothing: the sum of both K."""
    return Added(0.0, 0.0, 1.0)


RHO = (
    "ρ_1 = 0.1 × χ^0.714 - 0.007 × χ^2 + 0.00003 × χ^5 (0.25 above 5.2); ρ = ρ_1 × min(4 × (1.05 - L_r), 1), 0 or more"
)
V = "V = min(1 + 0.2 × L_r + 0.02 × χ × (1 + 2 × L_r), 3.1 - 2 × L_r), 1 from L_r = 1.05 on"
INTERACTIONS.add("rho")(Way(by_rho, "ρ", RHO, "BS 7910:2005, annex R; R6, simplified"))
INTERACTIONS.add("V")(Way(by_v, "V", V, "BS 7910:2013, annex R, simplified"))
INTERACTIONS.add("none")(Way(plain_sum, "", "", "the sum of both K"))
