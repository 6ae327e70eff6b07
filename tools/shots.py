"""Take one current picture of each main view from the demo: `tools/screenshots`."""

from __future__ import annotations

import sys
import time
from pathlib import Path

from e2e.support.browser import Browser
from e2e.support.installation import ROOT, Installation

SETTLE_S = 0.5  # fonts and the one motion of a beam
WALKS = "return fetch('/api/inspect/walks').then(r => r.json())"
TOUCH = """
const box = document.querySelector('.film').getBoundingClientRect()
document.querySelector('.film').dispatchEvent(new MouseEvent('click',
  {bubbles: true, clientX: box.left + box.width * arguments[0], clientY: box.top + box.height * arguments[1]}))
"""
KITS = "return fetch('/api/kits').then(r => r.json())"
CALLS = "return fetch('/api/callouts').then(r => r.json())"
JOBS = "return fetch('/api/today').then(r => r.json())"


def _theme(browser: Browser, name: str) -> None:
    browser.script(
        "localStorage.setItem('red-tally-theme', arguments[0]); document.documentElement.dataset.theme = arguments[0]",
        name,
    )


def _job(browser: Browser, name: str) -> str:
    items = browser.script(JOBS)["items"]
    return next(item["job_id"] for item in items if item["name"] == name and item["job_id"])


def take(
    browser: Browser, folder: Path, name: str, path: str, waits_for: str, wide: int = 1280, high: int = 800
) -> None:
    browser.size(wide, high)
    browser.go(path)
    browser.sees(waits_for)
    browser.script("return document.fonts.ready.then(() => true)")
    time.sleep(SETTLE_S)
    browser.picture(str(folder / f"{name}.png"))
    print(f"  {name}.png", file=sys.stderr)


def _inspect(browser: Browser, folder: Path, path: str) -> None:
    """A drum in the middle of its look: two things ticked, one of them in hand; then the same on a phone in the dark."""
    _theme(browser, "bench")
    browser.size(1280, 800)
    browser.go(path)
    for tick, says, (x, y) in (("worn", "Film shows", (0.5, 0.54)), ("dents", "Felt under", (0.2, 0.3))):
        browser.press(tick)
        browser.sees(says)
        browser.script(TOUCH, x, y)
    browser.sees("half way to rod")
    time.sleep(SETTLE_S)
    browser.picture(str(folder / "inspect.png"))
    _theme(browser, "stage")
    take(browser, folder, "inspect-phone", path, "coating worn", 390, 844)


def _callout(browser: Browser, folder: Path) -> None:
    """Minutes before a show, on a phone in the dark: the kit walked, a rod to be lent."""
    call = next(each for each in browser.script(CALLS) if each["state"] == "coming")
    browser.size(390, 844)
    browser.go(f"/callouts/{call['id']}?at=bag")
    browser.press("Start the clock")
    browser.press("Heron", "nav button")
    browser.press("rod missing, bottom head", "button[aria-pressed]")
    browser.press("3", "[aria-label^='Which rod'] button")
    browser.press("Skua", "nav button")
    browser.press("bottom head out of tune", "button[aria-pressed]")
    browser.press("batter out of tune", "button[aria-pressed]")
    browser.press("Now", "nav button")
    browser.sees("Lend rod 3")
    time.sleep(SETTLE_S)
    browser.picture(str(folder / "callout-phone.png"))


def take_all(browser: Browser, folder: Path, only: set[str]) -> None:
    heron, dunlin = (f"/bench/{_job(browser, name)}" for name in ("Heron", "Dunlin"))
    pit = next(each["id"] for each in browser.script(KITS) if each["name"] == "pit kit")
    walk = f"/inspect/{browser.script(WALKS)[0]['id']}"
    views = [
        ("today", "/", "Overdue", 1280, 800, "bench"),
        ("drums", "/drums", "Cormorant", 1280, 800, "bench"),
        ("drum-sheet", "/drums/MQ-041", "History", 1280, 800, "bench"),
        ("bench-turn", heron, "next rod", 1280, 800, "bench"),
        ("bench-turn-stage", heron, "next rod", 1280, 800, "stage"),
        ("bench-read", dunlin, "tap at rod", 1280, 800, "bench"),
        ("bench-phone", heron, "next rod", 390, 844, "bench"),
        ("today-phone", "/", "Overdue", 390, 844, "stage"),
        ("ways", "/ways", "Fitting a head", 1280, 800, "bench"),
        ("sound", "/drums/MQ-041/sound", "Because", 1280, 800, "bench"),
        ("verdict", f"{walk}?at=MQ-026", "A new batter", 1280, 800, "bench"),
        ("shelf", "/shelf", "can start", 1280, 800, "bench"),
        ("kit", f"/kits/{pit}", "Best there is", 1280, 800, "bench"),
        ("walk-sum", f"{walk}/sum", "looked at", 1280, 800, "bench"),
    ]
    for name, path, waits_for, wide, high, theme in views:
        if not only or name in only:
            _theme(browser, theme)
            take(browser, folder, name, path, waits_for, wide, high)
    if not only or "heard" in only:
        _theme(browser, "bench")
        browser.go(dunlin)
        browser.press("Simulated drum")
        browser.sees("Work out the turns", seconds=30)
        take(browser, folder, "heard", f"{dunlin}/taps", "One after the other")
    if not only or "callout-phone" in only:
        _callout(browser, folder)
    if not only or only & {"inspect", "inspect-phone"}:
        _inspect(browser, folder, f"{walk}?at=MQ-007")


def main(words: list[str]) -> None:
    folder = ROOT / "docs" / "screenshots"
    folder.mkdir(parents=True, exist_ok=True)
    installation = Installation("shots")
    try:
        browser = Browser(installation.server.url)
        try:
            browser.go("/")
            browser.sees("Demo accounts")
            browser.script("return document.fonts.ready.then(() => true)")
            time.sleep(SETTLE_S)
            if not words or "sign-in" in words:
                browser.picture(str(folder / "sign-in.png"))
            browser.sign_in()
            take_all(browser, folder, set(words))
        finally:
            browser.close()
    finally:
        installation.close()


if __name__ == "__main__":
    main(sys.argv[1:])
