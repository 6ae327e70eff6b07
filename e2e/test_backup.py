"""The rehearsal of the worst day: everything is backed up, the record book is gone, everything is brought back."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tarfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import psycopg
import pytest

from e2e.support.device import Device
from e2e.support.installation import ROOT, Cluster, Installation, Server

OLD = ROOT / "server" / "tests" / "fixtures" / "before_engine.dump"


class Database:
    """One database of a cluster, by its three addresses."""

    def __init__(self, cluster: Cluster, name: str) -> None:
        self.name = name
        self.owner, self.backup, self.admin = (
            url.rpartition("/")[0] + f"/{name}" for url in (cluster.url, cluster.backup_url, cluster.admin_url)
        )

    def manage(self, *words: str) -> subprocess.CompletedProcess[str]:
        env = {
            **os.environ, "RT_DATABASE_URL": self.owner, "RT_BACKUP_URL": self.backup, "RT_SECRET_KEY": "rehearsal",
        }  # fmt: skip
        command = [sys.executable, str(ROOT / "server" / "manage.py"), *words]
        return subprocess.run(command, env=env, capture_output=True, text=True)

    def ask(self, sql: str) -> list[tuple]:
        with psycopg.connect(self.admin) as connection:
            return connection.execute(sql).fetchall()  # type: ignore[call-overload]

    def everything(self) -> dict[str, tuple]:
        """Of every table how many rows, and a sum over all that stands in them."""
        names = [name for (name,) in self.ask("select relname from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace")]  # fmt: skip
        sums = "select count(*), md5(coalesce(string_agg(t::text, '|' order by t::text), '')) from {} t"
        return {name: self.ask(sums.format(name))[0] for name in names}

    def guards(self) -> list[tuple]:
        """Every rule the database keeps, by name: row security, checks, keys, exclusions, indexes. (It may word a check otherwise than it was written.)"""
        return sorted(
            self.ask("select 'table', relname::text, relrowsecurity::text || relforcerowsecurity::text from pg_class where relnamespace = 'public'::regnamespace and relkind = 'r'")
            + self.ask("select 'policy', polname::text, pg_get_expr(polqual, polrelid) from pg_policy")
            + self.ask("select 'constraint', conname::text, conrelid::regclass::text || contype::text || convalidated::text from pg_constraint where connamespace = 'public'::regnamespace")
            + self.ask("select 'index', indexname::text, tablename::text from pg_indexes where schemaname = 'public'")
        )  # fmt: skip


@pytest.fixture
def empty(installation: Installation) -> Iterator[Database]:
    yield from new(installation, "rehearsal")


@pytest.fixture
def second(installation: Installation) -> Iterator[Database]:
    yield from new(installation, "rehearsal_second")


def new(installation: Installation, name: str) -> Iterator[Database]:
    installation.cluster.rows(f'create database "{name}" owner redtally', autocommit=True)
    yield Database(installation.cluster, name)
    installation.cluster.rows(f'drop database "{name}" with (force)', autocommit=True)


@pytest.fixture
def job(installation: Installation) -> str:
    """A job in hand, with taps heard and their sound kept."""
    device = Device(installation.server.url)
    body = {"id": "0b0e3d5a-0000-4000-8000-00000000c0b1", "tag": "MQ-056", "work": "settling-check", "part": "batter"}
    key = str(device.call("POST", "/api/bench/jobs", body)["id"])
    for rod in (1, 2, 3):
        device.call("POST", f"/api/hearing/jobs/{key}/simulated", {"step": "clear", "lap": 0, "rod": rod})
    device.enter(key, {"kind": "reading", "step": "clear", "lap": 0, "rod": 1, "typed": "201.5"})
    return key


def answers(url: str, job: str) -> dict[str, Any]:
    device = Device(url)
    taps = device.call("GET", f"/api/hearing/jobs/{job}/taps")
    kept = [tap["id"] for tap in taps["taps"] if tap["has_sound"]]
    assert len(kept) == 3
    sounds = [device.opener.open(f"{url}/api/hearing/taps/{tap}/sound").read() for tap in kept]
    return {
        "job": device.call("GET", f"/api/bench/jobs/{job}"),
        "today": device.call("GET", "/api/today")["owed_count"],
        "register": device.call("GET", "/api/register/drums"),
        "taps": taps,
        "sounds": sounds,
    }


def test_what_is_backed_up_comes_back_whole(
    installation: Installation, empty: Database, job: str, tmp_path: Path
) -> None:
    demo, file = Database(installation.cluster, "redtally"), tmp_path / "all.tar"
    before = answers(installation.server.url, job)
    made = demo.manage("backup", str(file))
    assert made.returncode == 0, made.stderr
    assert file.stat().st_mode & 0o077 == 0
    stood = demo.everything()
    came = empty.manage("restore", str(file))
    assert came.returncode == 0, came.stderr
    restored = empty.everything()
    for database in (stood, restored):
        database.pop("copies_copy")  # that it was made is written down after it was
        database.pop("django_session")  # signing in to look
    assert restored == stood
    assert empty.guards() == demo.guards()
    server = Server(empty.owner, workers=1)
    server.start()
    try:
        assert answers(server.url, job) == before
        device = Device(server.url)
        device.enter(job, {"kind": "reading", "step": "clear", "lap": 0, "rod": 2, "typed": "202"})
        assert empty.ask(f"select max(seq) from bench_jobevent where job_id = '{job}'") == [
            (before["job"]["last_seq"] + 1,)
        ]
    finally:
        server.stop()


def test_a_backup_of_the_version_before_comes_back_and_is_brought_up(
    empty: Database, second: Database, tmp_path: Path
) -> None:
    file = tmp_path / "old.tar"
    subprocess.run([_pg("pg_restore"), "--no-owner", "-d", empty.owner, str(OLD)], check=True)
    jobs = empty.ask("select count(*) from bench_job")
    made = empty.manage("backup", str(file))
    assert made.returncode == 0, made.stderr
    came = second.manage("restore", str(file))
    assert came.returncode == 0, came.stderr
    assert second.manage("migrate", "--check").returncode == 0
    assert second.ask("select count(*) from bench_job") == jobs
    again = second.manage("restore", str(file))
    assert "goes into an empty one" in again.stderr


def _pg(name: str) -> str:
    found = sorted(Path("/usr/lib/postgresql").glob(f"*/bin/{name}"), reverse=True)
    return str(found[0]) if found else name


def test_the_owners_role_cannot_write_an_empty_backup(installation: Installation, tmp_path: Path) -> None:
    """Row security shows that role nothing: what it would dump would be empty."""
    demo, file = Database(installation.cluster, "redtally"), tmp_path / "empty.tar"
    demo.backup = demo.owner
    refused = demo.manage("backup", str(file))
    assert refused.returncode == 1
    assert "would write an empty backup" in refused.stderr
    assert list(tmp_path.iterdir()) == []


def test_nobody_gets_into_the_cluster_without_its_passwords(installation: Installation) -> None:
    """Not as its superuser, not as the app, not by a guess; and the app's own role may not run commands or read files."""
    cluster = installation.cluster
    _, _, where = cluster.url.rpartition("@")
    for role in ("postgres", "redtally", "redtally_backup"):
        for word in ("", ":", ":postgres", ":redtally"):
            with pytest.raises(psycopg.OperationalError):
                psycopg.connect(f"postgresql://{role}{word}@{where}", connect_timeout=5)
    with psycopg.connect(cluster.url) as connection, pytest.raises(psycopg.errors.InsufficientPrivilege):
        connection.execute("copy (select 1) to program 'true'")
    with psycopg.connect(cluster.backup_url) as connection, pytest.raises(psycopg.errors.InsufficientPrivilege):
        connection.execute("delete from django_session")
    keys = Path(cluster.env["RT_PGDATA"] + ".keys")
    assert keys.stat().st_mode & 0o077 == 0


def test_a_cluster_that_let_everybody_in_is_locked_when_it_is_next_started(tmp_path: Path) -> None:
    cluster = Cluster("locked")
    keys = ROOT / ".data" / "pg-locked.keys"
    cluster.start()
    try:
        data = Path(cluster.env["RT_PGDATA"])
        if not data.exists():
            pytest.skip("the cluster is kept elsewhere on this machine")
        cluster.rows("create table kept (n int)")
        hba = cluster.rows("show hba_file")[0][0]
        subprocess.run(["sed", "-i", "s/scram-sha-256/trust/", hba], check=True)
        cluster.rows("select pg_reload_conf()")
        _, _, where = cluster.url.rpartition("@")
        keys.unlink()
        psycopg.connect(f"postgresql://postgres@{where}").close()  # so it was before
        cluster.start()
        with pytest.raises(psycopg.OperationalError):
            psycopg.connect(f"postgresql://postgres@{where}", connect_timeout=5)
        assert cluster.rows("select count(*) from kept") == [["0"]]
    finally:
        cluster.destroy()


def test_the_manifest_says_what_is_in_it(installation: Installation, tmp_path: Path) -> None:
    file = tmp_path / "all.tar"
    Database(installation.cluster, "redtally").manage("backup", str(file))
    with tarfile.open(file) as archive:
        said = json.load(archive.extractfile("manifest.json"))  # type: ignore[arg-type]
        assert archive.getnames() == ["manifest.json", "database.dump"]
    assert (said["format"], len(said["sha256"])) == (1, 64)
    assert said["counts"]["register_drum"] == int(installation.cluster.rows("select count(*) from register_drum")[0][0])
    assert "bench.0007_engine_constraints" in said["migrations"]
