"""One worn head, end to end, as a person would: from what is owed today to the drum's history."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.keys import Keys

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.installation import Installation


def close_and_check(bench: Bench, browser: Browser, installation: Installation, tag: str, reason: str) -> None:
    """The last steps, and everything that must be stored after them."""
    rows = installation.cluster.rows
    stock_sql = f"select count from heads_stockitem s join bench_jobhead h on h.stock_item_id = s.id where h.job_id = '{bench.job}'"
    before = int(rows(stock_sql)[0][0])
    job = bench.job
    bench.until_step("Rest")
    bench.go_on()
    browser.sees("Resting")
    if bench.keyboard:
        browser.keys("f")
    else:
        browser.press("Rested enough")
    bench.until_step("Write on it")
    bench.go_on()
    browser.sees("Closed. It is in")
    browser.until(
        "the closing to be stored", lambda: rows(f"select state from bench_job where id = '{job}'") == [["closed"]]
    )
    assert int(rows(stock_sql.replace(bench.job, job))[0][0]) == before - 1
    fitted = rows(
        f"select head, retired_at is null, retired_because from heads_fitting f join register_drum d on d.id = f.drum_id "
        f"where tag = '{tag}' and side = 'batter' order by fitted_at desc limit 2"
    )
    assert fitted[0][1] == "True"
    assert fitted[1][1:] == ["False", reason]
    due = rows(
        f"select extract(epoch from due_at - now()) / 86400 from followups_followup f join register_drum d on d.id = f.drum_id "
        f"where tag = '{tag}' and done_at is null"
    )
    assert len(due) == 1
    assert 1.9 < float(due[0][0]) < 2.01  # common practice F6, and the demo's way
    record = rows(
        f"select record->'rounds', record->'tally_32', record->'people' from history_logentry where job_id = '{job}'"
    )
    assert "readings_hz" in record[0][0]
    assert "Ines Calloway" in record[0][2]
    spread = rows(f"select spread_hz from history_pitchrecord where job_id = '{job}'")
    assert float(spread[0][0]) <= 2.0  # common practice F2


def test_by_mouse_in_the_bench_theme(browser: Browser, installation: Installation) -> None:
    browser.sign_in()
    browser.sees("owed")
    browser.until(
        "Wherry on the list", lambda: next((a for a in browser.all("main a") if "Wherry" in a.text), None)
    ).click()
    browser.sees("New batter head for Wherry")
    browser.press("single 10 coated", "label")
    browser.press("coat worn through", "label")
    browser.press("Start on the bench", "button")
    browser.sees("Lay out the head")
    bench = Bench(browser)
    bench.until_step("Slacken")
    browser.sees("No power driver")  # the caution stands before the step
    browser.press("Rod by rod", "button")
    bench.go_on()
    browser.press("Undo", "button")
    browser.until("rod 1 of pass 1 again", lambda: (bench.turning() or (0,))[0] == 1)
    browser.sees("Pass 1 of 4")
    bench.until_step("Clear")
    head = SimulatedHead(RodLayout(6), 214, seed=11, uneven=0.02, noise=0.0005)
    rounds = bench.clear(head)
    assert 2 <= rounds <= 4
    true = list(head.true_hz().values())
    assert max(true) - min(true) <= 2.5
    # Left above the wanted 214 Hz by what such a head drops until its check (our own model: 15 cents), within 1 %.
    assert abs(sum(true) / 6 - 215.9) < 2.6
    close_and_check(bench, browser, installation, "MQ-021", "coat worn through at the centre")
    browser.press("See the drum", "a")
    browser.until(
        "the new entry to be pressed; older ones tell no turns of each rod",
        lambda: any(browser.click(b) for b in browser.all("ol button") if "turns each" in b.text),
    )
    browser.sees("From fingers")
    assert browser.console_errors() == []


def tab_to(browser: Browser, words: str, most: int = 60) -> None:
    """Tab until the focus stands on something that begins so."""
    for _ in range(most):
        browser.keys(Keys.TAB)
        text = browser.script(
            "const e = document.activeElement; return (e.innerText || e.getAttribute('aria-label') || e.labels?.[0]?.innerText || '').trim()"
        )
        if text.startswith(words):
            return
    raise AssertionError(f"Tab never reached “{words}”")


def test_by_keyboard_alone_in_the_stage_theme(browser: Browser, installation: Installation) -> None:
    browser.go("/")
    browser.sees("Demo accounts")
    tab_to(browser, "Name")
    browser.keys("ines", Keys.TAB, "slack-water-41", Keys.ENTER)
    browser.one("nav[aria-label=Views]")
    browser.keys(".")
    assert browser.script("return document.documentElement.dataset.theme") == "stage"
    browser.keys("d")
    browser.sees(" drums")
    browser.keys("/")
    browser.keys("spoonbill")
    browser.sees("1 drum")
    browser.keys(Keys.ARROW_DOWN)
    browser.until(
        "the row to have the focus", lambda: browser.script("return document.activeElement.textContent") == "Spoonbill"
    )
    browser.keys(Keys.ENTER)
    browser.sees("Batter pitch since")
    tab_to(browser, "New batter head")
    browser.keys(Keys.ENTER)
    browser.sees("Why the old head goes")
    tab_to(browser, "coat worn through")
    browser.keys(" ")
    tab_to(browser, "Start on the bench")
    browser.keys(Keys.ENTER)
    browser.sees("Lay out the head")
    bench = Bench(browser, keyboard=True)
    bench.until_step("Slacken")
    browser.keys("c")
    browser.sees("next rod")
    bench.go_on()
    browser.keys("u")
    browser.until("rod 1 again", lambda: (bench.turning() or (0,))[0] == 1)
    browser.keys("o")
    browser.sees("what was really turned?")
    browser.keys(Keys.ENTER)
    browser.until("rod 5 next", lambda: (bench.turning() or (0,))[0] == 5)
    bench.until_step("Clear")
    head = SimulatedHead(RodLayout(8), 175, seed=23, uneven=0.02, noise=0.0005)
    assert bench.clear(head) <= 4
    close_and_check(bench, browser, installation, "MQ-033", "coat worn through at the centre")


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("abc", "Give a pitch"),
        ("9999", "9999? Its neighbours are near"),
    ],  # more of them in the web app’s unit tests and the core’s
)
def test_impossible_readings_are_answered_and_kept_in_sight(browser: Browser, typed: str, words: str) -> None:
    browser.sign_in()
    browser.until(
        "Dunlin in hand", lambda: next((a for a in browser.all("main a") if "Dunlin" in a.text), None)
    ).click()
    browser.sees("Pitch at rod 4")
    browser.keys(typed, Keys.ENTER)
    browser.sees(words)
    if browser.all("[aria-label='To decide']"):
        browser.press("Put away", "button")
        browser.sees("Pitch at rod 4")
