"""Reports: what the documents hold is what the result says, in all three formats; templates, title block, determinism, slips."""

import base64
import datetime
import html.parser
import io
import re
import struct
import zlib

import docx
import pypdf
import pytest

import vivid_anvil as va
from tests.study.flaw_texts import TEXT
from vivid_anvil.reports import WRITERS, report_bytes
from vivid_anvil.reports.answer import rows_of
from vivid_anvil.reports.document import Grid, Picture, Steps, Told
from vivid_anvil.study import run_study
from vivid_anvil.study.report_settings import LANGUAGES, SECTIONS

DAY = datetime.date(2026, 10, 5)
ENDINGS = tuple(WRITERS)


def a_picture():
    """A PNG of four by two pixels."""

    def chunk(kind, data):
        whole = kind + data
        return struct.pack(">I", len(data)) + whole + struct.pack(">I", zlib.crc32(whole))

    rows = b"".join(b"\0" + b"\x20\x40\x80" * 4 for _ in range(2))
    head = struct.pack(">IIBBBBB", 4, 2, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(rows)) + chunk(b"IEND", b"")


@pytest.fixture(scope="module")
def flaws(tmp_path_factory):
    """The result of a small study of flaws."""
    path = tmp_path_factory.mktemp("flaws") / "flaws.toml"
    path.write_text(TEXT)
    return run_study(va.read_study(path))


@pytest.fixture(scope="module")
def results(demo_result, demo_file, flaws):
    """A function: the result of a study of each kind."""
    made = {"lives": lambda: demo_result, "flaws": lambda: flaws}
    made["tower"] = lambda: run_study(va.read_study(demo_file.parent / "tower_base.toml"))
    made["model"] = lambda: run_study(va.read_study(demo_file.parent / "hanger_head.toml"))
    made["vibration"] = lambda: run_study(va.read_study(demo_file.parent / "sensor_bracket.toml"))
    known = {}

    def of(kind):
        if kind not in known:
            known[kind] = made[kind]()
        return known[kind]

    return of


def titles_of(outline):
    """Titles of an outline, inner ones too."""
    return [title for one in outline for title in (titles_of(one) if isinstance(one, list) else [one.title])]


class Reader(html.parser.HTMLParser):
    """Text, anchors, links and pictures of a page."""

    def __init__(self):
        super().__init__()
        self.words, self.anchors, self.links, self.pictures, self.loads = [], set(), [], [], []

    def handle_starttag(self, tag, attrs):
        given = dict(attrs)
        self.anchors |= {given["id"]} if "id" in given else set()
        if tag == "a":
            self.links.append(given.get("href", ""))
        if tag == "img":
            self.pictures.append(given["src"])
        self.loads += [given[key] for key in ("src", "href") if str(given.get(key, "")).startswith("http")]

    def handle_data(self, data):
        self.words.append(data)


def text_of(data, ending):
    """What a reader reads, on one line."""
    if ending == ".html":
        reader = Reader()
        reader.feed(data.decode())
        return " ".join(" ".join(reader.words).split())
    if ending == ".pdf":
        return " ".join(" ".join(page.extract_text() for page in pypdf.PdfReader(io.BytesIO(data)).pages).split())
    word = docx.Document(io.BytesIO(data))
    cells = [cell.text for table in word.tables for row in table.rows for cell in row.cells]
    links = [node.text or "" for node in word.element.body.iter() if node.tag.endswith("}t")]
    return " ".join(" ".join([*(one.text for one in word.paragraphs), *cells, *links]).split())


def squeezed(text):
    """Without blanks, which a page breaks anywhere."""
    return re.sub(r"\s+", "", text)


@pytest.mark.slow
@pytest.mark.parametrize("kind", ["lives", "tower", "model", "vibration"])
@pytest.mark.parametrize("units", ["metric", "us"])
def test_every_answer_and_every_finding_stands_in_every_format(results, kind, units):
    result = results(kind)
    document = va.build_report(result, va.ReportSettings(date=DAY), units=units)
    for ending in ENDINGS:
        told = squeezed(text_of(report_bytes(document, f"r{ending}"), ending))
        for finding in result.findings:
            assert squeezed(finding.sentence) in told, (ending, finding.code)
            assert squeezed(finding.code) in told
        for row in rows_of(result, units):
            for cell in row[:6]:
                assert squeezed(cell) in told, (ending, cell)
        for one in document.every():
            assert squeezed(f"{one.number}{one.title}") in told
        for block in (block for one in document.every() for block in one.blocks):
            if isinstance(block, Grid | Picture):
                assert squeezed(block.caption) in told, (ending, block.caption)


@pytest.mark.parametrize("ending", ENDINGS)
def test_the_same_study_gives_the_same_bytes(flaws, ending):
    settings = va.ReportSettings(date=DAY, project="Larkfell", author="M. Quill")
    one, other = (report_bytes(va.build_report(flaws, settings), f"r{ending}", settings) for _ in range(2))
    assert one == other
    later = va.build_report(
        flaws, va.ReportSettings(date=DAY + datetime.timedelta(1), project="Larkfell", author="M. Quill")
    )
    assert report_bytes(later, f"r{ending}", settings) != one


def test_figures_to_look_around_in_stand_beside_the_still_ones(flaws):
    settings = va.ReportSettings(date=DAY, pictures="interactive", sections=["results"])
    document, again = (va.build_report(flaws, settings) for _ in range(2))
    pictures = [block for one in document.every() for block in one.blocks if isinstance(block, Picture)]
    page = report_bytes(document, "r.html", settings)
    assert page == report_bytes(again, "r.html", settings)
    text = page.decode("utf-8")
    assert text.count('<div class="live-row"') == sum(one.live is not None for one in pictures) > 0
    assert text.count('<img class="live-still"') == text.count('<div class="live-row"')
    assert text.count("<script>") == 2 + text.count('<div class="live-row"')  # the shipped ones stand there once
    still = va.build_report(flaws, va.ReportSettings(date=DAY, sections=["results"]))
    assert report_bytes(document, "r.pdf") == report_bytes(still, "r.pdf")


def test_numbers_of_tables_are_those_of_the_result(flaws):
    document = va.build_report(flaws, va.ReportSettings(date=DAY))
    grids = [block for one in document.every() for block in one.blocks if isinstance(block, Grid)]
    shown = [[cell for row in grid.table.rows for cell in row] for grid in grids]
    expected = flaws.flaws.tables("metric")[0].on_page("metric")
    assert [cell for row in expected.rows for cell in row] in shown
    assert [grid.number for grid in grids] == list(range(1, len(grids) + 1))
    steps = next(block for one in document.every() for block in one.blocks if isinstance(block, Steps))
    assert steps.steps == flaws.flaws.flaws[0].assessment.working().steps
    (told,) = (block for one in document.every() for block in one.blocks if isinstance(block, Told))
    assert told.findings == tuple(flaws.findings)


def test_no_reference_of_a_page_leads_nowhere_and_nothing_is_loaded(flaws):
    document = va.build_report(flaws, va.ReportSettings(date=DAY))
    reader = Reader()
    reader.feed(report_bytes(document, "r.html").decode())
    assert [link for link in reader.links if link[1:] not in reader.anchors] == []
    assert len(reader.links) > 10
    assert reader.loads == []
    pictures = [block for one in document.every() for block in one.blocks if isinstance(block, Picture)]
    assert [base64.b64decode(one.partition(",")[2]) for one in reader.pictures] == [one.png for one in pictures]
    pdf = pypdf.PdfReader(io.BytesIO(report_bytes(document, "r.pdf")))
    assert titles_of(pdf.outline) == [f"{one.number} {one.title}" for one in document.every()]
    leads = [note.get_object()["/Dest"][0] for page in pdf.pages for note in page.get("/Annots", ())]
    pages = [page.indirect_reference for page in pdf.pages]
    assert len(leads) > 10
    assert all(lead in pages for lead in leads)
    word = docx.Document(io.BytesIO(report_bytes(document, "r.docx")))
    nodes = list(word.element.body.iter())
    name = "{http://schemas.openxmlformats.org/wordprocessingml/2006/main}"
    marks = {node.get(f"{name}name") for node in nodes if node.tag == f"{name}bookmarkStart"}
    leads = [node.get(f"{name}anchor") for node in nodes if node.tag == f"{name}hyperlink"]
    assert leads
    assert set(leads) <= marks


@pytest.mark.parametrize("language", LANGUAGES)
def test_the_title_block_speaks_its_language(flaws, language, tmp_path):
    (tmp_path / "logo.png").write_bytes(a_picture())
    settings = va.ReportSettings(
        **{key: f"own {key}" for key in ("project", "number", "revision", "author", "checker")},
        date=DAY,
        language=language,
        logo=str(tmp_path / "logo.png"),
        sections=["answer"],
    )
    document = va.build_report(flaws, settings)
    for ending in ENDINGS:
        told = squeezed(text_of(report_bytes(document, f"r{ending}", settings), ending))
        for word in LANGUAGES[language][1:]:
            assert squeezed(word) in told, (ending, word)
        assert squeezed("own checker") in told
        assert "2026-10-05" in told
    assert document.logo == a_picture()


@pytest.mark.parametrize("name", SECTIONS)
def test_a_section_may_stand_alone_or_be_left_out(flaws, name):
    alone = va.build_report(flaws, va.ReportSettings(sections=[name], date=DAY))
    assert [one.title for one in alone.sections] == [SECTIONS[name]]
    rest = va.build_report(flaws, va.ReportSettings(leave_out=[name], date=DAY))
    assert [one.title for one in rest.sections] == [title for key, title in SECTIONS.items() if key != name]
    for ending in ENDINGS:
        assert len(report_bytes(alone, f"r{ending}")) > 500


def test_templates_of_a_company_are_used(flaws, tmp_path):
    page = tmp_path / "own.html"
    page.write_text(
        "<h1>{{ document.title }}</h1>{{ answer | safe }}{{ body | safe }}{{ contents | length }}{{ logo }}"
    )
    word = docx.Document()
    word.sections[0].header.paragraphs[0].text = "Works of the company"
    word.styles["Heading 1"].font.name = "Georgia"
    word.save(str(tmp_path / "own.docx"))
    settings = va.ReportSettings(
        date=DAY, sections=["answer", "findings"], html_template=str(page), word_template=str(tmp_path / "own.docx")
    )
    document = va.build_report(flaws, settings)
    made = report_bytes(document, "r.html", settings).decode()
    assert made.startswith("<h1>welds of a tower</h1>")
    again = docx.Document(io.BytesIO(report_bytes(document, "r.docx", settings)))
    assert again.sections[0].header.paragraphs[0].text == "Works of the company"
    heads = [one for one in again.paragraphs if one.style.name == "Heading 1"]
    assert heads[0].style.font.name == "Georgia"
    page.write_text("{{ document.nothing }}")
    with pytest.raises(va.InputError, match="html_template"):
        report_bytes(document, "r.html", settings)
    (tmp_path / "own.docx").write_bytes(b"no document")
    with pytest.raises(va.InputError, match="word_template"):
        report_bytes(document, "r.docx", settings)


def test_another_study_stands_beside_it(flaws, tmp_path):
    path = tmp_path / "heavier.toml"
    path.write_text(TEXT.replace('membrane = "120 MPa"', 'membrane = "140 MPa"'))
    other = run_study(va.read_study(path))
    document = va.build_report(flaws, va.ReportSettings(date=DAY, sections=["answer"]), others={"heavier": other})
    told = text_of(report_bytes(document, "r.html"), ".html")
    assert "Beside other studies" in told
    assert "140 MPa" in told
    with pytest.raises(va.InputError, match="differ"):
        va.build_report(flaws, others={"flaws": other})


def test_the_command_writes_all_formats_or_none(run, tmp_path):
    (tmp_path / "flaws.toml").write_text(TEXT + '\n[report]\nproject = "Larkfell"\n')
    study = tmp_path / "flaws.toml"
    files = [tmp_path / f"r{ending}" for ending in ENDINGS]
    code, out, err = run("report", study, *files, "--date", "2026-10-05", "--leave-out", "appendix")
    assert code == 0, err
    assert all(file.name in out.replace("\n", "") for file in files)
    first = [file.read_bytes() for file in files]
    assert "Larkfell" in text_of(first[0], ".html")
    digest = re.findall(r"[0-9a-f]{64}", text_of(first[0], ".html"))
    assert len(digest) == 1  # that of the study file
    assert run("report", study, *files, "--date", "2026-10-05", "--leave-out", "appendix")[0] == 0
    assert [file.read_bytes() for file in files] == first
    for arguments, message in (
        (("r.odt",), "'.docx'"),
        (("r.html", "--section", "answr"), "Did you mean 'answer'"),
        (("r.html", "--date", "tomorrow"), "2026-10-05"),
        (("r.html", "--beside", str(study)), "differ"),
    ):
        before = sorted(tmp_path.iterdir())
        code, _, err = run("report", study, tmp_path / arguments[0], *arguments[1:])
        assert code == 2
        assert message in " ".join(err.split()), err
        assert sorted(tmp_path.iterdir()) == before


def test_slips_of_settings(tmp_path, flaws):
    (tmp_path / "logo.txt").write_text("no picture")
    with pytest.raises(va.InputError, match="PNG or JPEG"):
        va.build_report(flaws, va.ReportSettings(logo=str(tmp_path / "logo.txt"), sections=["answer"]))
    with pytest.raises(va.InputError, match="a list"):
        va.ReportSettings(sections="answer")
    with pytest.raises(va.InputError, match="a date"):
        va.ReportSettings(date="2026-10-05")
    with pytest.raises(va.InputError, match="one section that stays"):
        va.ReportSettings(leave_out=list(SECTIONS))
    with pytest.raises(va.InputError, match="written"):
        va.write_report(va.build_report(flaws, va.ReportSettings(sections=["answer"])), tmp_path / "no" / "r.html")
