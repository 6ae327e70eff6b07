"""Order and durations of all tests: files that take longest begin first, so that no worker is left with one at the end."""

from __future__ import annotations

import json
import os
from collections import Counter
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parent
LAST_RUN = ROOT / ".data" / "measured.json"
MEASURED = ROOT / "tools" / "measured.json"
"""Seconds by file, and by test where one takes long, as a whole run had them: `cp .data/measured.json tools/measured.json` after one renews them."""
LONG_S = 1.0
"""What takes longer is left out of `./test --quick`."""

_seconds: Counter[str] = Counter()


def _by_file(seconds: dict[str, float]) -> Counter[str]:
    total: Counter[str] = Counter()
    for test, took in seconds.items():
        total[test.partition("::")[0]] += took
    return total


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    took: dict[str, float] = json.loads(MEASURED.read_text())
    files = _by_file(took)
    items.sort(key=lambda item: -files[item.nodeid.partition("::")[0]])
    if os.environ.get("RT_QUICK"):
        left_out = [item for item in items if took.get(item.nodeid, 0.0) >= LONG_S]
        config.hook.pytest_deselected(items=left_out)
        items[:] = [item for item in items if took.get(item.nodeid, 0.0) < LONG_S]


def pytest_runtest_logreport(report: pytest.TestReport) -> None:
    _seconds[report.nodeid] += report.duration


def pytest_sessionfinish(session: pytest.Session) -> None:
    if hasattr(session.config, "workerinput") or not LAST_RUN.parent.is_dir():
        return  # a worker of several, or no checkout that was set up
    (ROOT / ".data" / "durations.json").write_text(json.dumps(dict(_seconds.most_common()), indent=0))
    kept: dict[str, float] = json.loads(LAST_RUN.read_text()) if LAST_RUN.exists() else {}
    long = {test: took for test, took in _seconds.items() if took >= LONG_S}
    rest = _by_file({test: took for test, took in _seconds.items() if took < LONG_S})
    run = set(_by_file(_seconds))
    kept = {test: took for test, took in kept.items() if test.partition("::")[0] not in run}
    kept |= {test: round(took, 1) for test, took in (long | rest).items()}
    LAST_RUN.write_text(json.dumps(dict(sorted(kept.items())), indent=0) + "\n")
