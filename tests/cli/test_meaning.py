"""Codes of findings and terms: each that the product may print is explained, each explanation stands on known terms."""

import ast
import json
import re
from pathlib import Path

import pytest

from vivid_anvil.ground.errors import InputError
from vivid_anvil.writing.meanings import finding_meanings, glossary_terms, meaning_of

ROOT = Path(__file__).parents[2]
IN_TABLES = {"contours-drift", "contours-disagree"}  # codes that stand in a table of the source, not in the call


def codes_of_the_source():
    """Every code that a finding is made with."""
    found = set(IN_TABLES)
    for file in (ROOT / "src").rglob("*.py"):
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Call) and getattr(node.func, "id", getattr(node.func, "attr", "")) == "Finding":
                code = node.args[1] if len(node.args) > 1 else None
                if isinstance(code, ast.Constant):
                    found.add(code.value)
    return found


def test_every_code_is_explained_and_no_other():
    codes = [one.name for one in finding_meanings()]
    assert len(codes) == len(set(codes))
    assert set(codes) == codes_of_the_source()


def test_explanations_stand_on_terms_that_are_used_and_pages_that_are_there():
    terms = {one.name: one for one in glossary_terms()}
    used = {term for one in finding_meanings() for term in one.terms}
    assert used == set(terms)
    assert all(one.text.endswith(".") and one.advice.endswith(".") and one.terms for one in finding_meanings())
    pages = {path.stem for path in (ROOT / "docs" / "guide").glob("*.md")}
    assert {one.page for one in terms.values()} <= pages
    assert not {one.name for one in finding_meanings()} & set(terms)


def test_the_keys_that_explanations_name_are_keys():
    """A key or a value in an explanation is one of the study file."""
    from vivid_anvil.study.schema import study_schema

    schema = json.dumps(study_schema())
    source = " ".join(path.read_text(encoding="utf-8") for path in (ROOT / "src").rglob("*.py"))
    for one in finding_meanings():
        for key in re.findall(r"\b([a-z]+(?:_[a-z]+)+)\b", f"{one.text} {one.advice}"):
            assert key in schema or f"def {key}(" in source or f"{key}:" in source, (one.name, key)
        for value in re.findall(r'"([a-z][^"]*)"', one.advice):
            assert f'"{value}"' in source, (one.name, value)


def test_the_command_explains_codes_and_terms(run):
    code, out, _ = run("meaning", "few-samples", "rainflow")
    assert code == 0
    assert "ten samples a cycle" in " ".join(out.split())
    assert "ASTM E1049" in " ".join(out.split())
    everything = run("meaning")[1]
    assert all(one.name in everything for one in (*finding_meanings(), *glossary_terms()))
    code, _, err = run("meaning", "few-sample")
    assert code == 2
    assert "Did you mean 'few-samples'?" in " ".join(err.split())


def test_commands_that_show_findings_say_how_they_are_explained(run, demo_file, monkeypatch):
    monkeypatch.setenv("COLUMNS", "80")
    out = run("life", demo_file)[1]
    (line,) = (line for line in out.splitlines() if "Meaning of codes" in line)
    named = line.partition("vivid-anvil meaning ")[2].split()
    assert named
    assert all(f"[{code}]" in out for code in named)
    assert run("meaning", *named)[0] == 0
    assert "Meaning of codes" not in run("cards")[1]


def test_capital_letters_and_brackets_do_not_matter():
    assert meaning_of("[R-differs]").name == "r-differs"
    with pytest.raises(InputError, match="Did you mean 's-n curve'"):
        meaning_of("s-n")
