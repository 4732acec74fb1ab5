"""A headless Chromium that opens pages, where the machine has one; it asks nothing of the network."""

import contextlib
import shutil
import time

import pytest

CHROMIUM = ("chromium", "chromium-browser", "google-chrome")
OPTIONS = (
    "--headless=new",
    "--no-sandbox",
    "--no-first-run",
    "--hide-scrollbars",
    "--disable-quic",
    "--disable-sync",
    "--disable-component-update",
    "--disable-background-networking",
    "--use-angle=swiftshader",  # WebGL without a graphics card
    "--enable-unsafe-swiftshader",
    "--window-size=1280,900",
)
LONGEST = 60.0  # s to wait for a figure


@contextlib.contextmanager
def chromium():
    """The browser; skips where there is none."""
    program = next((found for name in CHROMIUM if (found := shutil.which(name))), None)
    driver = shutil.which("chromedriver")
    if program is None or driver is None:
        pytest.skip("no Chromium with its driver on this machine: apt-get install chromium chromium-driver")
    from selenium import webdriver
    from selenium.webdriver.chrome.service import Service

    options = webdriver.ChromeOptions()
    options.binary_location = program
    for one in OPTIONS:
        options.add_argument(one)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    browser = webdriver.Chrome(options=options, service=Service(driver))
    try:
        yield browser
    finally:
        browser.quit()


def opened(browser, path):
    """The page, each of its figures drawn; no error of a script."""
    browser.get(path.resolve().as_uri())
    for place in browser.find_elements("css selector", ".live"):
        browser.execute_script("arguments[0].scrollIntoView()", place)
        end = time.monotonic() + LONGEST
        while place.get_attribute("data-drawn") != "yes":
            assert time.monotonic() < end, f"{place.get_attribute('id')} is not drawn"
            time.sleep(0.05)
    assert not [one for one in browser.get_log("browser") if one["level"] == "SEVERE"]


def still(place):
    """The picture of a place once it does not change any more."""
    before = None
    for _ in range(100):
        time.sleep(0.2)
        now = place.screenshot_as_png
        if now == before:
            return now
        before = now
    raise AssertionError("the picture never comes to rest")
