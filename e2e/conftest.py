"""One installation for all journeys; a fresh browser for each."""

from __future__ import annotations

import pathlib
import tempfile
from collections.abc import Iterator

import pytest

from e2e.support.browser import Browser
from e2e.support.installation import Installation


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Journeys that listen in real time come last, when the machine is quiet."""
    items.sort(key=lambda item: item.path.name == "test_listening.py")


@pytest.fixture(scope="session")
def installation() -> Iterator[Installation]:
    built = Installation("e2e")
    yield built
    built.close()


@pytest.fixture
def browser(installation: Installation, request: pytest.FixtureRequest) -> Iterator[Browser]:
    opened = Browser(installation.server.url)
    yield opened
    folder = pathlib.Path(tempfile.gettempdir()) / "red-tally-e2e"
    folder.mkdir(exist_ok=True)
    opened.picture(str(folder / f"{request.node.name[:60].replace('/', '-')}.png"))  # how it looked at the end
    opened.close()
