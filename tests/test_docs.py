"""The documents are true: the guide's examples and the README's run, pictures and links are there, numbers are current."""

import re
from pathlib import Path

import pytest

from tests.write_verification import PAGE, page
from vivid_anvil.demo import write_demo
from vivid_anvil.study.curve_keys import AFTERWARDS, FORMS
from vivid_anvil.study.models import StudyFile

pytestmark = pytest.mark.slow

ROOT = Path(__file__).parents[1]
DOCUMENTS = [
    ROOT / "README.md",
    ROOT / "CONTRIBUTING.md",
    ROOT / "CHANGELOG.md",
    *sorted(path for path in (ROOT / "docs").rglob("*.md") if "made" not in path.parts),
]


def test_the_verification_page_is_what_the_cases_say():
    assert PAGE.read_text(encoding="utf-8") == page()


def test_the_example_of_the_readme_runs(tmp_path, monkeypatch, capsys):
    write_demo(tmp_path / "larkfell-demo")
    monkeypatch.chdir(tmp_path)
    code = re.search(r"```python\n(.*?)```", (ROOT / "README.md").read_text(encoding="utf-8"), re.DOTALL)[1]
    exec(compile(code, "README.md", "exec"), {})
    assert "<LifeResult toe: life" in capsys.readouterr().out
    assert (tmp_path / "toe.png").exists()


@pytest.mark.parametrize("document", DOCUMENTS, ids=lambda path: path.name)
def test_links_and_pictures_are_there(document):
    for target in re.findall(r"\]\(([^)#]+)\)", document.read_text(encoding="utf-8")):
        if "made/" not in target:  # pages that the site makes are held by its own build
            assert (document.parent / target).exists(), target


def test_the_guide_names_every_key_of_the_study_file():
    text = (ROOT / "docs" / "guide" / "7-study-file.md").read_text(encoding="utf-8")
    definitions = StudyFile.model_json_schema()["$defs"]
    keys = {key for section in definitions.values() for key in section["properties"]}
    assert [key for key in sorted(keys) if f"`{key}`" not in text and f".{key}]" not in text] == []


def test_the_guide_names_every_key_of_an_sn_curve():
    text = (ROOT / "docs" / "guide" / "7-study-file.md").read_text(encoding="utf-8")
    keys = {key for form in FORMS.values() for key in (*form.needs, *form.may)} | set(AFTERWARDS)
    assert [key for key in sorted(keys) if f"`{key}`" not in text] == []


def test_every_picture_is_shown_in_the_readme():
    text = (ROOT / "README.md").read_text(encoding="utf-8")
    assert [path.name for path in (ROOT / "docs" / "screenshots").glob("*.png") if path.name not in text] == []
