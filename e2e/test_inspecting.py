"""Walks: six drums by keyboard, one of them without network; a verdict overruled; a head promised; a label scanned."""

from __future__ import annotations

from pathlib import Path

import pytest
from selenium.webdriver.common.keys import Keys

from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import Installation
from e2e.support.label import film_of, line_code, square_code

LOFT = "east loft"
NAMES = {
    "EX-1": ("Eider", "rack-tom"),
    "EX-2": ("Scoter", "rack-tom"),
    "EX-3": ("Teal", "snare"),
    "EX-4": ("Wigeon", "floor-tom"),
    "EX-5": ("Gadwall", "rack-tom"),
    "EX-6": ("Pochard", "rack-tom"),
}


@pytest.fixture
def loft(installation: Installation) -> Installation:
    """Six drums of a size nobody else here has, and one head for them on the shelf."""
    device = Device(installation.server.url)
    for tag, (name, kind) in NAMES.items():
        drum = {
            "tag": tag, "name": name, "kind": kind, "diameter": "11", "depth": "8", "rods_batter": 6, "rods_resonant": 6,
            "snare_bed": kind == "snare", "place": LOFT, "owner": "Marrow Quay",
        }  # fmt: skip
        device.call("POST", "/api/register/drums", drum)
    installation.cluster.rows(
        "insert into heads_stockitem (workshop_id, line_id, diameter_m, count, shelf) "
        "select workshop_id, id, 0.2794, 1, 'E1' from heads_headline where name = 'single 10 coated'",
        autocommit=True,
    )
    return installation


def stored(installation: Installation, kind: str) -> int:
    return int(installation.cluster.rows(f"select count(*) from inspecting_walkevent where kind = '{kind}' and tag like 'EX-%'")[0][0])  # fmt: skip


def at(browser: Browser, drum: str, place: str) -> None:
    browser.sees(drum)
    browser.sees(f"{LOFT}, {place} of 6")


def press_keys(browser: Browser, *keys: str) -> None:
    """Keys for the view: whatever was pressed before lets go of the focus."""
    browser.script("document.activeElement.blur()")
    for key in keys:
        browser.keys(key)


def test_a_walk_of_six_drums_by_keyboard_with_its_work_planned(browser: Browser, loft: Installation) -> None:
    browser.sign_in()
    browser.go("/inspect")
    place = browser.field("Place")
    browser.until("the place to be offered", lambda: LOFT in place.text)
    place.send_keys(LOFT)
    browser.named("Walk along them").send_keys(Keys.SPACE)

    at(browser, "Eider", "1")
    press_keys(browser, "1")
    browser.sees("Film shows through where it is played.")
    press_keys(browser, Keys.ARROW_UP)
    browser.until("it to be bad", lambda: browser.words("button[aria-pressed=true] b") == ["bad"])
    press_keys(browser, " ")

    at(browser, "Scoter", "2")
    press_keys(browser, "7")
    browser.sees("At which rod")
    press_keys(browser, "3")
    browser.sees("fetch one")
    press_keys(browser, " ")

    at(browser, "Teal", "3")
    press_keys(browser, Keys.ARROW_RIGHT, Keys.ARROW_RIGHT, "5")
    browser.sees("Two or three broken.")
    press_keys(browser, " ")

    at(browser, "Wigeon", "4")
    browser.until("three looks to be stored", lambda: stored(loft, "looked") == 3)
    browser.network(False)
    press_keys(browser, "2")
    browser.sees("Felt under a finger.")
    press_keys(browser, " ")
    at(browser, "Gadwall", "5")
    browser.sees("kept on this device")
    assert stored(loft, "looked") == 3
    browser.network(True)
    browser.until("the look without network to be stored, once", lambda: stored(loft, "looked") == 4)

    press_keys(browser, " ")
    at(browser, "Pochard", "6")
    press_keys(browser, "4")
    browser.sees("A split or a hole, however small.")
    press_keys(browser, " ")
    browser.sees("Six looked at: one to clear, two heads, one set of wires, one to repair.")

    browser.press("Wigeon", "h2 a")
    browser.sees("Clear the batter.")
    press_keys(browser, "o")
    browser.press("nothing", "[role=dialog] label")
    browser.press("It stands so")
    browser.sees("Say why, in a few words")
    browser.write("Why", "a school drum, fine for a term")
    browser.press("It stands so")
    browser.sees("decided by Ines")
    browser.sees("Nothing to do.")
    browser.driver.back()
    browser.sees("Six looked at: two heads, one set of wires, one to repair.")
    assert browser.words("section[aria-label='To buy'] li") == [
        "1\nsingle 10 coated, 11 in\nfor\nEX-6",
        "1\nsnare wires, 11 in\nfor\nEX-3",
    ]
    press_keys(browser, " ")
    browser.sees("planned, on Today by its day")
    promised = loft.cluster.rows("select d.tag from heads_promise p join register_drum d on d.id = p.drum_id where d.tag like 'EX-%'")  # fmt: skip
    assert promised == [["EX-1"]]

    browser.go("/inspect/rules")
    browser.sees("Decided otherwise here")
    browser.sees("1 time: a school drum, fine for a term")
    browser.go("/")
    browser.until("the split head to be owed today", lambda: any("Pochard" in each for each in browser.words("section[aria-label=Owed] li")))  # fmt: skip
    browser.go("/drums/EX-1")
    browser.press("New batter head", "section[aria-label='Planned for this drum'] a")
    browser.sees("promised to this drum")
    browser.press("Start on the bench")
    browser.sees("Lay out")
    job = browser.driver.current_url.rsplit("/", 1)[-1]
    assert loft.cluster.rows(f"select count(*) from heads_promise where for_what = '{job}'") == [["1"]]
    assert browser.console_errors() == []


@pytest.mark.parametrize(
    ("picture", "name"),
    [(square_code("https://shop.example/drums/MQ-073"), "Sloop"), (line_code("MQ-082"), "Coot")],
    ids=["QR with an address", "Code 128 with the bare tag"],
)
def test_a_drum_opens_by_its_label(installation: Installation, tmp_path: Path, picture: object, name: str) -> None:
    browser = Browser(installation.server.url, camera=film_of(picture, tmp_path / "label.y4m"))  # type: ignore[arg-type]
    try:
        browser.sign_in()
        browser.go("/inspect")
        browser.press("Scan its label")
        browser.sees("Nothing found")
        assert browser.words("h1") == [name]
        assert browser.console_errors() == []
    finally:
        browser.close()


def test_a_tag_nobody_has_is_said_so(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/inspect")
    browser.write("Tag", "XX-404")
    browser.press("Open", "button")
    browser.sees("No drum here has the tag XX-404.")


def test_a_photo_of_what_was_seen_waits_for_the_network(
    browser: Browser, installation: Installation, tmp_path: Path
) -> None:
    from PIL import Image

    picture = tmp_path / "seen.jpg"
    Image.new("RGB", (2400, 1600), "ivory").save(picture)
    browser.sign_in()
    browser.go("/drums/MQ-061")
    browser.press("Inspect", "main button")
    browser.sees("Nothing found")
    browser.press("dents", "button")
    browser.sees("Felt under a finger.")
    browser.network(False)
    browser.driver.find_element("css selector", "input[type=file]").send_keys(str(picture))
    browser.one("button[aria-label='Photo 1: dents, on this device, not sent yet']")
    browser.network(True)
    of = "select about, width from photos_photo p join register_drum d on d.id = p.drum_id where d.tag = 'MQ-061'"
    browser.until("the photo to be stored", lambda: installation.cluster.rows(of))
    assert installation.cluster.rows(of) == [["dents", "1600"]]
    browser.one("button[aria-label^='Photo 1: dents, by Ines']")


def test_a_head_is_chosen_by_its_sound_and_taken_to_the_bench(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/drums/MQ-015/choose")
    browser.sees("Used for")
    browser.press("open", "button")
    browser.press("long", "button")
    browser.until("the answers to follow", lambda: browser.words("button[aria-pressed=true]") == ["open", "long"])
    browser.press("Take it", "section[aria-label=Answers] button")
    browser.sees("Order of the rods")
    chosen = browser.driver.current_url.rsplit("stock=", 1)[-1]
    assert browser.one(f"input[type=radio][value='{chosen}']").is_selected()


def test_a_tick_survives_the_power_going_off(installation: Installation) -> None:
    """The browser is killed between the tick and the save, without network; it is there again and sent once."""
    first = Browser(installation.server.url)
    first.sign_in()
    first.go("/drums/MQ-062")
    first.press("Inspect", "main button")
    first.sees("Nothing found")
    walk = first.driver.current_url.split("/inspect/")[1].split("?")[0]
    first.network(False)
    first.press("dents", "button")
    first.sees("Felt under a finger.")
    kept = f"select count(*) from inspecting_walkevent where walk_id = '{walk}' and kind = 'seen'"
    assert installation.cluster.rows(kept) == [["0"]]
    first.kill()
    second = Browser(installation.server.url, profile=first.profile)
    try:
        second.go("/")
        second.until("a page", lambda: "Demo accounts" in second.text() or "owed" in second.text())
        if "Demo accounts" in second.text():  # a killed browser may not have written its cookies
            second.sign_in()
        second.go(f"/inspect/{walk}")
        second.until("the tick", lambda: any("dents" in each for each in second.words("button[aria-pressed=true]")))
        second.until("the tick to be stored", lambda: installation.cluster.rows(kept) != [["0"]])
        assert installation.cluster.rows(kept) == [["1"]]
    finally:
        second.close()
