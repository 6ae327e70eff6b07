"""Starting twice, stopping, and a terminal that is closed: nobody's database goes away under them, and nothing is left running."""

from __future__ import annotations

import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest

from e2e.support.installation import ROOT, TABLES, free_port, in_turn, prepared, wait_ready


def _as_in_a_terminal() -> None:
    """Whoever runs the tests may ignore these (nohup, a job in the background); a shell cannot take up again what it was told to ignore."""
    for each in (signal.SIGINT, signal.SIGHUP):
        signal.signal(each, signal.SIG_DFL)


class Started:
    """`./start`, in a session of its own as a terminal has one."""

    def __init__(self, settings: dict[str, str], *options: str) -> None:
        self.port = free_port()
        env = {key: value for key, value in os.environ.items() if not key.startswith("RT_")} | settings
        self.process = subprocess.Popen(
            ["./start", "--no-demo", "--port", str(self.port), "--workers", "1", *options],
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
    """A record book nobody has written in yet, as an earlier start left it; one test begins without."""
    where = {"RT_PGDATA": str(ROOT / ".data" / "pg-started"), "RT_PGPORT": str(free_port())}
    with in_turn():
        like = prepared(*TABLES)
        subprocess.run(["tools/pg", "copy-of", f"pg-{like}"], cwd=ROOT, env={**os.environ, **where}, check=True)
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


def test_what_it_does_by_the_way_ends_with_it(cluster: dict[str, str], tmp_path: Path) -> None:
    """Tidying is under way, and takes long, when it is told to end."""
    (tmp_path / "sitecustomize.py").write_text("import sys, time\nif 'tidy' in sys.orig_argv: time.sleep(60)\n")
    slow = {"RT_COPY_WAIT_S": "0", "RT_COPIES": str(tmp_path / "copies"), "PYTHONPATH": str(tmp_path)}
    started = Started({**cluster, **slow})
    started.ready()
    end = time.monotonic() + 120
    while not any("manage.py tidy" in line for line in of_group(started.process.pid)) and time.monotonic() < end:
        time.sleep(0.05)
    assert started.end(signal.SIGINT) == 0
    assert of_group(started.process.pid) == []


def test_a_copy_is_made_while_it_runs(cluster: dict[str, str], tmp_path: Path) -> None:
    """The first after a while, the next a day later; none at all when it is not wanted or the database is one's own."""
    settings = {**cluster, "RT_COPY_WAIT_S": "1", "RT_COPIES": str(tmp_path / "copies")}
    started = Started(settings)
    started.ready()

    def made() -> list[Path]:
        return sorted((tmp_path / "copies").glob("red-tally-*.tar"))

    end = time.monotonic() + 120
    while not made() and time.monotonic() < end:
        time.sleep(0.2)
    assert len(made()) == 1
    env = {key: value for key, value in os.environ.items() if not key.startswith("RT_")} | cluster
    checked = subprocess.run(
        ["tools/restore", str(made()[0]), "--check"], cwd=ROOT, env=env, capture_output=True, text=True
    )
    assert checked.returncode == 0, checked.stderr
    # Asked again every second, it keeps to one a day.
    assert (
        subprocess.run(
            ["pgrep", "-s", str(started.process.pid), "-f", "sleep 1|manage.py (backup|tidy)"], capture_output=True
        ).returncode
        == 0
    )
    assert started.end(signal.SIGINT) == 0
    assert of_group(started.process.pid) == []
    assert len(made()) == 1


def test_what_is_there_is_set_aside_when_a_backup_comes_back(cluster: dict[str, str], tmp_path: Path) -> None:
    """Documented in docs/running.md: into our own cluster while it holds a record book."""
    env = {key: value for key, value in os.environ.items() if not key.startswith("RT_")} | cluster

    def run(*words: str, ok: bool = True) -> str:
        ran = subprocess.run(words, cwd=ROOT, env=env, capture_output=True, text=True)
        assert (ran.returncode == 0) is ok, ran.stdout + ran.stderr
        return ran.stdout + ran.stderr

    def names() -> list[str]:
        return run("tools/pg", "psql", "-Atc", "select name from workshops_workshop order by name").split()

    def add(name: str) -> None:
        url = run("tools/pg", "url").strip()
        command = [
            sys.executable,
            "server/manage.py",
            "shell",
            "-c",
            f"from apps.workshops.names import make_workshop; make_workshop({name!r})",
        ]
        subprocess.run(command, cwd=ROOT, env=env | {"RT_DATABASE_URL": url, "RT_SECRET_KEY": "aside"}, check=True)

    run("tools/pg", "destroy")  # from nothing
    run("./start", "--setup", "--no-demo")
    run("tools/pg", "start")
    add("First")
    run("tools/backup", str(tmp_path / "all.tar"))
    add("Second")
    assert names() == ["First", "Second"]
    refused = run("tools/restore", str(tmp_path / "all.tar"), ok=False)
    assert "--set-aside" in refused
    assert names() == ["First", "Second"]
    said = run("tools/restore", str(tmp_path / "all.tar"), "--set-aside")
    assert names() == ["First"]
    databases = run(
        "tools/pg", "psql", "-Atc", "select datname from pg_database where datname like 'redtally%'"
    ).split()
    (aside,) = [name for name in databases if name != "redtally"]
    assert aside in said


def test_a_machine_without_node_gets_one(tmp_path: Path) -> None:
    """The one there is too old here: what is fetched instead runs, and its npm too."""
    (tmp_path / "tools").mkdir()
    (tmp_path / "tools" / "setup.sh").write_text((ROOT / "tools" / "setup.sh").read_text())
    (tmp_path / "requirements-node.txt").write_text((ROOT / "requirements-node.txt").read_text())
    old = tmp_path / "old"
    old.mkdir()
    for name in ("node", "npm"):
        (old / name).write_text("#!/bin/sh\nexit 1\n")
        (old / name).chmod(0o755)
    env = {**os.environ, "PATH": f"{old}:{os.environ['PATH']}"}
    command = ["bash", "-euc", ". tools/setup.sh; ensure_node; node --version; npm --version; ensure_node"]
    done = subprocess.run(command, cwd=tmp_path, env=env, capture_output=True, text=True)
    assert done.returncode == 0, done.stderr
    assert done.stdout.startswith("v24.")
    assert done.stderr.count("Node.js") == 1


def test_clusters_of_a_checkout_in_a_private_folder_are_kept_apart(tmp_path: Path) -> None:
    """Where the database's own user cannot go: one being destroyed, as the tests do with theirs, leaves the other."""
    private = tmp_path / "private"
    (private / "tools").mkdir(parents=True)
    private.chmod(0o700)
    shutil.copy(ROOT / "tools" / "pg", private / "tools" / "pg")

    def pg(name: str, word: str) -> str:
        where = {"RT_PGDATA": str(private / ".data" / name), "RT_PGPORT": ports[name]}
        env = {key: value for key, value in os.environ.items() if not key.startswith("RT_")} | where
        done = subprocess.run(
            [str(private / "tools" / "pg"), word], env=env, check=True, capture_output=True, text=True
        )
        return done.stdout

    ports = {name: str(free_port()) for name in ("pg", "pg-e2e")}
    try:
        for name in ports:
            pg(name, "start")
        pg("pg-e2e", "destroy")
        assert "server is running" in pg("pg", "status")
        assert answers(int(ports["pg"]))
    finally:
        pg("pg", "destroy")
