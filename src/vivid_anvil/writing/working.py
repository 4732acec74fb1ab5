"""The working of a result: numbered steps that a reader can redo with a pocket calculator.

A step holds the formula, the numbers put in with their units, the value that came out, and the source.
"""

from __future__ import annotations

import html
import textwrap
from dataclasses import dataclass, field

from vivid_anvil.units import number
from vivid_anvil.writing.table import Column, Table

# Inputs are printed with more digits than values, so that redoing a line gives the printed value.
INPUT_DIGITS = 7
VALUE_DIGITS = 5
WIDTH = 79
_STEP = {
    "what": "title",
    "formula": "formula",
    "numbers": "numbers",
    "value": "value",
    "unit": "unit",
    "source": "source",
}


def put_in(value: float) -> str:
    """A number as it is put into a formula; in brackets where it is negative.

    >>> put_in(87.34567891), put_in(-3.0)
    ('87.34568', '(-3)')
    """
    text = number(value, INPUT_DIGITS)
    return f"({text})" if value < 0.0 else text


@dataclass(frozen=True, slots=True)
class Step:
    """One line of working: `formula` in symbols, `numbers` put in, the `value` that they give, with its `unit`.

    Parameters
    ----------
    title : str
        What the step finds.
    formula : str
        The formula in symbols.
    numbers : str
        The formula with its numbers.
    value : float
        Its value.
    unit : str
        Unit of the value.
    source : str, default ""
        Where the numbers come from, in words.

    Examples
    --------
    >>> print(Step("Stress amplitude", "S_a = ΔS / 2", "90 MPa / 2", 45.0, "MPa"))
    Stress amplitude
        S_a = ΔS / 2
            = 90 MPa / 2
            = 45 MPa
    """

    title: str
    formula: str
    numbers: str
    value: float
    unit: str
    source: str = ""

    def __str__(self) -> str:
        head, _, rest = self.formula.partition(" = ")
        result = f"{number(self.value, VALUE_DIGITS)} {self.unit}".rstrip()
        lines = [_equals(head, rest), _equals(" " * len(head), self.numbers), _equals(" " * len(head), result)]
        source = [f"    ({self.source})"] if self.source else []
        return "\n".join([textwrap.fill(self.title, WIDTH - len("10. ")), *lines, *source])


@dataclass(frozen=True, slots=True)
class Working:
    """The steps that lead to a result, with a title and an opening sentence for the reader.

    Parameters
    ----------
    title : str
        Its title.
    opening : str
        The sentence before the steps.
    steps : tuple of Step
        The steps, in their order.
    closing : str, default ""
        The sentence after them.

    Examples
    --------
    >>> steps = (Step("Stress amplitude", "S_a = ΔS / 2", "90 MPa / 2", 45.0, "MPa"),)
    >>> print(Working("Amplitude", "By hand.", steps).steps[0])
    Stress amplitude
        S_a = ΔS / 2
            = 90 MPa / 2
            = 45 MPa
    """

    title: str
    opening: str
    steps: tuple[Step, ...]
    closing: str = field(default="")

    def table(self) -> Table:
        """The steps as a table, a row a step."""
        rows = [
            (self.title, i, *(getattr(one, name) for name in _STEP.values()))
            for i, one in enumerate(self.steps, start=1)
        ]
        heads = ("working", "step", *_STEP)
        columns = tuple(Column(head, [row[k] for row in rows]) for k, head in enumerate(heads))
        return Table(self.title, columns, "steps")

    def _repr_html_(self) -> str:
        return f"<pre>{html.escape(str(self))}</pre>"

    def __str__(self) -> str:
        numbered = [f"{i}. {step}" for i, step in enumerate(self.steps, start=1)]
        head = f"{self.title}\n{'=' * len(self.title)}"
        parts = [head, textwrap.fill(self.opening, WIDTH), *numbered, textwrap.fill(self.closing, WIDTH)]
        return "\n\n".join(part for part in parts if part)


def _equals(left: str, right: str) -> str:
    """A line of a step, folded at blanks where it is longer than the page."""
    head = f"    {left} = "
    return textwrap.fill(
        right,
        WIDTH,
        initial_indent=head,
        subsequent_indent=" " * (len(head) + 2),
        break_long_words=False,
        break_on_hyphens=False,
    )
