"""What the first screen ships, and how soon the Bench gives its first instruction."""

from __future__ import annotations

import gzip
import json
import statistics
import time

from e2e.support.browser import Browser
from e2e.support.installation import ROOT, Installation

DIST = ROOT / "web" / "dist"
TIMES = 11


def shipped(*entries: str) -> int:
    """Gzip bytes of JavaScript reached by these entries through static imports."""
    manifest = json.loads((DIST / "manifest.json").read_text(encoding="utf-8"))
    files: set[str] = set()
    todo = list(entries)
    while todo:
        chunk = manifest[todo.pop()]
        if chunk["file"] not in files:
            files.add(chunk["file"])
            todo += chunk.get("imports", [])
    return sum(len(gzip.compress((DIST / name).read_bytes(), 9)) for name in files if name.endswith(".js"))


def first_instruction(browser: Browser, path: str) -> float:
    began = time.perf_counter()
    browser.go(path)
    browser.until(
        "the instruction", lambda: browser.script("return !!document.querySelector('[data-testid=instruction]')")
    )
    return (time.perf_counter() - began) * 1000


def main() -> None:
    for name, view in {
        "sign-in": [],
        "Today": ["src/tasks/today/TodayPage.tsx"],
        "Bench": ["src/tasks/bench/BenchPage.tsx"],
    }.items():
        print(f"JavaScript for {name}: {shipped('index.html', *view) / 1000:.1f} kB gzip")
    installation = Installation("bench")
    try:
        browser = Browser(installation.server.url)
        try:
            browser.sign_in()
            items = browser.script("return fetch('/api/today').then(r => r.json())")["items"]
            path = "/bench/" + next(item["job_id"] for item in items if item["name"] == "Heron")
            first, *times = [first_instruction(browser, path) for _ in range(TIMES)]
            bare = []
            for _ in range(TIMES):
                began = time.perf_counter()
                browser.go("/healthz")
                bare.append((time.perf_counter() - began) * 1000)
            warm, base = statistics.median(times), statistics.median(bare)
            print(
                f"navigation to the Bench's first instruction: first {first:.0f} ms, warm median {warm:.0f} ms (max {max(times):.0f})"
            )
            print(f"baseline, navigation to a page of one word: {base:.0f} ms; ratio {warm / base:.1f}")
        finally:
            browser.close()
    finally:
        installation.close()


if __name__ == "__main__":
    main()
