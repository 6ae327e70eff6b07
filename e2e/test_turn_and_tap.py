"""Turn and tap on the simulated drum: after one press nobody touches anything until the head is in tune with itself."""

from __future__ import annotations

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from e2e.pages.bench import start_check
from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import Installation

NEW = {
    "kind": "floor-tom",
    "diameter": "16 in",
    "depth": "15 in",
    "rods_batter": 8,
    "rods_resonant": 8,
    "wanted_batter": "151",
    "place": "net loft",
    "owner": "chandlery",
}
"""A floor tom nobody else works on."""


def new_tom(installation: Installation, tag: str, name: str) -> str:
    Device(installation.server.url).call("POST", "/api/register/drums", {**NEW, "tag": tag, "name": name})
    return tag


def test_a_closed_loop_hands_off(browser: Browser, installation: Installation) -> None:
    bench = start_check(browser, new_tom(installation, "TT-001", "Phalarope"))
    browser.press("Tap after each turn")
    browser.sees("Turn without taps")
    browser.press("Simulated drum")
    browser.sees("turn it, then tap it", seconds=60)
    browser.until("the head to be clear", lambda: "Pitch-clear" in browser.text(), seconds=240)
    kinds = dict(
        installation.cluster.rows(
            f"select kind, count(*) from bench_jobevent where job_id = '{bench.job}' and standing = 'applied' group by kind"
        )
    )
    assert int(kinds["tapped"]) >= 3
    assert "turned" not in kinds  # every turn was confirmed by its tap
    found = installation.cluster.rows(
        f"select count(*) from bench_jobevent where job_id = '{bench.job}' and kind = 'tapped' and body->'found'->>'ask' = 'turn'"
    )
    assert int(found[0][0]) >= 1
    assert browser.console_errors() == []


def test_the_switch_is_remembered_and_any_rod_can_be_typed(browser: Browser, installation: Installation) -> None:
    bench = start_check(browser, new_tom(installation, "TT-002", "Dowitcher"))
    wanted = 151.0
    browser.until(
        "the field to have the focus", lambda: browser.script("return document.activeElement.id") == "reading"
    )
    browser.keys("+")
    browser.sees("Turn without taps")
    bench.read_round(SimulatedHead(RodLayout(8), wanted, seed=7, uneven=0.01, noise=0.0005))
    browser.driver.refresh()
    browser.sees("Work out the turns")
    bench.go_on()
    browser.sees("turn it, then tap it")
    before = bench.turning()
    assert before
    browser.write(f"Pitch at rod {before[0]}", f"{wanted:.1f}\n")
    browser.until("what is left", lambda: bench.turning() != before or "Even" in browser.text())
    stored = (
        f"select body->>'rod', body->>'turns_32' from bench_jobevent where job_id = '{bench.job}' and kind = 'tapped'"
    )
    wanted_row = [str(before[0]), str(before[1].thirtyseconds)]
    browser.until("it to be stored", lambda: installation.cluster.rows(stored) == [wanted_row])


def test_a_rod_that_did_not_answer_its_turn_is_named_while_it_is_in_hand(
    browser: Browser, installation: Installation
) -> None:
    """Rods turned and tapped teach how this head answers; then one is said to be turned a good deal and reads as before."""
    bench = start_check(browser, new_tom(installation, "TT-003", "Sanderling"))
    browser.until(
        "the field to have the focus", lambda: browser.script("return document.activeElement.id") == "reading"
    )
    browser.keys("+")
    head = SimulatedHead(RodLayout(8), 151.0, seed=3, uneven=0.12, noise=0.0005, modal=False)
    bench.read_round(head)
    bench.go_on()
    for tapped in range(8):
        browser.sees("turn it, then tap it")
        asked = bench.turning()
        assert asked
        idle = tapped >= 2 and abs(asked[1].thirtyseconds) >= 10
        if not idle:
            head.turn({asked[0]: asked[1]})
        browser.write(f"Pitch at rod {asked[0]}", f"{head.tap()[asked[0]].hz:.1f}\n")
        browser.until("what is left", lambda asked=asked: bench.turning() not in (asked, None))  # type: ignore[misc]
        if idle:
            break
    browser.sees("A rod does not answer")
    assert f"Rod {asked[0]} reads as if it had not been turned" in browser.text()
    assert bench.turning()[0] != asked[0]  # type: ignore[index]
    following = bench.turning()
    assert following
    head.turn({following[0]: following[1]})
    browser.write(f"Pitch at rod {following[0]}", f"{head.tap()[following[0]].hz:.1f}\n")
    browser.until("what is left after it", lambda: bench.turning() != following)
    assert f"Rod {asked[0]} reads as if it had not been turned" in browser.text()  # until it reads otherwise
