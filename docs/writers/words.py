"""Findings, glossary and symbols, from the tables that the command reads."""

from __future__ import annotations

from pathlib import Path

from vivid_anvil.writing.meanings import Meaning, finding_meanings, glossary_terms, symbols
from writers.marks import anchor, code, table, text

FINDINGS = """# Findings

What an expert would say beside a number. A *note* explains, a *warning* may change a decision, *severe* says that the number
should not be used as it is. The sentence with its numbers, and what to do, are printed with the result; this page tells what each
code means in general. In the terminal `vivid-anvil meaning few-samples` does.

"""
GLOSSARY = """# Terms and symbols

Terms of the trade as they are used here; `vivid-anvil meaning rainflow` tells them in the terminal.

## Terms

"""


def write_findings(file: Path) -> None:
    """A section for each part of the work, below it each code with its terms."""
    parts, group = [FINDINGS], ""
    for one in finding_meanings():
        if one.group != group:
            group = one.group
            parts.append(f"## {group}\n\n")
        parts.append(_finding(one))
    file.write_text("".join(parts), encoding="utf-8")


def _finding(one: Meaning) -> str:
    terms = ", ".join(f"[{text(name)}](#term-{anchor(name)})" for name in one.terms)
    says = f"{text(one.text)}\n\n**Do:** {text(one.advice)}\n\nTerms: {terms}\n\n"
    return f"({finding_target(one.name)})=\n### {one.name}\n\n{says}"


def finding_target(code_name: str) -> str:
    """The target of a finding's section."""
    return f"finding-{code_name}"


def write_glossary(file: Path) -> None:
    """The terms in the order of the alphabet, with the findings that stand on them, then the symbols."""
    parts = [GLOSSARY]
    for one in glossary_terms():
        standing = [
            f"[{code(found.name)}](#{finding_target(found.name)})"
            for found in finding_meanings()
            if one.name in found.terms
        ]
        symbol = f" Symbol: {code(one.symbol)}." if one.symbol else ""
        parts.append(
            f"(term-{anchor(one.name)})=\n### {text(one.name)}\n\n{text(one.text)}{symbol} "
            f"[In the guide](../guide/{one.page}.md). Findings: {', '.join(standing)}\n\n"
        )
    parts.append("## Symbols\n\n")
    parts.append(table(["symbol", "what it stands for"], [(code(key), text(says)) for key, says in symbols().items()]))
    file.write_text("".join(parts), encoding="utf-8")
