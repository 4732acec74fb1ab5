"""Growth of a crack per cycle: a law of one of the `GROWTH_FORMS`, with a threshold.

In: range of the stress intensity factor, MPa√mm, R, crack size, mm. Out: growth per cycle, mm/cycle, 0 up to the threshold.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.laws import _kernels as kernels
from vivid_anvil.materials.laws.forms import THRESHOLD_MODELS, GrowthForm, growth_form, packed_values
from vivid_anvil.units import Coherent, growth_constant, many, one, opened

_NOT_SAID: Any = None
EXAMPLES = {"rate": 'Such as "6.9e-12 m/cycle at 1 MPa√m".', "slope": "Such as 3."}


@dataclass(frozen=True, kw_only=True, repr=False)
class GrowthLaw:
    """A growth law; by default da/dN = constant * ΔK**slope above the threshold, 0 at or below it (Paris and Erdogan 1963).

    `rate` is the constant as text such as "6.9e-12 m/cycle at 1 MPa√m", "5e-10 with mm/cycle and MPa√mm" (as printed), or C
    itself for mm/cycle and MPa√mm. `form` is one of `GROWTH_FORMS`, `values` what it needs beside. `threshold_model` says
    how the threshold depends on R, with `threshold_exponent`. `r_ratio` is that of the tests, or None where the law is
    meant for every R; `scatter` says "mean" or "upper bound". `valid_r` are the lowest and the highest R at which the form was
    tested with these values; by default those of the form (-0.1 to 0.7 for the effective range by Elber).

    >>> law = GrowthLaw(name="ferritic steel", rate="6.9e-12 m/cycle at 1 MPa√m", slope=3.0, threshold="2 MPa√m")
    >>> [f"{rate:.4g}" for rate in law.growth([60.0, 300.0])]
    ['0', '5.891e-06']
    >>> walker = GrowthLaw(name="w", form="walker", rate=3e-13, slope=3.0, values={"gamma": 0.5})
    >>> [f"{rate:.4g}" for rate in walker.growth([200.0, 200.0], r_ratio=[0.0, 0.5])]
    ['2.4e-06', '6.788e-06']
    """

    name: str
    rate: str | float = _NOT_SAID
    slope: float = _NOT_SAID
    threshold: Coherent = Coherent("stress intensity", at_least=0.0, default=0.0)
    r_ratio: float | None = None
    source: str = "not stated"
    form: str = "paris"
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)
    threshold_model: str = "one value"
    threshold_exponent: float = 0.0
    scatter: str = "not stated"
    valid_r: tuple[float, float] = _NOT_SAID

    def __post_init__(self) -> None:
        where = f"growth law {self.name}"
        checks.text("GrowthLaw.name", self.name)
        form = growth_form(self.form, f"{where}, form")
        for name in ("rate", "slope"):
            self._said(form, name, where)
        slope = checks.real_number(f"{where}, slope", self.slope)
        if not 0.0 < slope < math.inf:
            raise InputError(f"{where}, slope", f"{slope:g}", "a finite exponent above 0 (da/dN = C ΔK^m)")
        checks.one_of(f"{where}, threshold_model", self.threshold_model, tuple(THRESHOLD_MODELS))
        checks.real_number(f"{where}, threshold_exponent", self.threshold_exponent)
        self.packed  # noqa: B018 (checks all values)
        self._check_valid_r(where)
        if self.r_ratio is not None and not checks.real_number(f"{where}, r_ratio", self.r_ratio) < 1.0:
            raise InputError(f"{where}, r_ratio", f"{self.r_ratio:g}", "minimum / maximum below 1")

    def _said(self, form: GrowthForm, name: str, where: str) -> None:
        """InputError unless rate and slope are said where the form has them; in a law by points they stand at 1."""
        value = getattr(self, name)
        if form.by_points and value in (None, 1.0):
            object.__setattr__(self, name, 1.0)
        elif form.by_points:
            raise InputError(f"{where}, {name}", f"{value!r} with the form {self.form!r}", "its points alone")
        elif value is None:
            raise InputError(f"{where}, {name}", "nothing", f"a {name}: the form is {form.formula}", EXAMPLES[name])

    def _check_valid_r(self, where: str) -> None:
        low, high = self.formula.tested_r
        if self.valid_r is not None:
            if not isinstance(self.valid_r, Sequence) or isinstance(self.valid_r, str) or len(self.valid_r) != 2:
                raise InputError(
                    f"{where}, valid_r", repr(self.valid_r), "the lowest and the highest R, such as [-0.1, 0.7]"
                )
            low, high = (checks.real_number(f"{where}, valid_r", one) for one in self.valid_r)
        if not low < high <= 1.0:
            raise InputError(f"{where}, valid_r", f"{low:g} to {high:g}", "a lower and a higher R, up to 1")
        object.__setattr__(self, "valid_r", (low, high))

    @property
    def formula(self) -> GrowthForm:
        """The form of the law."""
        return growth_form(self.form)

    @cached_property
    def packed(self) -> FloatArray:
        """All values in a row, coherent, for the loops."""
        where = f"growth law {self.name}"
        first = (self.constant, float(self.slope), float(self.threshold), 0.0, float(self.threshold_exponent))
        return checks.read_only(packed_values(where, self.formula, self.values, first))

    @property
    def codes(self) -> tuple[int, int]:
        """Codes of form and threshold model, for the loops."""
        return self.formula.code, THRESHOLD_MODELS[self.threshold_model]

    @property
    def is_power(self) -> bool:
        """Whether it is one power of ΔK above one threshold, whatever R: then sums over cycles can be had in advance."""
        return self.codes == (kernels.PARIS, kernels.FIXED)

    @property
    def has_toughness(self) -> bool:
        """Whether the law itself says at which K the crack breaks."""
        return "toughness" in self.formula.values

    @property
    def is_power_at_each_r(self) -> bool:
        """Whether growth is a power of ΔK at each R, above a threshold that depends on R alone: then K and cycle part."""
        return self.formula.code in (kernels.PARIS, kernels.WALKER, kernels.CLOSURE)

    @cached_property
    def constant(self) -> float:
        """C of the law, in mm/cycle and MPa√mm."""
        return growth_constant(self.rate, self.slope, f"growth law {self.name}, rate", self.formula.constant_power)

    @opened(r_ratio=many(below=1.0), size=one("length", above=0.0, may_be_infinite=True))
    def threshold_at(self, r_ratio: ArrayLike = 0.0, size: float = math.inf) -> FloatArray:
        """Threshold of the range, MPa√mm, at R, for a crack of `size`, mm."""
        a = 1e12 if math.isinf(size) else size
        form, model = self.codes
        ratios = np.atleast_1d(np.asarray(r_ratio, dtype=np.float64))
        return np.array([kernels.full_threshold(form, model, self.packed, r, a) for r in ratios])

    @opened(
        delta_k=many("stress intensity", at_least=0.0, may_be_infinite=True),
        r_ratio=many(below=1.0, may_be_infinite=True),
        size=many("length", above=0.0, may_be_infinite=True),
    )
    def growth(self, delta_k: ArrayLike, r_ratio: ArrayLike = 0.0, size: ArrayLike = 1e12) -> FloatArray:
        """Growth per cycle, mm/cycle, at ranges of stress intensity, MPa√mm, R and crack size, mm; inf is fracture.

        Raises InputError for R of 1 and more, and above the last point of a table.
        """
        ranges, ratios, sizes = np.broadcast_arrays(
            *(np.asarray(one, dtype=np.float64) for one in (delta_k, r_ratio, size))
        )
        out = np.empty(ranges.size)
        rows = [
            np.array(one, copy=True).reshape(-1) for one in (ranges, ratios, sizes)
        ]  # a broadcast one can't be passed on
        kernels.rates_of(*self.codes, self.packed, *rows, out)
        if np.isnan(out).any():
            raise InputError(
                f"growth law {self.name}",
                f"a range of {float(ranges.max()):.5g} MPa√mm, above the last point",
                "ranges within the table",
                "Add a point from tests; nothing is extrapolated.",
            )
        return out.reshape(ranges.shape)

    def __repr__(self) -> str:
        form = "" if self.form == "paris" else f"{self.form}, "
        law = f"{form}C = {self.constant:.4g}, m = {self.slope:g}, threshold {self.threshold:.4g} MPa√mm"
        return f"<GrowthLaw {self.name}: {law}>"
