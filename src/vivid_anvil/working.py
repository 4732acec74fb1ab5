"""The working of a result: numbered steps that a reader can redo with a pocket calculator.

A step holds the formula, the numbers put in with their units, the value that came out, and the source.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from vivid_anvil.units import number

# Inputs are printed with more digits than values, so that redoing a line gives the printed value.
INPUT_DIGITS = 7
VALUE_DIGITS = 5


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
        indent = " " * len(head)
        lines = [f"    {head} = {rest}", f"    {indent} = {self.numbers}"]
        lines.append(f"    {indent} = {number(self.value, VALUE_DIGITS)} {self.unit}".rstrip())
        source = [f"    ({self.source})"] if self.source else []
        return "\n".join([self.title, *lines, *source])


@dataclass(frozen=True, slots=True)
class Working:
    """The steps that lead to a result, with a title and an opening sentence for the reader."""

    title: str
    opening: str
    steps: tuple[Step, ...]
    closing: str = field(default="")

    def __str__(self) -> str:
        numbered = [f"{i}. {step}" for i, step in enumerate(self.steps, start=1)]
        parts = [self.title, "=" * len(self.title), self.opening, *numbered, self.closing]
        return "\n\n".join(part for part in (f"{parts[0]}\n{parts[1]}", *parts[2:]) if part)
