"""Reloads, second devices, dead networks, dead servers, dead databases: nothing entered is lost, nothing counts twice."""

from __future__ import annotations

import concurrent.futures
import json
import time
import urllib.request
import uuid
from collections import Counter
from datetime import UTC, datetime

import pytest
from selenium.webdriver.common.keys import Keys

from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import Installation, Server


@pytest.fixture
def job_on(installation: Installation, request: pytest.FixtureRequest) -> str:
    """A job on a drum of the demo, at its first slackening pass, confirmed rod by rod."""
    client = Device(installation.server.url)
    job = client.start(request.param)
    by_rod = {"kind": "cadence", "by": "rod", "down": True}
    client.enter(job, {"kind": "step_done", "step": "lay-out"}, {"kind": "step_done", "step": "mark"}, by_rod)
    return job


def stored(installation: Installation, job: str, kind: str = "turned") -> list[tuple[int, int]]:
    """Lap and rod of every stored entry of a kind, in order."""
    sql = f"select (body->>'lap')::int, coalesce(body->>'rod', body->'made'->0->>'rod')::int from bench_jobevent where job_id = '{job}' and kind = '{kind}' order by seq"
    return [(int(lap), int(rod)) for lap, rod in installation.cluster.rows(sql)]


def open_bench(browser: Browser, job: str) -> Bench:
    browser.sign_in()
    browser.go(f"/bench/{job}")
    browser.sees("next rod")
    return Bench(browser)


def until_stored(
    browser: Browser, installation: Installation, job: str, count: int, kind: str = "turned"
) -> list[tuple[int, int]]:
    browser.until(f"{count} stored entries", lambda: len(stored(installation, job, kind)) >= count, 30)
    time.sleep(0.5)
    return stored(installation, job, kind)


def on(tag: str) -> pytest.MarkDecorator:
    return pytest.mark.parametrize("job_on", [tag], indirect=True)


STAR_6 = [(0, rod) for rod in (1, 4, 2, 5, 3, 6)]  # common practice P1


@on("MQ-016")
def test_a_network_lost_and_found_loses_and_doubles_nothing(
    browser: Browser, installation: Installation, job_on: str
) -> None:
    bench = open_bench(browser, job_on)
    bench.go_on()
    until_stored(browser, installation, job_on, 1)
    browser.network(False)
    for _ in range(8):
        bench.go_on()
    browser.sees("kept on this device")
    assert len(stored(installation, job_on)) == 1
    browser.network(True)
    assert until_stored(browser, installation, job_on, 9) == [*STAR_6, *[(1, rod) for _, rod in STAR_6[:3]]]
    browser.until("the notice to go", lambda: "kept on this device" not in browser.text())


@on("MQ-023")
def test_a_whole_round_can_be_read_and_turned_without_network(
    browser: Browser, installation: Installation, job_on: str
) -> None:
    client = Device(installation.server.url)
    steps = ("slacken", "lift-off", "clean", "set-head", "fingers", "seat", "tension")
    client.enter(job_on, *[{"kind": "step_done", "step": step} for step in steps])
    browser.sign_in()
    browser.go(f"/bench/{job_on}")
    browser.sees("Pitch at rod 1")
    browser.network(False)
    typed = [248.0, 251.0, 254.0, 248.2, 251.1, 253.8]  # two facing pairs off, 251 wanted
    for rod, hz in enumerate(typed, start=1):
        browser.sees(f"Pitch at rod {rod}")
        browser.keys(f"{hz}", Keys.ENTER)
    browser.press("Work out the turns", "button")
    browser.network(True)
    browser.sees("next rod", 30)
    assert stored(installation, job_on, "reading") == [(0, rod) for rod in range(1, 7)]


@on("MQ-094")
def test_reloading_and_killing_the_browser_during_the_outage_loses_nothing(
    installation: Installation, job_on: str
) -> None:
    first = Browser(installation.server.url)
    bench = open_bench(first, job_on)
    first.network(False)
    for _ in range(3):
        bench.go_on()
    assert stored(installation, job_on) == []
    first.driver.refresh()  # the page cannot load now; what was entered is on the disk
    first.kill()
    second = Browser(installation.server.url, profile=first.profile)
    try:
        second.go("/")
        second.until("a page", lambda: "Demo accounts" in second.text() or "owed" in second.text())
        if "Demo accounts" in second.text():  # a killed browser may not have written its cookies
            second.sign_in()
        second.go(f"/bench/{job_on}")
        second.sees("next rod")
        assert until_stored(second, installation, job_on, 3) == STAR_6[:3]
        assert (Bench(second).turning() or (0,))[0] == 5
    finally:
        second.close()


@on("MQ-020")
def test_two_devices_see_each_other_and_a_conflict_is_shown_not_overwritten(
    browser: Browser, installation: Installation, job_on: str
) -> None:
    bench = open_bench(browser, job_on)
    bench.go_on()
    until_stored(browser, installation, job_on, 1)
    other = Browser(installation.server.url)
    try:
        other.sign_in("bram")
        other.go(f"/bench/{job_on}")
        other.until("the other's turn", lambda: (Bench(other).turning() or (0,))[0] == 5, 6)
        browser.network(False)
        bench.go_on()  # rod 5, unseen by the other
        Bench(other).go_on()  # rod 5 as well
        browser.network(True)
        for each in (browser, other):
            each.sees("Two entries for rod 5", 20)
        row = installation.cluster.rows(
            f"select standing from bench_jobevent where job_id = '{job_on}' and kind = 'turned' order by seq"
        )
        assert row == [["applied"], ["applied"], ["conflict"]]
        other.press("Keep the first", "button")
        browser.until("the question to go", lambda: "Two entries" not in browser.text())
    finally:
        other.close()


@on("MQ-019")
def test_a_session_that_ends_in_the_middle_asks_again_and_goes_on(
    browser: Browser, installation: Installation, job_on: str
) -> None:
    bench = open_bench(browser, job_on)
    installation.cluster.rows("delete from django_session returning session_key")
    bench.go_on()
    browser.sees("Sign in to go on")
    browser.sees("kept on this device")
    browser.write("Name", "ines")
    browser.write("Password", "slack-water-41")
    browser.press("Sign in", "[role=dialog] button")
    assert until_stored(browser, installation, job_on, 1) == STAR_6[:1]
    browser.sees("next rod")


@on("MQ-024")
def test_a_database_that_stops_and_starts_again(browser: Browser, installation: Installation, job_on: str) -> None:
    bench = open_bench(browser, job_on)
    installation.cluster.stop()
    try:
        for _ in range(3):
            bench.go_on()
        browser.sees("kept on this device", 25)
        with pytest.raises(urllib.error.HTTPError) as down:
            urllib.request.urlopen(f"{installation.server.url}/readyz", timeout=20)
        assert down.value.code == 503
        assert json.loads(down.value.read())["code"] == "database_down"
    finally:
        installation.cluster.start()
    assert until_stored(browser, installation, job_on, 3) == STAR_6[:3]


@on("MQ-022")
def test_a_server_that_dies_in_the_middle_of_an_event(
    browser: Browser, installation: Installation, job_on: str
) -> None:
    bench = open_bench(browser, job_on)
    bench.go_on()
    installation.server.kill()
    for _ in range(3):
        bench.go_on()
    installation.server.start()
    assert until_stored(browser, installation, job_on, 4) == STAR_6[:4]


@on("MQ-093")
def test_two_web_processes_side_by_side_on_one_job(installation: Installation, job_on: str) -> None:
    """Two servers on different ports, one database: numbers without gap or double, every id once."""
    second = Server(installation.cluster.url, workers=1)
    second.start()
    try:
        devices = [Device(url, who) for url, who in ((installation.server.url, "bram"), (second.url, "ines"))]
        ids = [str(uuid.uuid4()) for _ in range(40)]

        def send(n: int) -> None:
            body = {"kind": "note", "text": f"note {n}"}
            now = datetime.now(UTC).isoformat()
            event = {"id": ids[n], "device": f"d{n % 2}", "seen": 0, "made_at": now, "v": 2, "body": body}
            for client in (devices[n % 2], devices[(n + 1) % 2]):  # each event through both servers
                client.call("POST", f"/api/bench/jobs/{job_on}/events", {"events": [event]})

        with concurrent.futures.ThreadPoolExecutor(8) as pool:
            list(pool.map(send, range(40)))
        rows = installation.cluster.rows(f"select id, seq from bench_jobevent where job_id = '{job_on}'")
        numbers = sorted(int(seq) for _, seq in rows)
        assert numbers == list(range(1, len(rows) + 1))
        assert Counter(row[0] for row in rows if row[0] in ids) == Counter(ids)
        answers = [client.call("GET", f"/api/bench/jobs/{job_on}") for client in devices]
        assert answers[0] == answers[1]
    finally:
        second.stop()
