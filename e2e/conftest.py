"""One installation for all journeys; for each a browser with nothing stored in it."""

from __future__ import annotations

import os
import pathlib
import signal
import tempfile
from collections.abc import Generator, Iterator

import pytest

from e2e.support.browser import Browser
from e2e.support.installation import Installation

FAILED = pytest.StashKey[bool]()


@pytest.hookimpl(wrapper=True)
def pytest_runtest_makereport(item: pytest.Item) -> Generator[None, pytest.TestReport, pytest.TestReport]:
    """Whether a journey failed, for whoever takes a picture of its end."""
    report = yield
    item.stash[FAILED] = item.stash.get(FAILED, False) or report.failed
    return report


def pytest_configure() -> None:
    """Told to stop, the journeys still take their installation down."""
    signal.signal(signal.SIGTERM, signal.default_int_handler)


@pytest.fixture(scope="session")
def installation() -> Iterator[Installation]:
    built = Installation(f"e2e-{os.environ.get('PYTEST_XDIST_WORKER', 'alone')}")
    yield built
    built.close()


@pytest.fixture(scope="session")
def one_browser(installation: Installation) -> Iterator[Browser]:
    opened = Browser(installation.server.url)
    yield opened
    opened.close()


@pytest.fixture
def browser(one_browser: Browser, request: pytest.FixtureRequest) -> Iterator[Browser]:
    one_browser.fresh()
    yield one_browser
    if not request.node.stash.get(FAILED, False):
        return
    folder = pathlib.Path(tempfile.gettempdir()) / "red-tally-e2e"
    folder.mkdir(exist_ok=True)
    one_browser.picture(str(folder / f"{request.node.name[:60].replace('/', '-')}.png"))  # how it looked at the end
