"""A database of the version before the engine (commit 678bcff, its demo and a few jobs more), restored and migrated.

Both fixtures were written by that version: the dump by pg_dump, what its Bench showed of eighteen jobs by its own API.
"""

from __future__ import annotations

import gzip
import json
import os
import re
import subprocess
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import psycopg
import pytest

from apps.bench.stored import PLAN_SHAPE

HERE = Path(__file__).parent
SHOWN = json.loads(gzip.decompress((HERE / "fixtures" / "bench_before_engine.json.gz").read_bytes()))
PROBE = HERE / "look_at_jobs.py"


def _pg_restore() -> str:
    found = sorted(Path("/usr/lib/postgresql").glob("*/bin/pg_restore"), reverse=True)
    return str(found[0]) if found else "pg_restore"


@pytest.fixture(scope="module")
def migrated() -> Iterator[dict[str, Any]]:
    """The migrated database, looked at by the code of today in a process of its own: its jobs, and those finished since."""
    url = os.environ["RT_DATABASE_URL"]
    base, _, _ = url.rpartition("/")
    name = f"before_engine_{os.getpid()}"
    with psycopg.connect(url, autocommit=True) as connection:
        connection.execute(f'drop database if exists "{name}"')
        connection.execute(f'create database "{name}"')
    try:
        dump = HERE / "fixtures" / "before_engine.dump"
        subprocess.run([_pg_restore(), "--no-owner", "-d", f"{base}/{name}", str(dump)], check=True)
        answer = subprocess.run(
            [os.sys.executable, str(PROBE)],  # type: ignore[attr-defined]
            env={**os.environ, "RT_DATABASE_URL": f"{base}/{name}"},
            check=True,
            stdout=subprocess.PIPE,
            text=True,
        )
        yield json.loads(answer.stdout)
    finally:
        with psycopg.connect(url, autocommit=True) as connection:
            connection.execute(f'drop database if exists "{name}" with (force)')


@pytest.mark.parametrize("key", list(SHOWN), ids=lambda key: f"{SHOWN[key]['name']}-{key[:4]}")
def test_every_job_keeps_its_steps_and_its_figures(migrated: dict[str, Any], key: str) -> None:
    before, now = SHOWN[key], migrated["jobs"][key]
    assert now["state"] == before["state"]
    assert now["title"] == before["title"]
    assert re.sub("of [0-9]+", "of so many", now["where"]) == re.sub("of [0-9]+", "of so many", before["where"])
    assert [step["id"] for step in now["steps"]] == [step["id"] for step in before["steps"]]
    assert [step["done"] for step in now["steps"]] == [bool(step["done"]) for step in before["steps"]]
    assert now["last_seq"] == before["last_seq"]
    assert (now["new_head"], now["old_head"], now["reason"]) == tuple(
        before[name] for name in ("new_head", "old_head", "reason")
    )
    assert now["target_hz"] == before["target_hz"]
    assert now["step_32"] == before["step_32"]
    assert now["notes"] == before["notes"]
    assert now["tally"] == ({str(t["rod"]): t["turns_32"] for t in before["tally"]} if before["tally"] else None)
    assert now["conflicts"] == before["conflicts"]
    assert now["undo"] == [each["words"] for each in before["undo"]]
    for step, then in zip(now["steps"], before["steps"], strict=True):
        for lap, old in zip(step["laps"], then["laps"], strict=False):  # fewer turns a pass, and a pass more, since
            assert lap["order"] == old["order"]
            turned = {str(r["rod"]): r["turned"]["turns_32"] for r in old["rods"] if r["turned"]}
            assert lap["turned"] == turned
            read = {str(r["rod"]): [r["reading"]["shown"], r["reading"]["cents"]] for r in old["rods"] if r["reading"]}
            assert lap["read"] == read
            assert lap["verdict"] == (old["plan"]["verdict"] if old["plan"] else None)
            assert lap["compared"] == old["compared"]


def test_jobs_in_hand_can_be_finished(migrated: dict[str, Any]) -> None:
    opened = {key for key, job in SHOWN.items() if job["state"] == "open"}
    assert set(migrated["finished"]) == opened
    assert set(migrated["finished"].values()) == {"closed"}


def test_nothing_is_left_of_the_old_shapes(migrated: dict[str, Any]) -> None:
    assert migrated["versions"] == [2]
    assert migrated["shapes"] == [PLAN_SHAPE]
    assert migrated["heads"] == migrated["count"]
