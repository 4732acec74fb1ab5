"""Pages opened in a browser: every figure is drawn without an error, turns, zooms, and answers to its buttons."""

import io

import numpy as np
import pytest
from PIL import Image

import vivid_anvil as va
from tests.pages.browser import chromium, opened, still
from vivid_anvil.fields import ModelView
from vivid_anvil.reports import build_report, write_report
from vivid_anvil.reports.document import Picture
from vivid_anvil.study.report_settings import ReportSettings

pytestmark = pytest.mark.slow


@pytest.fixture(scope="module")
def browser():
    """Chromium, or a skip with its reason."""
    with chromium() as found:
        yield found


@pytest.fixture(scope="module")
def model(demo_file, tmp_path_factory):
    """A page of the demo's model."""
    study = va.read_study(demo_file.parent / "hanger_head.toml")
    answer = va.run_study(study).model
    view = ModelView(answer.result, "corner", answer.places, study.model.up, answer.title)
    return va.write_page({"model": view}, tmp_path_factory.mktemp("page") / "model.html")


def colours(png):
    """How many pixels have a colour, not a grey."""
    pixels = np.asarray(Image.open(io.BytesIO(png)).convert("RGB")).astype(int)
    return int((np.ptp(pixels, axis=2) > 40).sum())


def test_every_figure_of_a_page_is_drawn(browser, demo_result, tmp_path):
    life = demo_result.lives[0]
    things = {
        "history": life.damage_over_time("loaded lap"),
        "cycles": life.spectrum.cycles,
        "curves": [one.method.reference for one in demo_result.lives],
        "life": life,
        "growth": demo_result.growths[0],
    }
    opened(browser, va.write_page(things, tmp_path / "all.html"))
    for place in browser.find_elements("css selector", ".live"):
        browser.execute_script("arguments[0].scrollIntoView()", place)
        assert colours(still(place)) > 300


def test_the_slider_shows_the_growth_from_another_size(browser, demo_result, tmp_path):
    opened(browser, va.write_page({"growth": demo_result.growths[0]}, tmp_path / "growth.html"))
    place = browser.find_element("css selector", ".live")
    before = still(place)
    step = "const f = document.querySelector('.live'); const s = f._fullLayout.sliders[0].steps[0];"
    browser.execute_script(step + "Plotly.update(f, s.args[0], s.args[1]);")
    assert still(place) != before
    assert "0.25 mm" in browser.execute_script("return document.querySelector('.live')._fullLayout.title.text")


def test_a_model_turns_goes_to_its_places_and_hides_its_sets(browser, model):
    from selenium.webdriver import ActionChains

    opened(browser, model)
    place = browser.find_element("css selector", ".live")
    whole = still(place)
    assert colours(whole) > 10_000
    ActionChains(browser).move_to_element(place).click_and_hold().move_by_offset(160, 40).release().perform()
    turned = still(place)
    assert turned != whole
    first = browser.find_elements("css selector", "button.place")[0]
    assert "node 2613: 17.78 years" in first.text
    first.click()
    there = still(place)
    assert there not in (whole, turned)
    assert colours(there) > colours(whole)  # nearer
    browser.find_element("css selector", "button.whole").click()
    assert still(place) == whole
    boxes = browser.find_elements("css selector", ".live-panel input")
    boxes[0].click()
    assert colours(still(place)) < colours(whole) / 3


def test_the_pointer_is_told_node_life_and_event(browser, model):
    opened(browser, model)
    text = browser.execute_script("return document.querySelector('.live').data[0].text")
    assert all(line.startswith("<b>node ") for line in text)
    assert any("years<br>lap" in line for line in text)


def test_figures_of_a_report_are_drawn_and_printed_as_still_ones(browser, demo_result, tmp_path):
    document = build_report(demo_result, ReportSettings(pictures="interactive", sections=["results"]))
    path = write_report(document, tmp_path / "r.html")
    assert path.stat().st_size < 8e6
    opened(browser, path)
    drawn = [block for one in document.every() for block in one.blocks if isinstance(block, Picture)]
    assert all(block.live is not None for block in drawn)
    for kind in (".live", ".live-still"):
        assert len(browser.find_elements("css selector", kind)) == len(drawn) > 7
    browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": "print"})
    shown = [one.is_displayed() for one in browser.find_elements("css selector", ".live-still")]
    browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": ""})
    assert all(shown)
