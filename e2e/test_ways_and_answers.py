"""A job done otherwise from its middle on, left uneven on purpose, with foam inside, and on a phone; and what it was told."""

from __future__ import annotations

from selenium.webdriver.common.keys import Keys

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.installation import Installation
from e2e.test_every_drum import closed, pictured, start


def test_a_school_changed_in_the_middle_plans_what_is_left_anew_and_is_taken_back(
    browser: Browser, installation: Installation
) -> None:
    bench = start(browser, "MQ-006", "new-batter-head", "batter", "Lay out")
    job = bench.job
    bench.until_step("Mark")
    browser.click(browser.one("button[aria-label='between 2 and 3']"))
    browser.until("the logo’s place to count", lambda: "between 2 and 3" in bench.last_entry())
    bench.until_step("Set head")
    browser.sees("between 2 and 3")
    browser.keys("j")
    browser.sees("The rest of this job otherwise")
    browser.press("over-tension and rest", "label")
    browser.sees("Changes Seat")
    browser.press("From here on", "button")
    bench.until_step("Seat")
    browser.sees("back right off")
    sql = f"select body->>'value', standing from bench_jobevent where job_id = '{job}' and kind = 'school'"
    assert installation.cluster.rows(sql) == [["over-tension", "applied"]]
    for _ in range(2):  # the step before, then the choice itself
        last = bench.last_entry()
        browser.keys("u")
        browser.until("one entry taken back", lambda last=last: bench.last_entry() != last)  # type: ignore[misc]
        if bench.step() == "Set head":
            break
    browser.keys("j")
    browser.sees("The rest of this job otherwise")
    browser.keys(Keys.ESCAPE)
    assert browser.console_errors() == []


def test_a_floor_tom_left_uneven_on_purpose(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-036", "uneven-on-purpose", "resonant", "Lay out")
    job = bench.job
    bench.until_step("Clear")
    sql = "select rods_resonant, wanted_resonant_hz from register_drum where tag = 'MQ-036'"
    rods, wanted = installation.cluster.rows(sql)[0]
    bench.clear(SimulatedHead(RodLayout(int(rods)), float(wanted), seed=11, uneven=0.004, noise=0.0005))
    for _ in range(12):
        if bench.step() in ("Close", "Write on it"):
            break
        bench.go_on()
    closed(bench, installation, job)
    assert installation.cluster.rows(f"select count(*) from history_logentry where job_id = '{job}'") == [["1"]]


def test_a_marching_bass_gets_its_foam_before_its_head(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-062", "new-batter-head", "batter", "Lay out")
    bench.until_step("Foam")
    assert "foam" in pictured(browser)
    bench.until_step("Set head")
    bench.until_step("Tension")
    assert installation.cluster.rows(
        f"select count(*) from bench_jobevent where job_id = '{bench.job}' and body->>'step' = 'foam'"
    ) == [["1"]]


def test_a_whole_job_on_a_phone(browser: Browser, installation: Installation) -> None:
    browser.size(390, 844)
    browser.sign_in()
    browser.go("/drums/MQ-025/start?work=muffling&part=hardware")
    browser.press("Start on the bench", "button")
    browser.sees("Hear it first")
    bench = Bench(browser)
    job = bench.job
    bench.until_step("Note it")
    browser.press("a loose ring", "button")
    browser.press("batter, near the hoop", "button")
    browser.until("both to count", lambda: "batter, near the hoop" in bench.last_entry())
    assert browser.script("return document.documentElement.scrollWidth <= window.innerWidth")
    bench.until_step("Close")
    closed(bench, installation, job)
    browser.go("/drums/MQ-025")
    browser.sees("As it was left")
    browser.sees("a loose ring")
