"""The app without its server: opened again, gone on with, brought up to date; and a device that is full."""

from __future__ import annotations

import re
import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest

from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.device import Device
from e2e.support.installation import ROOT, Installation, Server

REVISION = re.compile(r'revision: "(\w+)",\s*url: "/"\s')
BY_ROD = ({"kind": "step_done", "step": "lay-out"}, {"kind": "step_done", "step": "mark"},
          {"kind": "cadence", "by": "rod", "down": True})  # fmt: skip
ON_THE_DEVICE = """
return navigator.serviceWorker.controller && caches.match('/', {ignoreSearch: true}).then(Boolean)
"""
SEND_PHOTO = """
const canvas = new OffscreenCanvas(320, 240)
canvas.getContext('2d').fillRect(0, 0, 320, 240)
const form = new FormData()
const fields = {id: crypto.randomUUID(), tag: arguments[0], about: 'note', taken_at: new Date().toISOString()}
for (const [name, value] of Object.entries(fields)) form.append(name, value)
const token = /csrftoken=([^;]+)/.exec(document.cookie)[1]
return canvas.convertToBlob({type: 'image/jpeg'})
  .then((image) => { form.append('photo', image, 'photo.jpg') })
  .then(() => fetch('/api/photos', {method: 'POST', body: form, headers: {'X-CSRFToken': token}}))
  .then((answer) => answer.status)
"""
PICTURES = "return [...document.querySelectorAll('img')].filter((e) => e.naturalWidth > 0).length"
COPIES = """
return new Promise((resolve) => {
  const asked = indexedDB.open('red-tally-seen')
  asked.onsuccess = () => {
    const all = asked.result.transaction('copies').objectStore('copies').getAllKeys()
    all.onsuccess = () => { asked.result.close(); resolve(all.result.map((key) => key.split(' ').at(-1))) }
  }
})
"""


@pytest.fixture
def server(installation: Installation) -> Iterator[Server]:
    """One of its own beside the others', to be switched off."""
    made = Server(installation.cluster.url, workers=1)
    made.start()
    yield made
    made.stop()


@pytest.fixture
def tablet(server: Server) -> Iterator[Browser]:
    opened = Browser(server.url)
    yield opened
    opened.close()


def turned(installation: Installation, job: str) -> list[int]:
    sql = f"select body->'made'->0->>'rod' from bench_jobevent where job_id = '{job}' and kind = 'turned' order by seq"
    return [int(rod) for (rod,) in installation.cluster.rows(sql)]


def begun(server: Server, tag: str, part: str = "resonant") -> str:
    device = Device(server.url)
    job = device.start(tag, part)
    device.enter(job, *BY_ROD)
    return job


def settled(browser: Browser) -> None:
    browser.until("the app to be on the device", lambda: browser.script(ON_THE_DEVICE))


def test_everything_seen_before_opens_without_the_server_after_a_restart_of_the_browser(
    installation: Installation, server: Server, tablet: Browser
) -> None:
    job = begun(server, "MQ-013")
    tablet.sign_in()
    settled(tablet)
    assert tablet.script(SEND_PHOTO, "MQ-013") == 200
    tablet.go("/drums/MQ-013")
    tablet.until("the photo", lambda: tablet.script(PICTURES))
    tablet.go(f"/bench/{job}")
    tablet.sees("next rod")
    Bench(tablet).go_on()
    tablet.until("one stored", lambda: turned(installation, job) == [1])
    tablet.until("what the server says with it to be kept", lambda: '["job","' in str(tablet.script(COPIES)))
    server.stop()
    tablet.driver.quit()  # the browser is closed; what it wrote stays
    again = Browser(server.url, profile=tablet.profile)
    try:
        again.go("/")
        again.sees("No answer from the server. What you see is as it stood")
        again.sees("In hand")
        again.go("/drums/MQ-013")
        again.sees("History")
        again.until("the photo", lambda: again.script(PICTURES))
        again.go("/drums/MQ-012")
        again.sees("The server does not answer, and this was not opened on this device before")
        again.go(f"/bench/{job}")
        again.sees("next rod")
        bench = Bench(again)
        assert (bench.turning() or (0,))[0] == 4  # the first was turned: the star of six goes on (common practice P1)
        bench.go_on()
        bench.go_on()
        again.go(f"/bench/{job}")  # and opened once more
        again.sees("kept on this device")
        assert (bench.turning() or (0,))[0] == 5
        server.start()
        again.until("all stored once", lambda: turned(installation, job) == [1, 4, 2])
        again.until("the notices to go", lambda: "server" not in again.text() and "kept on" not in again.text())
        assert [each for each in again.console_errors() if "ERR_CONNECTION" not in each] == []
    finally:
        again.close()


def test_a_newer_app_is_taken_up_and_what_waits_is_sent_once(
    installation: Installation, server: Server, tablet: Browser, tmp_path: Path
) -> None:
    newer = tmp_path / "dist"
    shutil.copytree(ROOT / "web" / "dist", newer)
    page, worker = newer / "index.html", newer / "sw.js"
    page.write_text(page.read_text().replace("<title>", '<meta name="newer" content="yes"><title>'))
    worker.write_text(worker.read_text().replace(REVISION.search(worker.read_text())[1], "newer"))  # type: ignore[index]
    job = begun(server, "MQ-012")
    tablet.sign_in()
    settled(tablet)
    tablet.go(f"/bench/{job}")
    tablet.sees("next rod")
    server.stop()
    installation.cluster.stop()  # so that nothing can be sent yet, whatever else is newer
    try:
        Bench(tablet).go_on()
        Bench(tablet).go_on()
        server.env["RT_WEB_DIST"] = str(newer)
        server.start(ready=False)
        tablet.sees("A newer Red Tally is here")
        assert not tablet.all("meta[name=newer]")  # nothing changes under somebody's hands
        tablet.press("Take it up", "button")
        tablet.until("the newer one", lambda: bool(tablet.all("meta[name=newer]")))
        tablet.sees("kept on this device")
    finally:
        installation.cluster.start()
    tablet.until("all stored once", lambda: turned(installation, job) == [1, 4])
    assert (Bench(tablet).turning() or (0,))[0] == 2


def test_who_signs_out_leaves_nothing_behind(server: Server, tablet: Browser) -> None:
    tablet.sign_in()
    settled(tablet)
    tablet.go("/drums/MQ-013")
    tablet.sees("History")
    tablet.until("copies", lambda: len(tablet.script(COPIES)) > 2)
    tablet.network(False)
    tablet.press("", "button[aria-label*='sign out']")
    tablet.press("Sign out", "[role=menuitem]")
    tablet.sees("Still signed in")  # a server that does not answer signs nobody out
    tablet.network(True)
    tablet.press("Try again", "button")
    tablet.sees("Password")
    tablet.until("the copies to be gone", lambda: set(tablet.script(COPIES)) <= {"session"})
    server.stop()
    tablet.go("/drums/MQ-013")
    tablet.sees("Sign in")
    assert "History" not in tablet.text()


def test_a_full_device_says_so_and_holds_what_is_entered_until_it_is_sent(
    browser: Browser, installation: Installation
) -> None:
    job = begun(installation.server, "MQ-009", "batter")
    room = {"origin": browser.base, "quotaSize": 1}
    browser.driver.execute_cdp_cmd(
        "Storage.overrideQuotaForOrigin", room
    )  # known to the browser before it first counts
    try:
        browser.sign_in()
        browser.go(f"/bench/{job}")
        browser.sees("next rod")
        browser.network(False)
        Bench(browser).go_on()
        browser.sees("This device is full. Leave this page open until what you entered last is sent")
    finally:
        browser.driver.execute_cdp_cmd("Storage.overrideQuotaForOrigin", {"origin": browser.base})
    browser.network(True)
    browser.until("it to be stored", lambda: turned(installation, job) == [1])
    browser.until("the notice to go", lambda: "This device is full" not in browser.text())
