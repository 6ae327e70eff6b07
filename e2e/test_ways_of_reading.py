"""By ear, with a gauge, and two heads: the other ways to clear a head and choose its sound, in the browser."""

from __future__ import annotations

import numpy as np
from selenium.webdriver.common.keys import Keys

from drumwork.rods.clearing import Ear, hears
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.installation import Installation

KEYS = {
    Ear.MUCH_LOWER: "1",
    Ear.LOWER: "2",
    Ear.LEVEL: "3",
    Ear.HIGHER: "4",
    Ear.MUCH_HIGHER: "5",
}
RACK = "MQ-096"
MOST_ROUNDS = 8


def _start_check(browser: Browser, tag: str) -> Bench:
    browser.go(f"/drums/{tag}/start?work=settling-check&part=batter")
    browser.press("Start")
    browser.sees("Look")
    return Bench(browser)


def _judge_round(browser: Browser, head: SimulatedHead) -> None:
    """A listener says, rod by rod, how each sounds beside rod 1; by keys alone."""
    hz = head.true_hz()
    for rod in head.layout.rods[1:]:
        browser.until(
            f"to be asked about rod {rod}",
            lambda rod=rod: browser.all("[data-testid=instruction]")[0].text.endswith(f"\n{rod}"),
        )
        browser.keys(KEYS[hears(1200 * float(np.log2(hz[rod] / hz[1])))])
    browser.sees("Work out the turns")


def test_a_head_is_cleared_by_ear_without_one_number(installation: Installation, browser: Browser) -> None:
    browser.sign_in()
    bench = _start_check(browser, RACK)
    bench.go_on()
    browser.press("Another way")
    browser.press("by ear", "[role=dialog] label")
    browser.sees("Much lower")
    rods = int(installation.cluster.rows(f"select rods_batter from register_drum where tag = '{RACK}'")[0][0])
    head = SimulatedHead(RodLayout(rods), 200, seed=8, uneven=0.025, noise=0)
    for _ in range(MOST_ROUNDS):
        _judge_round(browser, head)
        bench.go_on()
        browser.until("turns, or level", lambda: bench.turning() or "Level by ear" in browser.text())
        if "Level by ear" in browser.text():
            break
        bench.turn_round(head)
    browser.sees("Level by ear")
    hz = list(head.true_hz().values())
    assert (max(hz) - min(hz)) / np.mean(hz) <= 0.02
    assert browser.one("[data-testid=tension-seal]").text.startswith("Tension not shown")
    typed = installation.cluster.rows(
        f"select count(*) from bench_jobevent where job_id = '{bench.job}' and kind = 'reading' and body->>'means' <> 'ear'"
    )
    assert typed == [["0"]]


def test_a_gauge_beside_the_pitch_sets_the_second_seal(browser: Browser) -> None:
    browser.sign_in()
    bench = _start_check(browser, "MQ-095")
    bench.go_on()
    browser.sees("Pitch at rod 1")
    while browser.all("#reading"):
        before = bench.state()
        browser.keys("200", Keys.ENTER)
        browser.until("the next rod", lambda before=before: bench.state() != before)
    browser.press("Change")
    browser.press("Hold the pitch it has")
    bench.go_on()
    browser.sees("Pitch-clear.")
    assert "Tension not shown" in browser.one("[data-testid=tension-seal]").text
    browser.keys("g")
    browser.sees("Stand the gauge at rod")
    while browser.all("#reading"):
        before = bench.state()
        browser.keys("81", Keys.ENTER)
        browser.until("the next rod", lambda before=before: bench.state() != before)
    browser.press("Judge the pull")
    browser.until("the second seal", lambda: "Tension-clear" in browser.one("[data-testid=tension-seal]").text)
    browser.press("Tension-clear", "[data-testid=tension-seal]")
    browser.sees("Why these turns")
    browser.sees("By the gauge")


def test_two_heads_are_chosen_by_what_is_heard(installation: Installation, browser: Browser) -> None:
    browser.sign_in()
    browser.go("/drums/MQ-042")
    browser.press("Sound")
    browser.write("Batter, at the rods", "180")
    browser.sees("Longest and roundest")
    browser.press("shorter, punchier", "label")
    browser.sees("Shorter and punchier")
    browser.sees("214.1")  # a minor third above 180 Hz: 180 · 2^(3/12)
    browser.press("Make these its usual targets")
    browser.sees("Kept as usual targets")
    kept = installation.cluster.rows(
        "select round(wanted_batter_hz), round(wanted_resonant_hz) from register_drum where tag = 'MQ-042'"
    )
    assert kept == [["180.0", "214.0"]]
    browser.write("Batter, at the rods", "900")
    browser.sees("too high for this head")
    assert browser.named("Make these its usual targets").get_attribute("disabled") is not None
