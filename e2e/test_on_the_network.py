"""A tablet on the shop's network: over plain http all but what browsers keep for https works, and what does not says so."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import Installation, Server

NAME = "bench.shop.example"


@pytest.fixture
def tablet(installation: Installation) -> Iterator[tuple[Browser, Server]]:
    server = Server(installation.cluster.url, workers=1, extra={"RT_ALLOWED_HOSTS": f"127.0.0.1,{NAME}"})
    server.start()
    browser = Browser(f"http://{NAME}:{server.port}", called=NAME)
    yield browser, server
    browser.close()
    server.stop()


def test_the_bench_works_over_plain_http_by_name(tablet: tuple[Browser, Server], installation: Installation) -> None:
    browser, server = tablet
    device = Device(server.url)
    job = device.start("MQ-052")
    device.enter(job, *[{"kind": "step_done", "step": step} for step in ("lay-out", "ring-out")])
    browser.sign_in()
    assert browser.script("return [isSecureContext, typeof crypto.randomUUID]") == [False, "undefined"]
    browser.go(f"/bench/{job}")
    browser.sees("photograph where hoop")
    Bench(browser).go_on()
    query = f"select count(*) from bench_jobevent where job_id = '{job}' and kind = 'step_done'"
    browser.until("the entry to be stored", lambda: installation.cluster.rows(query) == [["3"]])
    browser.go("/drums/MQ-054/start?work=settling-check&part=batter")
    browser.press("Start on the bench", "button")
    browser.until("the bench of a fresh job", lambda: "/bench/" in browser.driver.current_url)
    # The header for windows opened from elsewhere counts on https alone; the browser says so and goes on.
    assert [each for each in browser.console_errors() if "Cross-Origin-Opener-Policy" not in each] == []


def test_listening_says_that_it_needs_https(tablet: tuple[Browser, Server]) -> None:
    browser, server = tablet
    device = Device(server.url)
    body = {"id": "0b0e3d5a-0000-4000-8000-00000000c0b2", "tag": "MQ-053", "work": "settling-check", "part": "batter"}
    job = device.call("POST", "/api/bench/jobs", body)["id"]
    device.enter(str(job), *[{"kind": "step_done", "step": step} for step in ("look", "ring-out")])
    browser.sign_in()
    browser.go(f"/bench/{job}")
    browser.sees("Pitch at rod 1")
    browser.press("Listen", "button")
    browser.sees("https")
