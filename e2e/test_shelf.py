"""The Shelf: a place counted by scan, a count that asks what happened, what planned work needs bought and promised, a sheet with broken rows, a part lent."""

from __future__ import annotations

import uuid
from pathlib import Path

import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement

from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import Installation
from e2e.support.label import film_of, line_code, square_code


def begin(installation: Installation, **facts: object) -> int:
    """A line of its own for a test."""
    body = {"id": str(uuid.uuid4()), "sort": "part", "count": 4, **facts}
    return int(Device(installation.server.url).call("POST", "/api/shelf/lines", body)["row"]["id"])


def there(installation: Installation, line: int) -> tuple[int, int]:
    """The count on record, and the sum of all its movements."""
    row = installation.cluster.rows(
        f"select s.count, sum(m.delta) from heads_stockitem s join stock_movement m on m.stock_item_id = s.id where s.id = {line} group by s.count"
    )[0]
    return int(row[0]), int(row[1])


def found(browser: Browser, xpath: str) -> WebElement:
    """The first such thing, once it is there."""

    def look() -> WebElement | None:
        return next(iter(browser.driver.find_elements("xpath", xpath)), None)

    return browser.until(xpath, look)


@pytest.mark.parametrize("code", [square_code, line_code])
def test_a_place_is_counted_by_its_label(code, installation: Installation, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    place = f"E{code.__name__[0]}"
    line = begin(installation, name=f"spur tip {place}", place=place)
    other = begin(installation, name=f"hoop clip {place}", place=place)
    Device(installation.server.url).call("POST", f"/api/shelf/lines/{line}/codes", {"code": f"SPUR-{place}"})
    browser = Browser(installation.server.url, camera=film_of(code(f"SPUR-{place}"), tmp_path / "label.y4m"))
    try:
        browser.sign_in()
        browser.go("/shelf/count")
        browser.press("Scan labels")
        browser.sees(f"Count {place}")
        browser.until(
            "the scanned line to be in hand",
            lambda: browser.driver.switch_to.active_element.get_attribute("aria-label") == f"spur tip {place}: how many are there",
        )  # fmt: skip
        browser.driver.switch_to.active_element.send_keys("7")
        browser.press("Stop the camera")
        browser.network(False)
        browser.press("1 of 2 counted")
        browser.sees("What you counted stays on this device.")
        browser.network(True)
        browser.press("1 of 2 counted")
        browser.sees("1 looked at; 1 differ")
        browser.sees("4 → 7")
        assert there(installation, line) == (7, 7)
        assert there(installation, other) == (4, 4)
    finally:
        browser.close()


def test_a_count_does_not_go_below_nought_unasked(browser: Browser, installation: Installation) -> None:
    line = begin(installation, name="butt screw", count=1, place="E8")
    browser.sign_in()
    browser.go(f"/shelf/{line}")
    browser.press("Written off")
    browser.write("How many go", Keys.CONTROL + "a" + Keys.NULL + "3")
    browser.press("Write off", "[role=dialog] button")
    browser.sees("What happened?")
    assert there(installation, line) == (1, 1)
    browser.press("Miscounted")
    browser.sees("there were more than the count said")
    browser.sees("0 there")
    assert there(installation, line) == (0, 0)


def test_what_tomorrows_jobs_need_is_promised_bought_and_there(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.go("/shelf")
    browser.sees("can start")
    job = "//section[@aria-label='The next jobs']//li[.//b[text()='%s']]"
    stands = lambda name: found(browser, job % name).text  # noqa: E731
    assert "short" in stands("Shearwater")
    browser.press("free, promise it")
    browser.until("the head to be promised", lambda: "promised" in stands("Lugger"))
    promised = "select count(*) from heads_promise m join register_drum d on d.id = m.drum_id where d.name = 'Lugger'"
    assert installation.cluster.rows(promised) == [["1"]]
    browser.keys("o")
    browser.named("Arrived")
    bought = found(browser, "//li[.//strong[contains(., 'double 7+7 coated, 16 in')]]")
    assert bought.text.split("\n")[0] == "1"
    browser.click(bought.find_element("css selector", "button"))
    browser.sees("Lay it on something flat")
    browser.press("They lie there")
    browser.until("it to be off the list", lambda: "for Shearwater" not in browser.text())
    browser.press("Shelf", "main header a")
    browser.until("the job to have its head", lambda: "free" in stands("Shearwater"))


def test_a_sheet_is_looked_at_first_and_each_bad_row_told(
    browser: Browser, installation: Installation, tmp_path: Path
) -> None:
    sheet = tmp_path / "brought.csv"
    sheet.write_text(
        "sort;line;size;place;count;note\n"
        'part;cork pad;;E7;12;"=1+1"\n'
        "rod;7/32-24;64 mm;E7;9;\n"
        "head;single 10 coated;;E7;3;\n"
        "part;cork pad;;E7;many;\n",
        encoding="utf-8",
    )
    browser.sign_in()
    browser.go("/shelf/sheet")
    browser.sees("Bring one in")
    browser.driver.find_element("css selector", "input[type=file]").send_keys(str(sheet))
    browser.sees("2 good, 2 new, 0 change a count, 0 as they are, 2 cannot be taken.")
    assert "row 4" in browser.text()
    assert "the size is missing" in browser.text()
    kept = "select count(*) from heads_stockitem where name = 'cork pad'"
    assert installation.cluster.rows(kept) == [["0"]]
    browser.press("Take 2 rows")
    browser.sees("brought.csv: taken")
    assert installation.cluster.rows(kept) == [["1"]]
    written = browser.script("return fetch('/api/shelf/sheet.csv').then(answer => answer.text())")
    assert "'=1+1" in written


def test_a_part_lent_stays_on_today_until_it_is_back(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.go("/shelf/lent")
    browser.write("From drum (its tag)", "MQ-008")
    browser.write("To drum (its tag), or to whom", "MQ-404")
    browser.press("Lend it")
    browser.sees("No drum of this workshop.")
    browser.write("To drum (its tag), or to whom", Keys.CONTROL + "a" + Keys.NULL + "the rowing club")
    browser.press("Lend it")
    browser.until("it to be out", lambda: "the rowing club" in browser.text())
    browser.go("/drums/MQ-008")
    browser.sees("tension rod lent to the rowing club")
    browser.go("/")
    browser.sees("tension rod lent from Ketch to the rowing club")
    browser.click(found(browser, "//main//a[contains(., 'lent from Ketch')]"))
    browser.sees("what is out until it is back")
    row = found(browser, "//li[contains(., 'the rowing club')]")
    browser.click(row.find_element("css selector", "button"))
    browser.until("it to be back", lambda: "the rowing club" not in browser.text())


def test_a_rod_borrowed_on_the_bench_is_owed_until_it_is_back(browser: Browser, installation: Installation) -> None:
    device = Device(installation.server.url)
    drum = {
        "tag": "SH-1", "name": "Stint", "kind": "rack-tom", "diameter": "11", "depth": "8", "rods_batter": 6, "rods_resonant": 6,
        "place": "west loft", "owner": "Marrow Quay",
    }  # fmt: skip
    device.call("POST", "/api/register/drums", drum)
    job = device.start("SH-1")
    device.enter(job, {"kind": "found", "step": "lay-out", "finding": "rod-missing", "side": "batter", "rod": 3, "degree": 2, "note": ""})  # fmt: skip
    browser.sign_in()
    browser.go(f"/bench/{job}")
    browser.press("Borrow one")
    offer = browser.until("who could give one", lambda: browser.words("[aria-label='Who could give a rod'] button"))[0]
    browser.press(offer.split("\n")[0])
    tag = offer.split("\n")[1].split(";")[0]
    browser.until(
        "the drum to be named", lambda: browser.field("From which drum (its tag)").get_attribute("value") == tag
    )
    browser.press("Borrowed")
    loans = f"select l.what, f.name from stock_loan l join register_drum f on f.id = l.from_drum_id where l.ended = '' and l.to_words = '' and f.tag = '{tag}'"
    browser.until("the loan to be kept", lambda: installation.cluster.rows(loans))
    assert installation.cluster.rows(loans) == [["tension rod", offer.split("’")[0]]]
    browser.go(f"/drums/{tag}")
    browser.sees("tension rod lent to Stint")


def test_the_shelf_by_the_keyboard_alone(browser: Browser, installation: Installation) -> None:
    """A line begun, more of it arrived, some written off, its place counted, a rod lent and back: no mouse."""
    browser.sign_in()
    browser.keys("k")
    browser.sees("Until")
    browser.tab_to("New line")
    browser.keys(Keys.ENTER)
    browser.sees("A new line")
    browser.tab_to("Head")
    browser.keys(*[Keys.ARROW_RIGHT] * 4)
    for label, said in (("What it is", "tap screw"), ("How many are there", "5"), ("Place", "K9")):
        browser.tab_to(label)
        browser.keys(said)
    browser.tab_to("Begin this line")
    browser.keys(Keys.ENTER)
    browser.sees("5 there")
    for deed, number, there_are in (("Some arrived", "3", "8 there"), ("Written off", "2", "6 there")):
        browser.tab_to(deed)
        browser.keys(Keys.ENTER)
        browser.until(
            "the number to be in hand", lambda: browser.script("return document.activeElement.type") == "text"
        )
        browser.keys(number, Keys.ENTER)
        browser.sees(there_are)
        browser.until("the sheet to be gone", lambda: not browser.all("[role=dialog]"))
    browser.keys("k")
    browser.sees("Until")
    browser.keys("c")
    browser.sees("Count a shelf")
    browser.tab_to("K9")
    browser.keys(Keys.ENTER)
    browser.sees("Count K9")
    browser.tab_to("tap screw: how many are there")
    browser.keys("4", Keys.ENTER)
    browser.tab_to("All counted", most=1)
    browser.keys(Keys.ENTER)
    browser.sees("6 → 4")
    browser.keys("k")
    browser.sees("Until")
    browser.tab_to(r"\d+ lent and not back")
    browser.keys(Keys.ENTER)
    browser.sees("Lend a part")
    browser.tab_to("From drum")
    browser.keys("MQ-091")
    browser.tab_to("To drum")
    browser.keys("MQ-092")
    browser.tab_to("Lend it")
    browser.keys(Keys.ENTER)
    out = "select count(*) from stock_loan l join register_drum d on d.id = l.to_drum_id where d.tag = 'MQ-092' and l.ended_at is null"
    browser.until("it to be out", lambda: installation.cluster.rows(out) == [["1"]])
    browser.until("it to be listed", lambda: "to Razorbill" in browser.text())
    browser.tab_to("Back$", back=True)
    browser.keys(Keys.ENTER)
    browser.until("it to be back", lambda: installation.cluster.rows(out) == [["0"]])
