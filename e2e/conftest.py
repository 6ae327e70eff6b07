"""One installation for all journeys; for each a browser with nothing stored in it."""

from __future__ import annotations

import os
import pathlib
import signal
import tempfile
import time
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


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Journeys that listen in real time come last: a busy machine tears the sound."""
    items.sort(key=_listens)


def _listens(item: pytest.Item) -> bool:
    return item.path.name == "test_listening.py"


@pytest.hookimpl(tryfirst=True)
def pytest_runtest_setup(item: pytest.Item) -> None:
    """Where other tests run beside the journeys, those that listen wait for the file that says all others are done."""
    others_done = os.environ.get("RT_OTHERS_DONE")
    while _listens(item) and others_done and not pathlib.Path(others_done).exists():
        time.sleep(0.5)


@pytest.fixture(scope="session")
def installation() -> Iterator[Installation]:
    built = Installation(os.environ.get("RT_JOURNEYS", "e2e"))
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
