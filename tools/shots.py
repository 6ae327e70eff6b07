"""Take one current picture of each main view from the demo: `tools/screenshots`."""

from __future__ import annotations

import sys
import time
from pathlib import Path

from e2e.support.browser import Browser
from e2e.support.installation import ROOT, Installation

SETTLE_S = 0.5  # fonts and the one motion of a beam
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


def take_all(browser: Browser, folder: Path, only: set[str]) -> None:
    heron, kittiwake, dunlin, sanderling = (
        f"/bench/{_job(browser, name)}" for name in ("Heron", "Kittiwake", "Dunlin", "Sanderling")
    )
    views = [
        ("today", "/", "Overdue", 1280, 800, "bench"),
        ("drums", "/drums", "Cormorant", 1280, 800, "bench"),
        ("drum-sheet", "/drums/MQ-041", "History", 1280, 800, "bench"),
        ("drum-form", "/drums/MQ-041/edit", "Which drum", 1280, 800, "bench"),
        ("start-both", "/drums/MQ-017/start?work=both-heads&part=heads", "Which head first", 1280, 800, "bench"),
        ("bench-turn", heron, "next rod", 1280, 800, "bench"),
        ("bench-turn-stage", heron, "next rod", 1280, 800, "stage"),
        ("bench-slacken", kittiwake, "in this order", 1280, 800, "bench"),
        ("bench-read", dunlin, "tap at rod", 1280, 800, "bench"),
        ("bench-step", sanderling, "Hoop on, its snare gates", 1280, 800, "bench"),
        ("bench-tablet", heron, "next rod", 800, 1280, "bench"),
        ("bench-phone", heron, "next rod", 390, 844, "bench"),
        ("today-phone", "/", "Overdue", 390, 844, "stage"),
        ("ways", "/ways", "Fitting a head", 1280, 800, "bench"),
        ("sound", "/drums/MQ-041/sound", "Because", 1280, 800, "bench"),
    ]
    for name, path, waits_for, wide, high, theme in views:
        if not only or name in only:
            _theme(browser, theme)
            take(browser, folder, name, path, waits_for, wide, high)
    if not only or "bench-found" in only:
        _theme(browser, "bench")
        browser.size(1280, 800)
        browser.go(kittiwake)
        browser.sees("in this order")
        browser.press("Something found")
        browser.sees("How bad")
        time.sleep(SETTLE_S)
        browser.picture(str(folder / "bench-found.png"))
    if not only or "heard" in only:
        _theme(browser, "bench")
        browser.go(dunlin)
        browser.press("Simulated drum")
        browser.sees("Work out the turns", seconds=30)
        take(browser, folder, "heard", f"{dunlin}/taps", "One after the other")
    if not only or "bench-ear" in only:
        _theme(browser, "bench")
        browser.go(dunlin)
        browser.press("Another way")
        browser.press("by ear", "[role=dialog] label")
        take(browser, folder, "bench-ear", dunlin, "Much lower")


def main(words: list[str]) -> None:
    folder = ROOT / "docs" / "screenshots"
    folder.mkdir(parents=True, exist_ok=True)
    installation = Installation("shots")
    try:
        browser = Browser(installation.server.url)
        try:
            browser.go("/")
            browser.sees("Demo accounts")
            if not words:
                browser.picture(str(folder / "sign-in.png"))
            browser.sign_in()
            take_all(browser, folder, set(words))
        finally:
            browser.close()
    finally:
        installation.close()


if __name__ == "__main__":
    main(sys.argv[1:])
