"""Other ways people go: filters, editing, history, ways, two tabs, a phone, a check from Today, undo all the way back."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.select import Select

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.installation import Installation


def choose(browser: Browser, label: str, words: str) -> None:
    def offered() -> bool:
        """What the register holds has come."""
        return words in [each.text for each in Select(browser.one(f"select[aria-label='{label}']")).options]

    browser.until(f"“{words}” to be offered", offered)
    Select(browser.one(f"select[aria-label='{label}']")).select_by_visible_text(words)


def rows(browser: Browser) -> list[str]:
    return [row.find_element(By.CSS_SELECTOR, "a").text for row in browser.all("tbody tr")]


def test_filters_narrow_the_register_and_all_brings_it_back(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/drums")
    browser.sees(" drums")
    choose(browser, "Kind", "floor tom")
    browser.until("floor toms only", lambda: 0 < len(rows(browser)) < 15)
    choose(browser, "Place", "theatre pit store")
    browser.until("one left", lambda: rows(browser) == ["Barge"])
    choose(browser, "State", "in")
    browser.sees("No drum fits this")
    browser.press("All", "button")
    browser.until("all again", lambda: len(rows(browser)) >= 50)
    browser.one("input[name=search]").send_keys("birch floor")
    browser.until("two words narrow together", lambda: "Heron" in rows(browser) and len(rows(browser)) < 12)


def test_scrolling_brings_the_rest_of_the_register(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/drums")
    browser.until("the first page", lambda: len(rows(browser)) >= 50)
    browser.script("window.scrollTo(0, document.body.scrollHeight)")
    browser.until("the second page", lambda: len(rows(browser)) >= 64)


def test_an_edited_drum_is_stored_and_shown(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.go("/drums/MQ-019")
    browser.press("Edit", "button")
    browser.sees("Which drum")
    browser.write("Batter", "G3 +5")
    browser.write("Note", "rattles at the badge")
    browser.press("Save changes", "button")
    browser.sees("rattles at the badge")
    stored = installation.cluster.rows(
        "select round(wanted_batter_hz::numeric, 2), note from register_drum where tag = 'MQ-019'"
    )
    assert stored == [["196.56", "rattles at the badge"]]  # MIDI table: G3 195.998 Hz; five cents up


def test_the_history_opens_to_its_particulars_and_the_plot_follows_the_side(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/drums/MQ-032")
    browser.sees("Batter pitch since")
    browser.press("Resonant", "button")
    browser.sees("Resonant pitch since")
    browser.until(
        "an entry with rounds to be opened",
        lambda: any(browser.click(each) for each in browser.all("ol button") if "New batter head: " in each.text),
    )
    browser.sees("Round 1, Hz")
    browser.sees("turned")


def test_ways_are_kept_and_a_viewer_cannot_change_them(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.go("/ways")
    browser.press("millimetres", "label")
    browser.press("Keep these ways", "button")
    browser.sees("Kept")
    browser.go("/drums/MQ-041")
    browser.sees("381 × 330 mm")
    assert installation.cluster.rows("select length_unit from workshops_workshop where slug = 'marrow-quay'") == [
        ["mm"]
    ]
    browser.go("/ways")
    browser.write("Reference A, Hz", "4400")
    browser.press("Keep these ways", "button")
    browser.sees("4400? A is usually 415 to 466 Hz.")
    browser.press("It is so")
    browser.press("Keep these ways", "button")
    browser.sees("Must be 480.0 or less")
    browser.write("Reference A, Hz", "440")
    browser.press("inches", "label")
    browser.press("Keep these ways", "button")
    browser.sees("Kept")
    second = Browser(installation.server.url)
    try:
        second.sign_in("della")
        second.go("/ways")
        second.sees("Your role looks on only")
    finally:
        second.close()


def test_a_check_owed_today_is_done_from_today(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.until(
        "Cormorant owed", lambda: next((a for a in browser.all("main a") if "Cormorant" in a.text), None)
    ).click()
    browser.sees("Settling check: Cormorant")
    browser.press("Start on the bench", "button")
    browser.sees("Look the batter head over")
    bench = Bench(browser)
    job = bench.job
    bench.until_step("Clear")
    bench.clear(SimulatedHead(RodLayout(10), 304, seed=5, uneven=0.006, noise=0.0004))
    bench.until_step("Close")
    bench.go_on()
    browser.sees("Closed. It is in")
    sql = "select done_by_job from followups_followup f join register_drum d on d.id = f.drum_id where tag = 'MQ-001'"
    browser.until("the check to be answered", lambda: installation.cluster.rows(sql) == [[job]])
    browser.press("Back to what is owed", "button")
    browser.sees("owed")
    assert not any("Cormorant" in line.text for line in browser.all("section[aria-label=Owed] a"))


def test_two_tabs_of_one_person_show_the_same_place(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.until(
        "Kittiwake in hand", lambda: next((a for a in browser.all("main a") if "Kittiwake" in a.text), None)
    ).click()
    browser.sees("in this order")
    bench = Bench(browser)
    first, path = browser.driver.current_window_handle, browser.driver.current_url
    browser.driver.switch_to.new_window("tab")
    browser.driver.get(path)
    browser.sees("in this order")
    before = bench.state()
    bench.go_on()
    after = bench.state()
    assert after != before
    browser.driver.switch_to.window(first)
    browser.until("the first tab to follow", lambda: bench.state() == after, 8)


def test_undo_goes_back_step_by_step_and_nothing_is_erased(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.go("/drums/MQ-036/start?work=new-batter-head&part=batter")
    browser.sees("Why the old head goes")
    browser.press("Start on the bench", "button")
    browser.sees("Lay out the head")
    bench = Bench(browser)
    bench.until_step("Slacken")
    bench.go_on()
    for title in ("Slacken", "Mark", "Lay out"):
        browser.press("Undo", "button")
        browser.until(f"to be back at {title}", lambda title=title: bench.step() == title)  # type: ignore[misc]
    browser.until(
        "all to be stored",
        lambda: len(installation.cluster.rows(f"select 1 from bench_jobevent where job_id = '{bench.job}'")) >= 7,
    )
    kinds = [
        kind
        for (kind,) in installation.cluster.rows(
            f"select kind from bench_jobevent where job_id = '{bench.job}' order by seq"
        )
    ]
    assert kinds[:4] == ["target", "step_done", "step_done", "turned"]
    bench.until_step("Slacken")


@pytest.mark.parametrize(("wide", "high"), [(390, 844), (800, 1280)])
def test_on_phone_and_tablet_the_work_goes_on_with_the_thumb(browser: Browser, wide: int, high: int) -> None:
    browser.sign_in()
    browser.size(wide, high)
    browser.go("/")
    plover = browser.until(
        "Plover in hand", lambda: next((a for a in browser.all("main a") if "Plover" in a.text), None)
    )
    browser.script("arguments[0].scrollIntoView({block: 'center'})", plover)
    plover.click()
    bench = Bench(browser)
    before = bench.step()
    button = browser.one("[data-testid=main-action]")
    assert button.rect["y"] + button.rect["height"] <= high
    bench.go_on()
    assert bench.step() != before
    browser.press("Undo", "button")
    browser.until("the step again", lambda: bench.step() == before)


def test_the_keys_sheet_opens_and_closes_and_gives_the_focus_back(browser: Browser) -> None:
    browser.sign_in()
    browser.keys("?")
    browser.sees("page-turn pedal")
    browser.keys(Keys.ESCAPE)
    browser.until("the sheet to be gone", lambda: "page-turn pedal" not in browser.text())
    browser.keys("d")
    browser.sees("Search")
    browser.keys("t")
    browser.sees("owed")


def test_a_wrong_password_is_answered_and_the_name_kept(browser: Browser) -> None:
    browser.go("/")
    browser.write("Name", "ines")
    browser.write("Password", "high-water")
    browser.press("Sign in", "button")
    browser.sees("do not belong together")
    assert browser.field("Name").get_attribute("value") == "ines"
