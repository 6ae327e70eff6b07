"""Both heads of a tom in one job, to the end; what is found on the way re-plans it; passes confirmed by pair and by pass."""

from __future__ import annotations

import ast
from collections.abc import Callable

from selenium.webdriver.common.keys import Keys

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.installation import Installation


def start(browser: Browser, tag: str, work: str, part: str, cadence: str = "") -> Bench:
    browser.sign_in()
    browser.go(f"/drums/{tag}/start?work={work}&part={part}")
    browser.sees("Order of the rods")
    if cadence:
        browser.press(cadence, "label")
    browser.press("Start on the bench", "button")
    browser.sees("Lay out")
    return Bench(browser)


def pressed(bench: Bench, until: str) -> int:
    """Go on until this step is in hand; how many presses that took."""
    for count in range(200):
        if bench.step() == until:
            return count
        bench.go_on()
    raise AssertionError(f"never came to {until}")


def test_both_heads_in_one_job_to_the_end(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-017", "both-heads", "heads", "by pass")
    job, rows = bench.job, installation.cluster.rows
    count = int(rows("select rods_batter from register_drum where tag = 'MQ-017'")[0][0])
    wanted = {
        side: float(rows(f"select wanted_{side}_hz from register_drum where tag = 'MQ-017'")[0][0])
        for side in ("batter", "resonant")
    }
    for side in ("resonant", "batter"):  # the demo workshop's way: resonant first
        bench.until_step("Clear")
        browser.until(
            "the server to stand where the page does",
            lambda side=side: rows(f"select \"where\" from bench_job where id = '{job}'")[0][0].startswith(  # type: ignore[misc]
                f"{side}, clearing"
            ),
        )
        head = SimulatedHead(RodLayout(count), wanted[side], seed=31, uneven=0.015, noise=0.0005)
        assert bench.clear(head) <= 4
        bench.go_on()
    bench.until_step("Resonant again")  # it creeps while the other comes to pitch
    crept = SimulatedHead(RodLayout(count), wanted["resonant"] * 1.004, seed=32, uneven=0.002, noise=0.0005)
    bench.clear(crept)
    bench.until_step("Together")
    bench.until_step("Rest")
    bench.go_on()
    browser.press("Rested enough")
    bench.until_step("Write on it")
    browser.sees("Write on both heads")
    bench.go_on()
    browser.sees("Closed. It is in")
    browser.until(
        "the closing to be stored", lambda: rows(f"select state from bench_job where id = '{job}'") == [["closed"]]
    )
    fitted = rows(f"select side from heads_fitting where job_id = '{job}' and retired_at is null order by side")
    assert fitted == [["batter"], ["resonant"]]
    assert rows(f"select side from history_pitchrecord where job_id = '{job}' order by side") == fitted
    assert rows(f"select side from followups_followup where booked_by_job = '{job}' order by side") == fitted
    text = rows(f"select text from history_logentry where job_id = '{job}'")[0][0]
    assert "New batter head" in text
    assert "New resonant head" in text
    assert browser.console_errors() == []


def test_a_pass_by_pair_with_an_exception_keeps_the_tally_exact(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-032", "new-batter-head", "batter", "by facing pair")
    bench.until_step("Tension")
    browser.sees("together")
    bench.go_on()
    browser.keys("c")  # from here on by pass
    browser.sees("in this order")
    browser.press("Rod\n2", "ol[aria-label='Pairs of rods'] button")
    browser.sees("all but 2")
    bench.go_on()
    browser.sees("next rod")  # rod 2 is what is left of this pass
    bench.go_on()
    sql = f"select body->'made' from bench_jobevent where job_id = '{bench.job}' and kind = 'turned' and body->>'step' = 'tension' order by seq"
    browser.until("three entries", lambda: len(installation.cluster.rows(sql)) >= 3)
    rods = [{each["rod"] for each in ast.literal_eval(made)} for (made,) in installation.cluster.rows(sql)[:3]]
    assert len(rods[0]) == 2
    assert 2 not in rods[0] | rods[1]
    assert rods[2] == {2}


def test_few_presses_lead_from_laying_out_to_the_first_tap(browser: Browser) -> None:
    """On an eight-rod floor tom it took 57 rod by rod before."""
    by_pass = start(browser, "MQ-042", "new-batter-head", "batter", "by pass")
    assert pressed(by_pass, "Clear") <= 16
    browser.go("/drums/MQ-035/start?work=new-batter-head&part=batter")
    browser.sees("Order of the rods")
    browser.press("by facing pair", "label")
    browser.press("Start on the bench", "button")
    browser.sees("Lay out")
    assert pressed(Bench(browser), "Clear") <= 36


def test_what_is_found_changes_the_plan_and_goes_into_the_record(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-037", "new-batter-head", "batter", "by pass")
    job, rows = bench.job, installation.cluster.rows
    bench.until_step("Clean")
    browser.keys("x")
    browser.sees("How bad")
    browser.press("edge chipped", "[role=dialog] button")
    browser.until("the step to be there", lambda: any("Edge" in each for each in browser.words("ol li")))
    browser.press("Undo", "button")
    browser.until(
        "the step to be gone", lambda: not any(each == "Edge" for each in browser.words("ol[aria-label=Steps] li"))
    )
    browser.press("Something found", "button")
    browser.press("edge chipped", "[role=dialog] button")
    bench.go_on()
    assert bench.step() == "Edge"
    browser.sees("qualified person")
    bench.until_step("Tension")
    browser.press("Something found", "button")
    browser.press("rod missing", "[role=dialog] button")
    browser.sees("At which rod")
    browser.press("3", "[role=dialog] [aria-label=Rod] button")
    browser.sees("Found: rod missing, rod 3")
    assert "3" not in browser.words("[data-testid=instruction]")[0].split("\n")[1].split()
    bench.until_step("Clear")
    browser.script("return fetch('/')")
    client = f"select finding, side, rod, owed from bench_drumfinding where job_id = '{job}' order by finding"
    for step in ("clear", "other-head", "rest", "mount"):
        enter(browser, job, {"kind": "step_done", "step": step})
    enter(browser, job, {"kind": "close", "reason": "worn", "check": False})
    browser.until("the findings to be stored", lambda: len(rows(client)) == 2)
    assert rows(client) == [["edge-chipped", "batter", "None", "qualified"], ["rod-missing", "batter", "3", "fetch"]]
    assert rows("select lost_batter from register_drum where tag = 'MQ-037'") == [["[3]"]]
    browser.go("/drums/MQ-037")
    browser.sees("for a qualified person")
    browser.press("Put right", "section[aria-label='Found on this drum'] button")
    browser.until(
        "one to be put right",
        lambda: (
            rows(f"select count(*) from bench_drumfinding where job_id = '{job}' and put_right_at is null") == [["1"]]
        ),
    )


def enter(browser: Browser, job: str, body: dict[str, object]) -> None:
    """An entry past the screen, for steps this journey is not about."""
    browser.script(
        """const [job, body] = arguments;
        const token = document.cookie.match(/csrftoken=([^;]+)/)?.[1] ?? '';
        const event = {id: crypto.randomUUID(), device: 'journey', seen: 9999, made_at: new Date().toISOString(), v: 2, body};
        return fetch(`/api/bench/jobs/${job}/events`, {method: 'POST', body: JSON.stringify({events: [event]}),
          headers: {'Content-Type': 'application/json', 'X-CSRFToken': token}}).then(r => r.json())""",
        job,
        body,
    )


def test_ten_different_entries_are_undone_without_network(browser: Browser, installation: Installation) -> None:
    bench = start(browser, "MQ-034", "new-batter-head", "batter")
    job = bench.job
    for step in ("lay-out", "mark", "slacken", "lift-off", "clean", "set-head", "fingers", "seat"):
        enter(browser, job, {"kind": "step_done", "step": step})
    browser.until("to be at Tension", lambda: bench.step() == "Tension", 10)
    browser.network(False)

    def seen() -> tuple[str, ...]:
        said = browser.words("[data-testid=instruction]")
        return (bench.step(), *said, *browser.words("ol[aria-label='Pairs of rods'] li"), *found(browser))

    acts: list[Callable[[], None]] = [
        lambda: browser.keys(" "),  # a turn
        lambda: browser.keys("s"),  # a rod skipped
        lambda: browser.keys("c"),  # another cadence: a facing pair
        lambda: browser.keys(" "),  # a pair turned
        lambda: browser.keys("c"),  # by pass
        lambda: note_found(browser, "thread dry", "1"),
        lambda: browser.keys(" "),  # a whole pass
        lambda: browser.keys(" "),
        lambda: browser.keys(" "),  # the last pass
        lambda: browser.keys("m"),  # one more pass
        lambda: browser.keys(" "),  # turned
        lambda: browser.keys(" "),  # the step is done
        lambda: type_reading(browser, "201.5"),
        lambda: (browser.keys("*"), type_reading(browser, "114.2"))[0],  # type: ignore[func-returns-value]
    ]
    states = [seen()]
    for act in acts:
        act()
        before = states[-1]
        browser.until("the bench to move on", lambda before=before: seen() != before)  # type: ignore[misc]
        states.append(seen())
    for wanted in reversed(states[:-1]):
        browser.press("Undo", "button")
        browser.until("the state before", lambda wanted=wanted: seen() == wanted)  # type: ignore[misc]
    browser.network(True)
    browser.until("the notice to go", lambda: "kept on this device" not in browser.text(), 30)
    assert seen() == states[0]


def found(browser: Browser) -> tuple[str, ...]:
    middle = [each for each in browser.words("section p") if "note, in the middle" in each]
    return (*browser.words("[aria-label='Found on this drum'] li"), *middle)


def note_found(browser: Browser, words: str, rod: str) -> None:
    browser.keys("x")
    browser.press(rod, "[role=dialog] [aria-label=Rod] button")
    browser.press(words, "[role=dialog] button")


def type_reading(browser: Browser, typed: str) -> None:
    browser.until("the field", lambda: browser.script("return document.activeElement.id") == "reading")
    browser.keys(typed, Keys.ENTER)
