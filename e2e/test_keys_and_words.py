"""A cluster's keys are its own, and no tool ends without a word."""

from __future__ import annotations

import os
import signal
import subprocess
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest

from e2e.support.installation import ROOT, TABLES, free_port, in_turn, prepared
from e2e.test_start_and_stop import Started, of_group


def at(data: Path) -> dict[str, str]:
    """What tells the tools of a cluster somewhere else."""
    env = {key: value for key, value in os.environ.items() if not key.startswith("RT_")}
    return env | {"RT_PGDATA": str(data), "RT_PGPORT": str(free_port())}


def run(env: dict[str, str], *words: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(words, cwd=ROOT, env=env, capture_output=True, text=True, stdin=subprocess.DEVNULL)


@pytest.fixture
def place(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Path]:
    """A folder the cluster's own user can go to."""
    made = Path(subprocess.run(["mktemp", "-d"], check=True, capture_output=True, text=True).stdout.strip())
    made.chmod(0o755)
    yield made
    subprocess.run(["rm", "-rf", str(made)], check=True)


def made_at(data: Path) -> dict[str, str]:
    """A cluster there, copied from one that is prepared, stopped."""
    env = at(data)
    with in_turn():
        like = ROOT / ".data" / f"pg-{prepared(*TABLES)}"
        if not like.exists():
            pytest.skip("clusters are kept elsewhere on this machine")
        subprocess.run(["cp", "-a", str(like), str(data)], check=True)
        subprocess.run(["cp", "-p", f"{like}.keys", f"{data}.keys"], check=True)
    return env


def test_a_second_cluster_of_the_same_name_leaves_the_first_its_keys(place: Path) -> None:
    """Both are called pg: their keys lay under one name, and the first one's owner was locked out."""
    first, second = place / "here" / "pg", place / "there" / "pg"
    for each in (first, second):
        each.parent.mkdir()
        each.parent.chmod(0o755)
    env = made_at(first)
    try:
        assert run(env, "tools/pg", "start").returncode == 0
        keys = first.with_suffix(".keys").read_bytes()
        ours = ROOT / ".data" / "pg.keys"
        before = ours.read_bytes() if ours.exists() else None
        other = at(second)
        try:
            began = run(other, "tools/pg", "start")
            assert began.returncode == 0, began.stderr
            assert second.with_suffix(".keys").read_bytes() != keys
        finally:
            run(other, "tools/pg", "destroy")
        assert first.with_suffix(".keys").read_bytes() == keys
        assert (ours.read_bytes() if ours.exists() else None) == before
        assert run(env, "tools/pg", "psql", "-Atc", "select 1").stdout.strip() == "1"
    finally:
        run(env, "tools/pg", "destroy")
    assert not first.exists()
    assert not first.with_suffix(".keys").exists()


def test_foreign_keys_are_named_and_nothing_is_touched_and_there_is_a_way_back(place: Path) -> None:
    data = place / "pg"
    env, keys = made_at(data), Path(f"{data}.keys")
    try:
        assert run(env, "tools/pg", "start").returncode == 0
        assert run(env, "tools/pg", "rekey").returncode != 0, "not while somebody may be in it"
        run(env, "tools/pg", "stop")
        foreign = "# cluster 7000000000000000001\n*:*:*:postgres:somebody-elses\n"
        own = keys.read_text()
        keys.write_text(foreign)
        for words in (["start"], ["destroy"], ["rekey"]):
            said = run(env, "tools/pg", *words)
            assert said.returncode != 0
            assert str(keys) in said.stderr, words
            assert keys.read_text() == foreign
            assert data.exists()
        # keys of an earlier version, which do not say whose they are
        keys.write_text("*:*:*:postgres:wrong\n*:*:*:redtally:wrong\n")
        said = run(env, "tools/pg", "start")
        assert "do not open" in said.stderr
        run(env, "tools/pg", "stop")
        keys.unlink()
        said = run(env, "tools/pg", "start")
        assert "tools/pg rekey" in said.stderr
        run(env, "tools/pg", "stop")
        assert run(env, "tools/pg", "rekey").returncode == 0
        assert keys.read_text() != own
        assert keys.stat().st_mode & 0o077 == 0
        assert run(env, "tools/pg", "start").returncode == 0
        for role in ("owner", "backup", "admin"):
            url = run(env, "tools/pg", "url", role).stdout.strip()
            asked = run(env, "psql", url, "-Atc", "select 1")
            assert asked.stdout.strip() == "1", asked.stderr
    finally:
        run(env, "tools/pg", "stop")
        keys.unlink(missing_ok=True)
        run(env, "tools/pg", "destroy")


def test_keys_without_their_cluster_are_left(place: Path) -> None:
    data = place / "pg"
    keys = Path(f"{data}.keys")
    keys.write_text("*:*:*:postgres:the-only-ones\n")
    said = run(at(data), "tools/pg", "start")
    assert said.returncode != 0
    assert str(keys) in said.stderr
    assert keys.read_text() == "*:*:*:postgres:the-only-ones\n"
    assert not data.exists()


NOWHERE = "/nonexistent/place"
BAD_CALLS = [
    ("start", "--bogus"), ("start", "--port"), ("start", "--port", "0"), ("start", "--host"), ("start", "--host", ""), ("start", "--workers", "no"),
    ("start", "--https-port", "x"), ("test", "--bogus"), ("bench",), ("bench", "bogus"), ("tools/pg", "bogus"), ("tools/pg", "url", "bogus"),
    ("tools/pg", "rename"), ("tools/pg", "copy-of"), ("tools/pg", "fresh"), ("tools/pg", "status"), ("tools/backup",), ("tools/backup", f"{NOWHERE}/all.tar"),
    ("tools/restore",), ("tools/restore", f"{NOWHERE}/all.tar", "--check"), ("tools/restore", "one", "two"), ("tools/certificate",),
    ("tools/certificate", "folder"),
]  # fmt: skip


@pytest.mark.parametrize("words", BAD_CALLS, ids=" ".join)
def test_no_tool_ends_without_a_word(words: tuple[str, ...], tmp_path: Path) -> None:
    env = at(Path(NOWHERE) / "pg" if words[0] != "tools/pg" else tmp_path / "none")
    said = run(env, f"./{words[0]}", *words[1:])
    assert said.returncode != 0
    assert any(len(line) > 10 for line in said.stderr.splitlines()), said


def test_a_backup_that_has_no_database_says_so(tmp_path: Path) -> None:
    """Its message went into a log it never showed."""
    env = at(Path("/proc/no-place/pg"))
    said = run(env, "tools/backup", str(tmp_path / "all.tar"))
    assert said.returncode != 0
    assert "cluster" in said.stderr or "PostgreSQL" in said.stderr, said.stderr
    assert list(tmp_path.iterdir()) == []


def test_a_database_that_is_killed_is_started_again(place: Path) -> None:
    """Killed with -9 it answered 503 until somebody started it by hand."""
    env = made_at(place / "pg")
    env["RT_WATCH_S"] = "0.2"
    started = Started({key: value for key, value in env.items() if key.startswith("RT_")})
    try:
        started.ready()
        ran = subprocess.run(["head", "-1", str(place / "pg" / "postmaster.pid")], capture_output=True, text=True)
        os.kill(int(ran.stdout), signal.SIGKILL)
        end = time.monotonic() + 120
        while Path(f"/proc/{ran.stdout.strip()}").exists() and time.monotonic() < end:
            time.sleep(0.05)
        started.ready()
        with urllib.request.urlopen(f"{started.url}/api/session", timeout=10) as answer:
            assert answer.status == 200
        assert started.end(signal.SIGINT) == 0
        assert of_group(started.process.pid) == []
    finally:
        if started.process.poll() is None:
            started.end(signal.SIGKILL)
        run(env, "tools/pg", "destroy")
