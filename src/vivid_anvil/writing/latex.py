"""A working as a LaTeX fragment, for a report of one's own."""

from __future__ import annotations

import re

from vivid_anvil.units import number, opened
from vivid_anvil.writing.working import VALUE_DIGITS, Step, Working

_GREEK = {
    "Γ": "Gamma",
    "Δ": "Delta",
    "Λ": "Lambda",
    "Σ": "Sigma",
    "Φ": "Phi",
    "Ω": "Omega",
    "α": "alpha",
    "β": "beta",
    "γ": "gamma",
    "δ": "delta",
    "ε": "varepsilon",
    "ζ": "zeta",
    "η": "eta",
    "θ": "theta",
    "κ": "kappa",
    "λ": "lambda",
    "μ": "mu",
    "ν": "nu",
    "ξ": "xi",
    "π": "pi",
    "ρ": "rho",
    "σ": "sigma",
    "τ": "tau",
    "φ": "varphi",
    "χ": "chi",
    "ψ": "psi",
    "ω": "omega",
}
_SIGNS = {
    "×": r"\times ",
    "·": r"\cdot ",
    "±": r"\pm ",
    "∫": r"\int ",
    "∞": r"\infty ",
    "°": r"^{\circ}",
    **{sign: f"^{{{power}}}" for power, sign in enumerate("⁰¹²³⁴⁵⁶⁷⁸⁹")},
    "<=": r"\le ",
    ">=": r"\ge ",
    "%": r"\%",
    "#": r"\#",
    "&": r"\&",
}
_FUNCTIONS = frozenset({"sin", "cos", "tan", "sec", "exp", "ln", "log", "min", "max", "arccos", "arcsin", "tanh"})
_UPRIGHT = frozenset({"of", "by", "at", "MPa", "ksi", "GPa", "kN", "kip", "mm", "in", "kNm", "Nm"})
_PIECE = re.compile(
    r"(?P<unit>N/mm|N\*mm/mm|MJ/m\^3|kJ/m\^2)|(?P<number>\d+(?:\.\d+)?(?:e[+-]?\d+)?)|(?P<word>[A-Za-z][A-Za-z']*|[Α-Ωα-ω])(?:_(?P<sub>[A-Za-z0-9'_]+))?"
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
            piece = _piece(match, after_number=bool(re.search(r"\d $", text[:at])))
            made.append(f"({piece})" if match["number"] and "^" in piece and text[match.end() :][:1] == "^" else piece)
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
    if match["unit"]:
        return _unit(match["unit"])
    if match["number"]:
        return _number(match["number"])
    if match["sign"]:
        return _SIGNS.get(match["sign"], match["sign"])
    word, sub = match["word"], match["sub"]
    if word in _GREEK:
        made = rf"\{_GREEK[word]} "
        return made.rstrip() + "_{" + sub.replace("_", ",") + "}" if sub else made
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
    value = latex(number(step.value, VALUE_DIGITS)) + _unit(step.unit)
    return [
        rf"  \item {_plain(step.title)}" + (f" ({_plain(step.source)})" if step.source else ""),
        r"  \begin{align*}",
        rf"    {latex(head)} &= {latex(rest)} \\",
        rf"    &= {latex(step.numbers)} \\",
        rf"    &= {value}",
        r"  \end{align*}",
    ]


def _unit(unit: str) -> str:
    """A unit behind its number, upright."""
    rooted = re.sub(r"√([A-Za-z]+)", r"\\sqrt{\1}", unit.replace("%", r"\%").replace("*", r"\cdot "))
    powered = re.sub(r"\^(-?[0-9.]+)", r"^{\1}", rooted).replace(" ", r"\ ")
    return rf"\ \mathrm{{{''.join(_SIGNS.get(sign, sign) for sign in powered)}}}" if unit else ""


def _plain(text: str) -> str:
    """Text with the signs that LaTeX takes for its own."""
    escaped = re.sub(r"([&%$#_{}])", r"\\\1", text).replace("^", r"\^{}")
    rooted = re.sub(r"√([A-Za-z]+)", r"$\\sqrt{\\mathrm{\1}}$", escaped)
    return "".join(_in_text(sign) for sign in rooted)


def _in_text(sign: str) -> str:
    if sign in _GREEK:
        return rf"$\{_GREEK[sign]}$"
    return f"${_SIGNS[sign].strip()}$" if sign in _SIGNS and not sign.isascii() else sign
