"""Work on drums of other kinds, led to the end in the browser: a snare side with its wires by keys alone, a rope drum, a ported bass by
wrinkles, mesh, muffling; and what a chipped edge does to a job."""

from __future__ import annotations

import pytest

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.installation import Installation


def start(browser: Browser, tag: str, work: str, part: str, first: str, keyboard: bool = False) -> Bench:
    browser.sign_in()
    browser.go(f"/drums/{tag}/start?work={work}&part={part}")
    browser.ready("Start on the bench")
    browser.keys(" ")
    browser.sees(first)
    return Bench(browser, keyboard)


def closed(bench: Bench, installation: Installation, job: str) -> None:
    bench.go_on()
    bench.browser.sees("Closed. It is in")
    sql = f"select state from bench_job where id = '{job}'"
    bench.browser.until("the closing to be stored", lambda: installation.cluster.rows(sql) == [["closed"]])
    assert bench.browser.console_errors() == []


def pictured(browser: Browser) -> str:
    return str(browser.script("return document.querySelector('main svg[role=img]')?.getAttribute('aria-label') ?? ''"))


def test_a_snare_side_with_its_wires_by_keys_alone(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-097", "new-snare-side-head", "resonant", "Lay out", keyboard=True)
    job = bench.job
    bench.until_step("Gate")
    assert "snare gates" in pictured(browser)
    bench.until_step("Tension")
    browser.keys("c")
    browser.sees("together")
    bench.until_step("Bed rods")
    browser.sees("Until the ripple beside the bed just goes")
    bench.until_step("Clear")
    wanted = float(installation.cluster.rows("select wanted_resonant_hz from register_drum where tag = 'MQ-097'")[0][0])
    bench.clear(SimulatedHead(RodLayout(8), wanted, seed=7, uneven=0.004, noise=0.0005))
    bench.until_step("On and off")
    browser.sees("Lever on: silent. Off: buzzing")
    assert "Lever on" in pictured(browser)
    bench.until_step("Rest")
    bench.go_on()
    browser.press("Rested enough")
    bench.until_step("Write on it")
    closed(bench, installation, job)
    assert installation.cluster.rows(
        f"select side from heads_fitting where job_id = '{job}' and retired_at is null"
    ) == [["resonant"]]


def test_a_rope_drum_to_its_range_and_a_job_beside_it_while_it_rests(
    browser: Browser, installation: Installation
) -> None:
    bench = start(browser, "MQ-072", "new-rope-head", "batter", "Lay out")
    job = bench.job
    bench.until_step("Mark")
    for question, hz in (
        ("Ears up, now", "80"),
        ("Ears down, now", "90"),
        ("Lowest wanted", "85"),
        ("Highest wanted", "98"),
    ):
        bench.write(question, hz)
    bench.until_step("Unlace")
    assert "a third" in pictured(browser)
    bench.until_step("Pull pass")
    browser.sees("Nothing is known of this rope yet")
    bench.write("Each segment was pulled", "10 mm")
    bench.until_step("Range")
    browser.sees("Aim slightly above what is wanted")
    bench.write("Ears up", "84")
    bench.write("Ears down", "93.6")
    bench.until_step("Second pass")
    browser.sees("22 mm more")
    bench.until_step("Segments")
    assert "one pair bowed" in pictured(browser)
    bench.until_step("Rest")
    bench.go_on()
    other = start(browser, "MQ-056", "muffling", "hardware", "Hear it first")  # the useful next one
    other_job = other.job
    other.until_step("A small piece")
    assert "half a piece of gel" in pictured(browser)
    other.until_step("Close")
    closed(other, installation, other_job)
    browser.go("/")
    browser.sees("Brig")
    browser.go(f"/bench/{job}")
    browser.press("Rested enough")
    bench.until_step("Write on it")
    closed(bench, installation, job)
    browser.go("/drums/MQ-072")
    browser.sees("As it was left")
    browser.sees("84.0 Hz")


def test_a_ported_bass_by_wrinkles(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-055", "new-resonant-head", "resonant", "Lay out")
    bench.until_step("Ring off")
    bench.until_step("Port")
    browser.sees("cut away from the hand")
    assert "port" in pictured(browser)
    assert bench.main == "First: the port is?"
    browser.press("to be cut here", "button")
    bench.until_step("Cut the port")
    assert bench.main == "Read: gloves on, work clamped, nobody beside me"
    bench.until_step("Wrinkles")
    browser.sees("Until its wrinkle has shown and just gone")


@pytest.mark.parametrize(
    ("tag", "work", "part", "last"),
    [("MQ-083", "mesh-heads", "batter", "Write on it"), ("MQ-066", "set-wires", "wires", "Close")],
)
def test_other_work_is_led_to_the_end(
    browser: Browser, installation: Installation, tag: str, work: str, part: str, last: str
) -> None:
    bench = start(browser, tag, work, part, "Lay out")
    job = bench.job
    bench.until_step(last)
    closed(bench, installation, job)


def test_a_split_shell_stops_a_service_and_sends_the_drum_away(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-051", "hardware-service", "hardware", "Lay out")
    bench.go_on()
    browser.keys("x")
    browser.sees("shell split")
    browser.press("shell split", "[role=dialog] button")
    bench.until_step("Stop")
    browser.sees("not to be played")


def test_all_work_on_a_drum_is_one_press_away(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/drums/MQ-026")
    browser.sees("History")
    browser.keys("w")
    browser.sees("Work on Smew")
    browser.press("Stop the batter singing", "[role=dialog] a")
    browser.ready("Start on the bench")
    browser.keys(" ")
    browser.sees("set the drum so that the other head is muted")
