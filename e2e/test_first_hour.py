"""A drum that is new to the book: what stands on it is said without a job, and Today has something to say."""

from __future__ import annotations

from datetime import date, timedelta

from selenium.webdriver.common.keys import Keys

from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import Installation


def test_what_is_on_a_drum_is_said_without_a_job(browser: Browser, installation: Installation) -> None:
    drum = {
        "tag": "ST-1", "name": "Ruff", "kind": "rack-tom", "diameter": "10", "depth": "7", "rods_batter": 6, "rods_resonant": 6,
        "place": "north loft", "owner": "Marrow Quay",
    }  # fmt: skip
    Device(installation.server.url).call("POST", "/api/register/drums", drum)
    browser.sign_in()
    browser.go("/drums/ST-1")
    browser.press("Say what is on it")
    browser.sees("What is on Ruff now")
    field = "[role=dialog] input[name='{}']"
    browser.one(field.format("batter-what")).send_keys("single 10 coated")
    day = date.today() - timedelta(days=500)
    browser.one(field.format("batter-on")).send_keys(f"{day:%m%d%Y}")
    browser.one(field.format("batter-pitch")).send_keys("250 254 252 251 253 249")
    browser.one(field.format("resonant-what")).send_keys("single 10 clear")
    browser.click(browser.all("[role=dialog] fieldset:nth-of-type(2) label[data-rac]")[-1])
    browser.driver.refresh()  # what was typed is still there
    browser.press("Say what is on it")
    browser.until(
        "what was typed", lambda: browser.one(field.format("batter-what")).get_attribute("value") == "single 10 coated"
    )
    browser.one(field.format("batter-pitch")).send_keys(Keys.ENTER)
    browser.sees("spread 5.0 Hz")
    browser.sees("16 months old")
    browser.sees("on it since before")
    browser.sees("What stands now: batter single 10 coated")
    browser.go("/")
    browser.until("more lines", lambda: "Ruff" in browser.text() or "more past their age" in browser.text())


def test_a_note_is_written_without_a_job(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.go("/drums/MQ-063")
    browser.press("Write a note")
    browser.one("input[name=note]").send_keys("lug 5 squeaks since the regatta")
    browser.network(False)
    browser.press("Write it")
    browser.sees("It stays on this device.")
    browser.network(True)
    browser.press("Write it")
    browser.until("the line", lambda: any("lug 5 squeaks" in each for each in browser.words("section[aria-label=History] li")))  # fmt: skip
    notes = "select count(*) from history_logentry where kind = 'note' and text = 'lug 5 squeaks since the regatta'"
    assert installation.cluster.rows(notes) == [["1"]]
