"""A photo at the mark: taken, kept while there is no network, sent, and looked at again where the hoop goes back."""

from __future__ import annotations

from pathlib import Path

import pytest
from PIL import Image

from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import Installation


@pytest.fixture
def photo(tmp_path: Path) -> Path:
    path = tmp_path / "hoop.jpg"
    made = Image.new("RGB", (3000, 2000), "saddlebrown")
    made.paste("ivory", (700, 300, 2300, 1700))
    made.save(path)
    return path


def stored(installation: Installation, job: str) -> list[list[str]]:
    return installation.cluster.rows(f"select about, width from photos_photo where job_id = '{job}'")


def test_a_photo_of_how_it_sat(browser: Browser, installation: Installation, photo: Path) -> None:
    device = Device(installation.server.url)
    job = device.start("MQ-091")
    device.enter(job, {"kind": "step_done", "step": "lay-out"})
    browser.sign_in()
    browser.go(f"/bench/{job}")
    browser.sees("photograph where hoop")
    browser.network(False)
    browser.driver.find_element("css selector", "input[type=file]").send_keys(str(photo))
    browser.one("button[aria-label^='Photo 1. On this device']")
    assert stored(installation, job) == []
    browser.network(True)
    browser.until("the photo to be stored", lambda: stored(installation, job))
    assert stored(installation, job) == [["mark", "1600"]]  # made smaller on the device
    browser.one("button[aria-label^='Photo 1. Taken by Ines']")
    steps = ("mark", "slacken", "lift-off", "clean")
    device.enter(job, *[{"kind": "step_done", "step": step} for step in steps])
    browser.sees("As it sat")
    browser.press("", "button[aria-label^='Photo 1. Taken by Ines']")
    large = browser.one("[role=dialog] img")
    browser.until("the photo to be seen", lambda: browser.script("return arguments[0].naturalWidth", large) == 1600)
    browser.press("Take this photo away", "[role=dialog] button")
    browser.until("the photo to be gone", lambda: stored(installation, job) == [])
    assert browser.console_errors() == []
