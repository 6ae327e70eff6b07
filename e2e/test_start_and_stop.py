"""Starting twice, stopping, and a terminal that is closed: nobody's database goes away under them, and nothing is left running."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import urllib.request
from collections.abc import Iterator

import pytest

from e2e.support.installation import ROOT, free_port, wait_ready


def _as_in_a_terminal() -> None:
    """Whoever runs the tests may ignore these (nohup, a job in the background); a shell cannot take up again what it was told to ignore."""
    for each in (signal.SIGINT, signal.SIGHUP):
        signal.signal(each, signal.SIG_DFL)


class Started:
    """`./start`, in a session of its own as a terminal has one."""

    def __init__(self, cluster: dict[str, str]) -> None:
        self.port = free_port()
        env = {**os.environ, **cluster}
        for name in ("RT_DATABASE_URL", "RT_BACKUP_URL", "RT_DEMO", "RT_SECRET_KEY"):
            env.pop(name, None)
        self.process = subprocess.Popen(
            ["./start", "--no-demo", "--port", str(self.port), "--workers", "1"],
            cwd=ROOT, env=env, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, start_new_session=True,
            preexec_fn=_as_in_a_terminal,
        )  # fmt: skip
        self.url = f"http://127.0.0.1:{self.port}"

    def ready(self) -> None:
        wait_ready(self.url)

    def end(self, how: signal.Signals) -> int:
        os.killpg(self.process.pid, how)  # as a terminal does it: to all of it
        return self.process.wait(timeout=120)


def of_group(group: int) -> list[str]:
    """What still runs in a session."""
    ran = subprocess.run(["ps", "-s", str(group), "-o", "args="], capture_output=True, text=True)
    return [line for line in ran.stdout.splitlines() if "<defunct>" not in line]  # dead, only not yet fetched


@pytest.fixture
def cluster() -> Iterator[dict[str, str]]:
    where = {"RT_PGDATA": str(ROOT / ".data" / "pg-started"), "RT_PGPORT": str(free_port())}
    yield where
    subprocess.run(["tools/pg", "destroy"], cwd=ROOT, env={**os.environ, **where}, check=True)


def answers(port: int) -> bool:
    try:
        socket.create_connection(("127.0.0.1", port), timeout=2).close()
    except OSError:
        return False
    return True


def test_a_second_start_that_ends_leaves_the_first_its_database(cluster: dict[str, str]) -> None:
    """The second is stopped by Ctrl-C, the first by its terminal being closed."""
    first = Started(cluster)
    first.ready()
    with urllib.request.urlopen(f"{first.url}/api/session", timeout=1) as answer:  # everything is loaded before serving
        assert answer.status == 200
    second = Started(cluster)
    second.ready()
    assert second.end(signal.SIGINT) == 0
    assert of_group(second.process.pid) == []
    assert not answers(second.port)
    with urllib.request.urlopen(f"{first.url}/readyz", timeout=10) as answer:
        assert answer.status == 200
    assert first.end(signal.SIGHUP) == 0
    assert of_group(first.process.pid) == []
    assert not answers(first.port)
    assert not answers(int(cluster["RT_PGPORT"]))
