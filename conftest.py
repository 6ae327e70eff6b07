"""Order and durations of all tests: files that take longest begin first, so that no worker is left with one at the end."""

from __future__ import annotations

import json
from collections import Counter
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parent
LAST_RUN = ROOT / ".data" / "measured.json"
MEASURED = ROOT / "tools" / "measured.json"
"""Seconds by file, as a whole run had them: `cp .data/measured.json tools/measured.json` after one renews them."""

_seconds: Counter[str] = Counter()


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    took: dict[str, float] = json.loads(MEASURED.read_text())
    items.sort(key=lambda item: -took.get(item.nodeid.partition("::")[0], 0.0))


def pytest_runtest_logreport(report: pytest.TestReport) -> None:
    _seconds[report.nodeid.partition("::")[0]] += report.duration


def pytest_sessionfinish(session: pytest.Session) -> None:
    if hasattr(session.config, "workerinput") or not LAST_RUN.parent.is_dir():
        return  # a worker of several, or no checkout that was set up
    kept: dict[str, float] = json.loads(LAST_RUN.read_text()) if LAST_RUN.exists() else {}
    kept |= {file: round(took, 1) for file, took in _seconds.items()}
    LAST_RUN.write_text(json.dumps(dict(sorted(kept.items())), indent=0) + "\n")
