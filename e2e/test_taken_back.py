"""A mistake can be taken back at the screen: a job put aside and taken up, a job closed too soon and opened again, a line corrected."""

from __future__ import annotations

from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import Installation


def test_a_job_begun_by_mistake_is_put_aside_and_taken_up_again(browser: Browser, installation: Installation) -> None:
    device = Device(installation.server.url, "ines")
    job = device.start("MQ-063")
    browser.sign_in()
    browser.go(f"/bench/{job}")
    browser.press("Put aside", "header button")
    browser.press("Another drum was meant", "[role=dialog] button")
    browser.press("Put aside", "[role=dialog] button")
    browser.sees("Ines Calloway put this job aside")
    browser.sees("Another drum was meant")
    browser.press("Take it up again", "button")
    Bench(browser).go_on()
    query = f"select kind from bench_jobevent where job_id = '{job}' order by seq desc limit 1"
    browser.until("the entry to be stored", lambda: installation.cluster.rows(query) == [["step_done"]])
    assert browser.console_errors() == []


def test_a_job_closed_too_soon_is_opened_again_and_its_history_corrected(
    browser: Browser, installation: Installation
) -> None:
    """Closed by a technician, opened again by the owner."""
    device = Device(installation.server.url, "bram")
    job = device.start("MQ-068")
    steps = ("lay-out", "mark", "slacken", "lift-off", "clean", "set-head", "fingers", "seat", "tension")
    device.enter(job, *[{"kind": "step_done", "step": step} for step in steps])
    fitted = f"select count(*) from heads_fitting where job_id = '{job}'"
    device.enter(job, {"kind": "close", "reason": "creased", "check": True})
    assert installation.cluster.rows(fitted) == [["1"]]
    browser.sign_in()
    browser.go(f"/bench/{job}")
    browser.press("Open it again", "button")
    browser.until("the fitting to be taken back", lambda: installation.cluster.rows(fitted) == [["0"]])
    browser.until("the bench to go on", lambda: browser.words("li[aria-current=step]"))
    browser.go("/drums/MQ-068")
    lines = "section[aria-label=History] li button"
    browser.until(
        "the line to be opened",
        lambda: next((browser.click(each) for each in browser.all(lines) if "Opened again" in each.text), False),
    )
    browser.press("Correct this line", "button")
    browser.write("What it should say", "It was closed by the wrong hand.")
    browser.press("Put it beside", "button")
    browser.sees("Correction: It was closed by the wrong hand.")
    assert browser.console_errors() == []
