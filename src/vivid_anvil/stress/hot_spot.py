"""A hot spot: a place, the way loads become stress there, and the method by which stress becomes damage.

stress = notch_factor * (nominal stress of the relation). A plain relation is linear in one channel, whose cycles are counted
once and scaled; any other is counted as the stress that it gives.
"""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil.counting import Cycles
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, within
from vivid_anvil.materials import Curve, Material
from vivid_anvil.stress.method import Method
from vivid_anvil.stress.relations import Relation


@dataclass(frozen=True, kw_only=True, repr=False, eq=False)
class HotSpot:
    """A place where life is assessed.

    Parameters
    ----------
    name : str
        The place.
    relation : Relation, optional
        How loads become nominal stress, such as `OneLoad("force", "38 MPa/kN")`. Needed but for the nodes of a model, which
        gives each its own.
    material : Material
    method : Method, optional
        How stress becomes damage, such as `StressLife(sn_curve=...)`. Needed for a life, not for crack growth.
    notch_factor : float
        Kf, on the nominal stress with its offset; at least 1.
    """

    name: str
    relation: Relation | None = None
    material: Material
    method: Method | None = None
    notch_factor: float = 1.0

    def __post_init__(self) -> None:
        checks.text("HotSpot.name", self.name)
        where = f"hot spot {self.name}"
        for key, kind, example in (
            ("relation", Relation, "OneLoad('force', '38 MPa/kN')"),
            ("method", Method, "StressLife(sn_curve=...)"),
        ):
            value = getattr(self, key)
            if value is not None and not isinstance(value, kind):
                raise InputError(f"{where}, {key}", repr(value), f"a {key}, such as {example}")
        factor = checks.positive_number(f"{where}, notch_factor", self.notch_factor, "a notch factor Kf of at least 1")
        if not 1.0 <= factor < float("inf"):
            raise InputError(f"{where}, notch_factor", f"{factor:g}", "a notch factor Kf of at least 1")
        if self.method is not None:
            self.method.check(self)

    @property
    def fed(self) -> Relation:
        """Its relation; InputError where only a model could give one."""
        if self.relation is None:
            raise InputError(
                f"hot spot {self.name}",
                "no relation",
                "how loads become stress there",
                "Give it relation = OneLoad(...).",
            )
        return self.relation

    @property
    def assessed_by(self) -> Method:
        """Its method; InputError where it has none."""
        if self.method is None:
            raise InputError(f"hot spot {self.name}", "no S-N curve", "a curve, needed for a life", "Give it a method.")
        return self.method

    @property
    def curve(self) -> Curve | None:
        """The S-N curve of its method, where that has one."""
        return None if self.method is None else self.method.curve

    def local_cycles(self, duty_cycle: DutyCycle) -> Cycles:
        """Local stress cycles of a repeat, with the notch factor: what a method is asked about."""
        with within(f"hot spot {self.name}"):
            return self.fed.cycles(duty_cycle, self.notch_factor)

    def nominal_cycles(self, duty_cycle: DutyCycle) -> Cycles:
        """Nominal stress cycles of a repeat, without it: what a crack that has left the notch is driven by."""
        with within(f"hot spot {self.name}"):
            return self.fed.cycles(duty_cycle)

    def extremes(self, duty_cycle: DutyCycle) -> tuple[float, float]:
        """Lowest and highest local stress, MPa."""
        with within(f"hot spot {self.name}"):
            low, high = self.fed.extremes(duty_cycle)
        return self.notch_factor * low, self.notch_factor * high

    def __repr__(self) -> str:
        loads = "no relation" if self.relation is None else self.relation.words
        curve = "no curve" if self.curve is None else self.curve.name
        if self.method is not None and self.curve is None:
            curve = self.method.words
        return f"<HotSpot {self.name}: {loads}, Kf = {self.notch_factor:g}, {curve}>"
