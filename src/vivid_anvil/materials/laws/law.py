"""Growth of a crack per cycle: what every form of law says.

In: range of the stress intensity factor, MPa√mm, R, crack size, mm. Out: growth per cycle, mm/cycle, 0 up to the threshold.
A form is one file: a frozen dataclass of its values, the plain function of one cycle that loops are handed, its formula.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, ClassVar, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, field_of, inside
from vivid_anvil.ground.handed import address
from vivid_anvil.materials.laws._kernels import RATE, rates_of
from vivid_anvil.materials.thresholds.field import ThresholdField
from vivid_anvil.materials.thresholds.threshold import LARGE, Threshold
from vivid_anvil.units import growth_constant, inner, many, opened
from vivid_anvil.writing.working import Step

LAWS: Choices[type[GrowthLaw]] = Choices("growth law, kind")


class Separate(NamedTuple):
    """Growth of cycles as C scale^m `weight` where K per MPa, `scale`, is above `least`, √mm; inf: it never grows."""

    weight: FloatArray
    least: FloatArray


@dataclass(frozen=True, kw_only=True, repr=False)
class GrowthLaw(ABC):
    """A growth law: rate over the range of stress intensity above a threshold. Forms: see `LAWS`.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    threshold : Threshold, or a range of stress intensity, MPa√mm or text
        At or below it nothing grows; a number is a threshold that is the same at every R.
    r_ratio : float, optional
        R of the tests; None where the law is meant for every R.
    valid_r : (float, float), optional
        The lowest and the highest R at which the form was tested with these values; by default those of the form.
    scatter : str
        Where in the scatter of the tests it lies: "mean", "upper bound", or in words.
    source : str
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> ParisLaw(name="steel in air", rate="6.9e-12 m/cycle at 1 MPa√m", slope=3, threshold="2 MPa√m")
    <GrowthLaw steel in air: C = 2.182e-13, m = 3, threshold 2 MPa√m>
    """

    name: str
    threshold: ThresholdField = ThresholdField()
    r_ratio: float | None = None
    valid_r: tuple[float, float] | None = None
    scatter: str = "not stated"
    source: str = "not stated"

    kind: ClassVar[str]
    formula: ClassVar[str]
    holds: ClassVar[str]  # for which R, in words
    method: ClassVar[str]  # whose form it is
    tested_r: ClassVar[tuple[float, float]] = (-math.inf, 1.0)  # beyond, nobody tested the form
    driving: ClassVar[str] = "stress intensity"  # the dimension of ranges
    constant_power: ClassVar[float] = 0.0  # of K in the unit of the constant, beyond the slope
    form_knows_r: ClassVar[bool] = True
    form_separable: ClassVar[bool] = False  # growth = C scale^m weight(cycle)

    def __post_init__(self) -> None:
        checks.text(field_of("GrowthLaw", "name"), self.name)
        where = f"growth law {self.name}"
        checks.text(inside(where, "scatter"), self.scatter)
        if self.r_ratio is not None and not checks.real_number(inside(where, "r_ratio"), self.r_ratio) < 1.0:
            raise InputError(inside(where, "r_ratio"), f"{self.r_ratio:g}", "minimum / maximum below 1")
        self._check_valid_r(where)
        self.check(where)
        self.numbers  # noqa: B018

    def _check_valid_r(self, where: str) -> None:
        low, high = self.tested_r
        if self.valid_r is not None:
            if not isinstance(self.valid_r, Sequence) or isinstance(self.valid_r, str) or len(self.valid_r) != 2:
                raise InputError(
                    inside(where, "valid_r"), repr(self.valid_r), "the lowest and the highest R, such as [-0.1, 0.7]"
                )
            low, high = (checks.real_number(inside(where, "valid_r"), one) for one in self.valid_r)
        if not low < high <= 1.0:
            raise InputError(inside(where, "valid_r"), f"{low:g} to {high:g}", "a lower and a higher R, up to 1")

    def check(self, where: str) -> None:  # noqa: B027
        """InputError for values of the form that do not go together."""

    @property
    @abstractmethod
    def row(self) -> tuple[float, ...]:
        """The numbers of the form, coherent, for its function of one cycle."""

    @staticmethod
    @abstractmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        """Growth of one cycle, mm, for a range of K above the threshold; inf is fracture, nan beyond what is known.

        Handed to the loops by its address: plain, of the row `numbers`, threshold, range of K, R, and size.
        """

    @abstractmethod
    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        """The formula with the numbers of one cycle put in, K in MPa√mm."""

    def more_steps(self, r: float) -> tuple[Step, ...]:
        """Steps of a hand calculation between the threshold and the growth; none by default."""
        return ()

    def separate(self, span: FloatArray, r: FloatArray) -> Separate | None:
        """Cycles, ranges of stress that count, MPa, at their R, as weights: where K and cycle part; None where they don't."""
        return None

    @property
    def slope(self) -> float:
        """How steeply the rate rises: m of ΔK^m."""
        raise NotImplementedError  # a field of most forms

    @property
    def fracture_toughness(self) -> float | None:
        """The K, MPa√mm, at which the law itself says that the crack breaks; None where it does not."""
        return None

    @property
    def tested(self) -> tuple[float, float]:
        """Ranges of K, MPa√mm, between which the law is known."""
        return (0.0, math.inf)

    @property
    def known_r(self) -> tuple[float, float]:
        """The lowest and the highest R at which the form was tested: as stated, else of the form."""
        return self.tested_r if self.valid_r is None else self.valid_r

    @property
    def stated_rate(self) -> str | float | None:
        """The rate as it was given, of forms that have one."""
        return getattr(self, "rate", None)

    @property
    def limit(self) -> Threshold:
        """The threshold as the loops ask for it."""
        return self.threshold

    @property
    def separable(self) -> bool:
        """Whether K and cycle part, so that sums over cycles can be had in advance."""
        return self.form_separable and not self.limit.depends_on_size

    @property
    def one_power(self) -> bool:
        """Whether it is one power of ΔK above one threshold, whatever R."""
        return not self.form_knows_r and not self.limit.depends_on_r

    @property
    def depends_on_r(self) -> bool:
        """Whether growth is another at another R."""
        return self.form_knows_r or self.limit.depends_on_r

    @cached_property
    def constant(self) -> float:
        """C of the law, in mm/cycle and MPa√mm; only of forms with a rate and a slope."""
        rate: Any = self.stated_rate
        return growth_constant(rate, self.slope, inside(f"growth law {self.name}", "rate"), self.constant_power)

    @cached_property
    def numbers(self) -> FloatArray:
        """The row of the form for the loops, read-only."""
        return checks.read_only(np.array(self.row, dtype=np.float64))

    @property
    def handed(self) -> tuple[int, FloatArray, int, FloatArray]:
        """What a loop needs: where form and threshold stand, and their numbers."""
        return (address(type(self).grown, RATE), self.numbers, *self.limit.handed)

    def threshold_at(self, r_ratio: ArrayLike = 0.0, size: ArrayLike = math.inf) -> FloatArray:
        """Threshold of the range, MPa√mm, at R, for a crack of `size`, mm."""
        return self.limit.at(r_ratio, size)

    @opened(
        delta_k=many("stress intensity", at_least=0.0, may_be_infinite=True),
        r_ratio=many(below=1.0, may_be_infinite=True),
        size=many("length", above=0.0, may_be_infinite=True),
    )
    def growth(self, delta_k: ArrayLike, r_ratio: ArrayLike = 0.0, size: ArrayLike = LARGE) -> FloatArray:
        """Growth per cycle, mm/cycle, at ranges of stress intensity, MPa√mm, R and crack size, mm; inf is fracture.

        Raises InputError for R of 1 and more, and beyond what the law knows, as above the last point of a table.
        """
        ranges, ratios, sizes = np.broadcast_arrays(
            *(np.asarray(one, dtype=np.float64) for one in (delta_k, r_ratio, size))
        )
        out = np.empty(ranges.size)
        rows = [np.array(one, copy=True).reshape(-1) for one in (ranges, ratios, sizes)]
        rates_of(*self.handed, *rows, out)  # a broadcast row can't be passed on
        if np.isnan(out).any():
            raise self.beyond(f"a range of {float(ranges.max()):.5g} MPa√mm")
        return out.reshape(ranges.shape)

    def beyond(self, found: str) -> InputError:
        """The error for a range at which the law knows no growth."""
        return InputError(
            f"growth law {self.name}",
            f"{found}, above the last point",
            "points for all ranges up to the limiting size",
            "Add a point from tests; nothing is extrapolated.",
        )

    @property
    def words(self) -> str:
        """Form and values, to read: "rate 1.65e-11 m/cycle at 1 MPa√m, slope 3"."""
        return ", ".join(f"{name.replace('_', ' ')} {value}" for name, value in self.values.items())

    @property
    def values(self) -> dict[str, Any]:
        """The values of the form, as they were given."""
        common = GrowthLaw.__dataclass_fields__
        given = {name: getattr(self, name) for name in self.__dataclass_fields__ if name not in common}
        return {name: value for name, value in given.items() if value is not None}

    def __repr__(self) -> str:
        form = "" if not self.form_knows_r else f"{self.kind}, "
        law = f"{form}C = {self.constant:.4g}, m = {self.slope:g}, threshold {self.limit.words_in()}"
        return f"<GrowthLaw {self.name}: {law}>"


def powered(x: FloatArray, m: float) -> FloatArray:
    """x^m, quick for the usual whole m."""
    if m == 3.0:
        return x * x * x
    return (x * x) * (x * x) if m == 4.0 else x**m


def separated(law: GrowthLaw, drives: FloatArray, span: FloatArray, r: FloatArray) -> Separate | None:
    """Weights of cycles whose range of K that drives is `drives` per K of 1 MPa; None for a threshold that knows the size."""
    if not law.separable:
        return None
    if law.limit.depends_on_r:
        threshold = inner(type(law.limit).at)(law.limit, np.minimum(r, 1.0 - 1e-12))
    else:
        threshold = np.asarray(law.limit.least_of_all)
    some = span > 0.0
    least = threshold / span if some.all() else np.divide(threshold, span, out=np.full(span.shape, np.inf), where=some)
    return Separate(powered(drives, law.slope), least)
