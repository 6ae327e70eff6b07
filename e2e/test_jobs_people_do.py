"""Plans held against a drum, in the browser to their end: begun on a drum that is not as it was left; head and wires; both rope heads."""

from __future__ import annotations

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.installation import Installation


def start(browser: Browser, tag: str, work: str, part: str, *now: str) -> Bench:
    """Open a job; `now` are the answers to how the drum is, in the words on the screen."""
    browser.sign_in()
    browser.go(f"/drums/{tag}/start?work={work}&part={part}")
    browser.sees("The drum now")
    if now:
        browser.press("not as usual", "label")
    for answer in now:
        of, _, words = answer.partition(": ")
        choice = f"//*[@role='radiogroup'][*[normalize-space()='{of}']]//label[normalize-space()='{words}']"
        browser.until(answer, lambda choice=choice: browser.click(browser.driver.find_element("xpath", choice)))  # type: ignore[misc]
    browser.ready("Start on the bench")
    browser.press("Start on the bench", "button")
    browser.sees("Lay out")
    return Bench(browser)


def fitted(browser: Browser, installation: Installation, job: str, *sides: str) -> None:
    """What the closed job put on the drum."""
    asked = f"select side from heads_fitting where job_id = '{job}' and retired_at is null order by side"
    browser.until(
        f"{sides} to be fitted", lambda: installation.cluster.rows(asked) == [[side] for side in sorted(sides)]
    )


def to_the_end(bench: Bench, heads: dict[str, SimulatedHead]) -> list[str]:
    """Do every step as it comes, clearing what is to be cleared; the steps that came up."""
    came: list[str] = []
    for _ in range(300):
        step = bench.step()
        if not came or came[-1] != step:
            came.append(step)
        if step in heads:
            bench.clear(heads[step])
        if step == "Rest" and "Rested enough" in bench.browser.text():
            bench.browser.press("Rested enough")
            bench.browser.until("the next step", lambda: bench.step() != "Rest")
            continue
        last = step in ("Write on it", "Close")
        bench.go_on()
        if last:
            bench.browser.sees("Closed. It is in")
            return came
    raise AssertionError(f"never closed: {came}")


def test_begun_upside_down_with_the_head_and_the_wires_off(browser: Browser, installation: Installation) -> None:
    bench = start(
        browser,
        "MQ-003",
        "new-snare-side-head",
        "resonant",
        "It: on the table, resonant up",
        "Resonant head: off",
        "Wires: off the drum",
    )
    browser.sees("Lay out")
    job, rows = bench.job, installation.cluster.rows
    (count,) = rows("select rods_resonant from register_drum where tag = 'MQ-003'")[0]
    steps = to_the_end(bench, {"Clear": SimulatedHead(RodLayout(int(count)), 320.0, seed=7, uneven=0.01, noise=0.0005)})
    assert not {"Wires off", "Slacken", "Lift off"} & set(steps)
    assert steps.index("Clean") < steps.index("Gate") < steps.index("Clamp the strainer end") < steps.index("Butt side")
    fitted(browser, installation, job, "resonant")
    assert browser.console_errors() == []


def test_head_and_wires_in_one_job(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-010", "snare-side-and-wires", "resonant")
    job, rows = bench.job, installation.cluster.rows
    (count,) = rows("select rods_resonant from register_drum where tag = 'MQ-010'")[0]
    steps = to_the_end(bench, {"Clear": SimulatedHead(RodLayout(int(count)), 320.0, seed=8, uneven=0.01, noise=0.0005)})
    assert steps.index("Old wires off") < steps.index("Slacken") < steps.index("Clear") < steps.index("Knob back")
    fitted(browser, installation, job, "resonant", "wires")
    assert browser.console_errors() == []


def test_both_rope_heads_in_one_unlacing(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-073", "new-rope-head", "heads")
    job = bench.job
    steps = to_the_end(bench, {})
    assert (steps.count("Unlace"), steps.count("Head out"), steps.count("Re-thread")) == (1, 2, 1)
    assert steps.index("Set head") < steps.index("Resonant up") < steps.index("Take up slack")
    fitted(browser, installation, job, "batter", "resonant")
    assert browser.console_errors() == []


def test_mesh_on_the_batter_alone(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-020", "mesh-heads", "batter")
    job = bench.job
    steps = to_the_end(bench, {})
    assert steps.index("Press") < steps.index("Rebound") < steps.index("Tap round")
    fitted(browser, installation, job, "batter")
    assert browser.console_errors() == []
