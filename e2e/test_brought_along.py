"""Jobs in hand of the version before the engine, in a migrated database, are finished at the screen where they were left."""

from __future__ import annotations

import re
import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium.webdriver.common.keys import Keys

from e2e.pages.bench import Bench
from e2e.support.browser import Browser
from e2e.support.installation import ROOT, Cluster, Installation, Server

DUMP = ROOT / "server" / "tests" / "fixtures" / "before_engine.dump"
NAME = "before_engine"


@pytest.fixture(scope="module")
def before(installation: Installation) -> Iterator[tuple[Server, str]]:
    """A server on a database of the version before, and that database's address."""
    cluster: Cluster = installation.cluster
    cluster.rows(f'create database "{NAME}" owner redtally', autocommit=True)
    url = cluster.url.rpartition("/")[0] + f"/{NAME}"
    restore = sorted(Path("/usr/lib/postgresql").glob("*/bin/pg_restore"), reverse=True)
    subprocess.run([str(restore[0]) if restore else "pg_restore", "--no-owner", "-d", url, str(DUMP)], check=True)
    server = Server(url, workers=1)
    server.manage("migrate", "--verbosity", "0")
    server.start()
    yield server, cluster.admin_url.rpartition("/")[0] + f"/{NAME}"
    server.stop()
    cluster.rows(f'drop database "{NAME}" with (force)', autocommit=True)


def state_of(url: str, job: str) -> str:
    import psycopg

    with psycopg.connect(url) as connection:
        return str(connection.execute("select state from bench_job where id = %s", [job]).fetchone()[0])  # type: ignore[index]


def asked_for(browser: Browser) -> str | None:
    """The rod whose tap the page waits for."""
    match = re.search(r"Pitch at rod \d+", browser.text())
    return match[0] if match else None


@pytest.mark.parametrize(("name", "at"), [("Plover", "Clean"), ("Heron", "Clear"), ("Drifter", "Rest")])
def test_a_job_in_hand_is_finished_from_where_it_was_left(before: tuple[Server, str], name: str, at: str) -> None:
    server, url = before
    browser = Browser(server.url)
    try:
        browser.sign_in()
        browser.until(
            f"{name} in hand", lambda: next((a for a in browser.all("main a") if name in a.text), None)
        ).click()
        bench = Bench(browser)
        browser.until("the bench", lambda: browser.words("li[aria-current=step]"))
        job = bench.job
        assert bench.step() == at
        for _ in range(80):
            step = bench.step()
            if step == "Write on it":
                break
            if (rod := asked_for(browser)) is not None:
                browser.until(
                    "the field to have the focus",
                    lambda: browser.script("return document.activeElement.id") == "reading",
                )
                wanted = re.search(r"Wanted\s+(\d+\.\d)", browser.text())
                browser.keys(wanted[1] if wanted else "182.0", Keys.ENTER)  # an even head, at its pitch
                browser.until("the next rod", lambda rod=rod: asked_for(browser) != rod)  # type: ignore[misc]
            elif step == "Rest" and any("Rested enough" in each for each in browser.words("button")):
                browser.press("Rested enough")
                browser.until("the next step", lambda: bench.step() != "Rest")
            else:
                bench.go_on()
        bench.go_on()
        browser.sees("Closed. It is in")
        browser.until("the closing to be stored", lambda: state_of(url, job) == "closed")
    finally:
        browser.close()
