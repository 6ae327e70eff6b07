"""From the end of a captured ring to the number on the ladder, in a real browser on loopback, round by a fake microphone.

The page marks the moment a tap has been captured whole (`tap-caught`); an observer notes when the ladder shows one reading more. Beside it, in
the same page, the bare endpoint's round trip.
"""

from __future__ import annotations

import argparse
import statistics
import tempfile
from pathlib import Path

from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedDrum
from e2e.pages.bench import start_check
from e2e.support.browser import Browser
from e2e.support.installation import Installation
from e2e.test_listening import RATE, SNARE, microphone, readings

WATCH = """
window.shown = []
const count = () => [...document.querySelectorAll('[data-reading]')].length
let before = count()
new MutationObserver(() => { const now = count(); if (now > before) window.shown.push(performance.now()); before = now })
  .observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true })
"""
BARE = """
const times = []
for (let n = 0; n < 30; n++) { const at = performance.now(); await (await fetch('/api/bare')).text(); times.push(performance.now() - at) }
return times
"""


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--rounds", type=int, default=1)
    parser.parse_args()
    installation = Installation("latency")
    drum = SimulatedDrum(RodLayout(10), 300.0, 0.178, seed=4, uneven=0.05)
    taps = [drum.tap(rod, RATE, seed=rod, snr_db=50) for rod in drum.layout.rods]
    with tempfile.TemporaryDirectory() as folder:
        browser = Browser(installation.server.url, microphone=microphone(Path(folder) / "round.wav", taps))
        try:
            bench = start_check(browser, SNARE)
            browser.script(WATCH)
            bare = browser.script(f"return (async () => {{ {BARE} }})()")
            browser.press("Listen")
            browser.until("all ten rods", lambda: len(readings(installation, bench.job)) == 10, seconds=60)
            caught = browser.script("return performance.getEntriesByName('tap-caught').map(each => each.startTime)")
            shown = browser.script("return window.shown")
        finally:
            browser.close()
            installation.close()
    took = [at - max(mark for mark in caught if mark < at) for at in shown]
    base = statistics.median(bare)
    print(
        f"end of ring to the number on the ladder, {len(took)} taps: median {statistics.median(took):.0f} ms, most {max(took):.0f} ms "
        f"({statistics.median(took) / base:.0f} x the bare endpoint's {base:.1f} ms in the same page)"
    )


if __name__ == "__main__":
    main()
