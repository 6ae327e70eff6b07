"""Existing drums brought in from a list: columns chosen, bad rows mended and brought again; on Today what they are due."""

from __future__ import annotations

from pathlib import Path

from selenium.webdriver.support.select import Select

from e2e.support.browser import Browser
from e2e.support.installation import Installation


def choose(browser: Browser, file: Path) -> None:
    browser.one("section")  # the page is there
    browser.driver.find_element("css selector", "input[type=file]").send_keys(str(file))


def test_a_list_with_errors_is_mended_and_brought_again(
    browser: Browser, installation: Installation, tmp_path: Path
) -> None:
    rows = [
        "Shop mark;Drum;Type;Size;Lugs;Top head;Head changed",
        "BR-1;Widgeon;Snare Drum;14 x 5,5;10;single 10 coated;2024-03-05",
        "BR-2;Gadwall;gong;12x8;6;;",
        "BR-3;Pochard;Tom;16 x 16;8;single 10 clear;3/4/2025",
    ]
    file = tmp_path / "cupboard.csv"
    file.write_text("\n".join(rows), encoding="utf-8")
    browser.sign_in()
    browser.go("/drums")
    browser.press("As a list", "main header a")
    browser.sees("Bring drums in")
    choose(browser, file)
    browser.sees("No column says tag.")
    Select(browser.one("select[aria-label='Shop mark is']")).select_by_visible_text("tag")
    browser.sees("1 new, 0 brought up to date, 0 as they are, 2 cannot be taken.")
    told = browser.text()
    assert "row 3" in told
    assert "kind: “gong” is not known." in told
    browser.press("Take 1 drum")
    browser.sees("cupboard.csv: taken")

    rows[2] = rows[2].replace("gong", "rack tom")
    rows[3] = rows[3].replace("3/4/2025", "April 2025")
    file.write_text("\n".join(rows), encoding="utf-8")
    choose(browser, file)
    browser.sees("2 new, 0 brought up to date, 1 as they are, 0 cannot be taken.")  # the columns were remembered
    browser.press("Take 2 drums")
    browser.sees("cupboard.csv: taken")
    stored = installation.cluster.rows(
        "select d.tag, d.kind, f.head, f.dated from register_drum d left join heads_fitting f on f.drum_id = d.id where d.tag like 'BR-%' order by d.tag"
    )
    assert stored == [
        ["BR-1", "snare", "single 10 coated", "known"],
        ["BR-2", "rack-tom", "None", "None"],
        ["BR-3", "floor-tom", "single 10 clear", "guessed"],
    ]
    browser.go("/drums/BR-1")
    browser.sees("fitted 5 Mar 24")
    browser.sees("Entered from a list")


def test_a_long_list_is_stopped_and_leaves_nothing_then_taken_whole(
    browser: Browser, installation: Installation, tmp_path: Path
) -> None:
    file = tmp_path / "depot.csv"
    rows = [f"LL-{n};Dotterel {n};Snare Drum;14 x 5,5;10;depot;band {n % 60}" for n in range(4000)]
    file.write_text("\n".join(["tag;name;kind;size;rods;place;kit", *rows]), encoding="utf-8")
    there = "select count(*) from register_drum where tag like 'LL-%'"
    browser.sign_in()
    browser.go("/drums/bring")
    choose(browser, file)
    browser.sees("depot.csv: reading")
    browser.sees("4000 new, 0 brought up to date")
    browser.press("Take 4000 drums")
    browser.until("some rows of all of them", lambda: "00 of 4000 rows" in browser.text())
    browser.press("Stop")
    browser.sees("depot.csv: stopped")
    browser.sees("Nothing of it was taken.")
    busy = "select count(*) from pg_stat_activity where pid <> pg_backend_pid() and xact_start is not null and backend_type = 'client backend'"
    browser.until("the server to have noticed", lambda: installation.cluster.rows(busy) == [["0"]])
    assert installation.cluster.rows(there) == [["0"]]
    browser.press("Take 4000 drums")
    browser.sees("depot.csv: taken")
    assert installation.cluster.rows(there) == [["4000"]]
