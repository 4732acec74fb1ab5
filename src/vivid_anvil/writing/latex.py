"""A working as a LaTeX fragment, for a report of one's own."""

from __future__ import annotations

import re

from vivid_anvil.units import number, opened
from vivid_anvil.writing.working import VALUE_DIGITS, Step, Working

_SIGNS = {
    "×": r"\times ",
    "·": r"\cdot ",
    "Δ": r"\Delta ",
    "Σ": r"\Sigma ",
    "σ": r"\sigma ",
    "γ": r"\gamma ",
    "α": r"\alpha ",
    "π": r"\pi ",
    "φ": r"\phi ",
    "°": r"^{\circ}",
    "²": "^{2}",
    "³": "^{3}",
    "⁴": "^{4}",
    "<=": r"\le ",
    ">=": r"\ge ",
    "%": r"\%",
    "#": r"\#",
    "&": r"\&",
}
_FUNCTIONS = frozenset({"sin", "cos", "tan", "sec", "exp", "ln", "log", "min", "max", "arccos", "arcsin", "tanh"})
_UPRIGHT = frozenset({"MPa", "ksi", "GPa", "kN", "kip", "mm", "in", "kNm", "Nm"})
_PIECE = re.compile(
    r"(?P<number>\d+(?:\.\d+)?(?:e[+-]?\d+)?)|(?P<word>[A-Za-z][A-Za-z']*)(?:_(?P<sub>[A-Za-z0-9'_]+))?"
    r"|(?P<sign><=|>=|.)",
    re.DOTALL,
)
_NEIGHBOURS = re.compile(r"(\\mathrm\{[^{}]*)\} \\mathrm\{")


def latex(text: str) -> str:
    r"""A formula, or numbers put in, as LaTeX: signs, roots, subscripts and powers; words and units upright.

    >>> latex("S_ar = S_a / (1 - S_m / R_m)")
    'S_{ar} = S_{a} / (1 - S_{m} / R_{m})'
    >>> latex("5e6 cycles × (52 MPa / 89 MPa)^3")
    '5\\cdot 10^{6}\\ \\mathrm{cycles} \\times  (52\\ \\mathrm{MPa} / 89\\ \\mathrm{MPa})^{3}'
    >>> latex("Y × √(π × a)")
    'Y \\times  \\sqrt{\\pi  \\times  a}'
    """
    joined = "".join(_pieces(text))
    while (merged := _NEIGHBOURS.sub(r"\1\\ ", joined)) != joined:
        joined = merged
    return joined


def _pieces(text: str) -> list[str]:
    made: list[str] = []
    at = 0
    while at < len(text):
        if text[at] in "√^":
            argument, at_next = _argument(text, at + 1)
            made.append((r"\sqrt" if text[at] == "√" else "^") + "{" + latex(argument) + "}")
        else:
            match = _PIECE.match(text, at)
            assert match is not None, "every character is a piece"
            made.append(_piece(match, after_number=bool(re.search(r"\d $", text[:at]))))
            if match["word"] and made[-1].startswith(r"\ ") and len(made) > 1:
                made[-2] = made[-2].rstrip(" ")
            at_next = match.end()
        at = at_next
    return made


def _argument(text: str, at: int) -> tuple[str, int]:
    """What a root or power applies to, without its own brackets, and where it ends."""
    if text[at] == "(":
        depth = 0
        for end in range(at, len(text)):
            depth += {"(": 1, ")": -1}.get(text[end], 0)
            if depth == 0:
                return text[at + 1 : end], end + 1
    match = re.compile(r"-?(\d+(\.\d+)?(e[+-]?\d+)?|[A-Za-z]+(_[A-Za-z0-9]+)?|.)").match(text, at)
    assert match is not None, "a root or power has an argument"
    return match[0], match.end()


def _piece(match: re.Match[str], *, after_number: bool) -> str:
    if match["number"]:
        return _number(match["number"])
    if match["sign"]:
        return _SIGNS.get(match["sign"], match["sign"])
    word, sub = match["word"], match["sub"]
    if word in _FUNCTIONS and not after_number:
        made = rf"\{word} "
    elif word in _UPRIGHT or len(word) > 2:
        made = (r"\ " if after_number else "") + rf"\mathrm{{{word}}}"
    else:
        made = word
    return made + ("_{" + sub.replace("_", ",") + "}" if sub else "")


def _number(text: str) -> str:
    mantissa, _, power = text.partition("e")
    return mantissa + (rf"\cdot 10^{{{int(power)}}}" if power else "")


@opened()
def working_in_latex(working: Working) -> str:
    r"""The steps as a LaTeX fragment: an enumeration with aligned equations (package amsmath).

    Parameters
    ----------
    working : Working
        The steps.

    Returns
    -------
    str
        The fragment.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> print(working_in_latex(explain(result.lives[0])).splitlines()[0])
    \subsection*{Life of weld toe at the grip head, worked by hand}
    """
    lines = [rf"\subsection*{{{_plain(working.title)}}}", _plain(working.opening), r"\begin{enumerate}"]
    lines += [line for step in working.steps for line in _step(step)]
    return "\n".join([*lines, r"\end{enumerate}", _plain(working.closing)]).rstrip() + "\n"


def _step(step: Step) -> list[str]:
    head, _, rest = step.formula.partition(" = ")
    value = f"{number(step.value, VALUE_DIGITS)} {step.unit}".rstrip()
    return [
        rf"  \item {_plain(step.title)}" + (f" ({_plain(step.source)})" if step.source else ""),
        r"  \begin{align*}",
        rf"    {latex(head)} &= {latex(rest)} \\",
        rf"    &= {latex(step.numbers)} \\",
        rf"    &= {latex(value)}",
        r"  \end{align*}",
    ]


def _plain(text: str) -> str:
    """Text with the signs that LaTeX takes for its own."""
    escaped = re.sub(r"([&%$#_{}])", r"\\\1", text).replace("^", r"\^{}")
    rooted = re.sub(r"√([A-Za-z]+)", r"$\\sqrt{\\mathrm{\1}}$", escaped)
    signs = {"×": r"$\times$", "Δ": r"$\Delta$", "γ": r"$\gamma$", "σ": r"$\sigma$", "π": r"$\pi$", "°": r"$^\circ$"}
    return "".join(signs.get(sign, sign) for sign in rooted)
