"""A kit from nothing: put together by keyboard, planned, its jobs made, one of them done at the bench."""

from __future__ import annotations

from itertools import pairwise

from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.installation import Installation

DRUMS = ("Puffin", "Guillemot", "Turnstone", "Trawler", "Pontoon")
HIGHEST, BASS = DRUMS[0], DRUMS[-1]


def choose(browser: Browser, label: str, words: str) -> None:
    Select(browser.one(f"select[aria-label='{label}']")).select_by_visible_text(words)


def test_five_drums_become_a_kit_with_jobs_and_one_is_done(browser: Browser, installation: Installation) -> None:
    rows = installation.cluster.rows
    browser.sign_in()
    browser.keys("y")
    browser.sees("pageant barge")
    browser.keys("n")
    browser.sees("A new kit")
    browser.write("Name", "slack-tide five")
    browser.write("Occasion", "night market")
    for name in DRUMS:
        browser.write("Add a drum", name)
        browser.until(f"{name} to be found", lambda name=name: name in "".join(browser.words("form button")))  # type: ignore[misc]
        browser.keys(Keys.ENTER)
        browser.until(f"{name} in the row", lambda name=name: name in "".join(browser.words("ol li")))  # type: ignore[misc]
    browser.go("/kits/new")  # the page was left: what was typed is still there
    browser.until("the five of them", lambda: len(browser.all("ol li")) == len(DRUMS))
    browser.press("See how they stand")
    browser.sees("night market")
    browser.sees("Notes keep apart")

    browser.keys("r")  # who answers when one is struck
    browser.sees(f"Strike {HIGHEST} once")
    browser.press(BASS, "label")
    browser.press("Simulated kit")
    browser.until("what was heard", lambda: "answers" in browser.text() and "kept in its history" in browser.text())
    browser.press("Close", "button")

    choose(browser, "From tom to tom", "fourths")
    browser.until("fourths", lambda: browser.text().count("a fourth") >= 3)
    browser.press(BASS)
    browser.sees(f"{BASS} in this kit")
    browser.press("stays as it is", "label")
    browser.press("Plan it so")
    browser.sees("left as it is")
    browser.until("the plan for it", lambda: not browser.all("[data-thinking]") and "jobs" in browser.text())
    notes = browser.script(
        "return fetch(location.pathname.replace('/kits', '/api/kits') + '/plan', {method: 'POST', headers: {'Content-Type': 'application/json',"
        " 'X-CSRFToken': document.cookie.match(/csrftoken=([^;]+)/)?.[1] ?? ''}, body: JSON.stringify({step: 'fourth', stays: ['MQ-056']})}).then(r => r.json())"
    )
    toms = [place["note_hz"] for place in notes["places"][:4]]
    for above, below in pairwise(toms):
        assert (
            abs(above / below / 2 ** (5 / 12) - 1) < 0.008
        )  # five of twelve equal steps (ISO 16), within ten cents and rounding
    browser.script("document.activeElement.blur()")
    browser.keys(" ")
    browser.sees("jobs planned")
    assert rows(
        "select count(*) from history_logentry where kind = 'sing' and text like 'Struck in slack-tide five%'"
    ) == [["1"]]
    planned = rows(
        "select d.tag, p.part, d.wanted_batter_hz, d.wanted_resonant_hz from planned_plannedjob p join register_drum d on d.id = p.drum_id"
        " where p.work = 'another-pitch' and p.state = 'open' and p.why like 'slack-tide five%'"
    )
    assert len(planned) == notes["jobs"] >= 4
    assert "MQ-056" not in {row[0] for row in planned}

    browser.press("Begin with", "a")
    browser.sees("Start on the bench")
    tag, part = browser.script(
        "return [location.pathname.split('/')[2], new URLSearchParams(location.search).get('part')]"
    )
    wanted = next(float(row[2] if part == "batter" else row[3]) for row in planned if row[:2] == [tag, part])
    browser.press("Start on the bench", "button")
    browser.sees("Lay out")
    bench = Bench(browser)
    bench.until_step("Bring it there")
    count = int(rows(f"select rods_{part} from register_drum where tag = '{tag}'")[0][0])
    head = SimulatedHead(RodLayout(count), wanted * 1.01, seed=7, uneven=0.004, noise=0.0005)
    bench.clear(head)
    bench.until_step("Clear")
    bench.clear(head)
    bench.until_step("Close")
    bench.go_on()
    browser.sees("Closed. It is in")
    browser.until(
        "the closing to be stored",
        lambda: rows(f"select state from bench_job where id = '{bench.job}'") == [["closed"]],
    )
    done = rows(f"select mean_hz from history_pitchrecord where job_id = '{bench.job}'")
    assert abs(float(done[0][0]) / wanted - 1) < 0.006
    kit = rows("select id from register_kit where name = 'slack-tide five'")[0][0]
    browser.go(f"/kits/{kit}")
    browser.until(
        "one job less",
        lambda: any(each.startswith(f"Make {notes['jobs'] - 1} jobs") for each in browser.words("button")),
    )
    assert browser.console_errors() == []
