"""Backups as files: what is damaged, cut off, newer or no backup at all is refused; old copies go by number and age."""

from __future__ import annotations

import dataclasses
import hashlib
import io
import os
import signal
import tarfile
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from django.conf import settings
from django.core.management import call_command
from house import Api

from apps.copies.backup import back_up, name_at, prune, verify
from apps.copies.errors import CannotCopy
from apps.copies.manifest import DUMP, MANIFEST, Manifest
from apps.copies.models import Copy
from apps.copies.postgres import connect, counts
from apps.copies.restore import require_restorable

NOW = datetime(2026, 11, 27, 3, tzinfo=UTC)


def written(folder: Path, manifest: Manifest, dump: bytes) -> Path:
    file = folder / "a.tar"
    with tarfile.open(file, "w") as archive:
        for name, data in ((MANIFEST, manifest.to_json()), (DUMP, dump)):
            about = tarfile.TarInfo(name)
            about.size = len(data)
            archive.addfile(about, io.BytesIO(data))
    return file


def manifest_of(dump: bytes, **more: object) -> Manifest:
    plain = Manifest(1, NOW.isoformat(), "150000", [], {}, hashlib.sha256(dump).hexdigest(), len(dump))
    return dataclasses.replace(plain, **more)  # type: ignore[arg-type]


def test_a_damaged_one_is_refused(tmp_path: Path) -> None:
    file = written(tmp_path, manifest_of(b"what was meant"), b"what was found")
    with pytest.raises(CannotCopy, match="checksum does not hold"):
        verify(file)


def test_one_whose_dump_is_no_dump_is_refused(tmp_path: Path) -> None:
    with pytest.raises(CannotCopy, match="cannot be read back"):
        verify(written(tmp_path, manifest_of(b"no dump"), b"no dump"))


@pytest.mark.parametrize("data", [b"", b"some text", b"\0" * 10_240], ids=["nothing", "text", "zeros"])
def test_what_is_no_backup_is_said_to_be_none(tmp_path: Path, data: bytes) -> None:
    file = tmp_path / "a.tar"
    file.write_bytes(data)
    with pytest.raises(CannotCopy, match="no backup of Red Tally"):
        verify(file)
    with pytest.raises(CannotCopy, match="There is no file"):
        verify(tmp_path / "b.tar")


def test_one_of_a_newer_version_is_refused(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    with pytest.raises(CannotCopy, match="made by a newer Red Tally"):
        verify(written(tmp_path, manifest_of(b"", format=2), b""))
    newer = manifest_of(b"", migrations=["bench.0001_initial", "bench.9999_from_the_future"])
    monkeypatch.setattr("apps.copies.restore.verify", lambda file: newer)
    with pytest.raises(CannotCopy, match=r"it knows bench\.9999_from_the_future"):
        require_restorable(tmp_path)


def test_a_role_that_sees_nothing_may_not_count(db: None) -> None:
    found = settings.DATABASES["default"]
    url = f"postgresql://{found['USER']}:{found['PASSWORD']}@{found['HOST']}:{found['PORT']}/{found['NAME']}"
    with connect(url) as connection, pytest.raises(CannotCopy, match="would write an empty backup"):
        counts(connection)


def test_old_copies_go_by_number_and_age_and_nothing_else_goes(tmp_path: Path) -> None:
    for age in range(0, 100, 10):
        (tmp_path / name_at(NOW - timedelta(days=age))).touch()
    (tmp_path / "red-tally-mine.tar").touch()
    gone = prune(tmp_path, keep=3, days=45, now=NOW)
    assert [NOW - timedelta(days=age) for age in (50, 60, 70, 80, 90)] == [
        datetime.strptime(each.name[10:25], "%Y%m%dT%H%M%S").replace(tzinfo=UTC) for each in gone
    ]
    assert prune(tmp_path, keep=0, days=0, now=NOW + timedelta(days=1)) != []
    assert [each.name for each in sorted(tmp_path.iterdir())] == [name_at(NOW), "red-tally-mine.tar"]


def test_today_says_when_the_last_copy_is_older_than_the_workshop_wants(api: Api) -> None:
    def said() -> str:
        return str(api("GET", "/today")[1]["copies"])

    assert said() == "No backup of the record book has been made yet."
    made = datetime.now(UTC) - timedelta(days=3, hours=2)
    Copy.objects.create(made_at=made - timedelta(days=40), file="older.tar", size=1, rows=1)
    Copy.objects.create(made_at=made, file="newer.tar", size=1, rows=1)
    assert said() == ""
    ways = api("GET", "/session")[1]["workshop"]
    assert ways["copy_days"] == 7
    assert api("PUT", "/workshop/ways", {**ways, "copy_days": 2})[0] == 200
    assert said() == "The last backup of the record book is 3 days old."
    assert api("PUT", "/workshop/ways", {**ways, "copy_days": 0})[0] == 200
    assert said() == ""


def test_told_to_end_while_it_writes_leaves_nothing_half_written(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, db: None
) -> None:
    def slow(url: str, whole: Path, dump: Path) -> Manifest:
        dump.write_bytes(b"half of it")
        os.kill(os.getpid(), signal.SIGTERM)
        raise AssertionError("it went on")

    monkeypatch.setenv("RT_BACKUP_URL", "postgresql:///")
    monkeypatch.setattr("apps.copies.backup._write", slow)
    # What the process would do without us: die at once, as a shell's kill has it; here it may not.
    before = signal.signal(signal.SIGTERM, signal.SIG_IGN)
    try:
        with pytest.raises(SystemExit, match="nothing was written"):
            call_command("backup", "--into", str(tmp_path))
    finally:
        signal.signal(signal.SIGTERM, before)
    assert list(tmp_path.iterdir()) == []


def test_a_copy_dated_ahead_counts_for_none(
    tmp_path: Path, api: Api, monkeypatch: pytest.MonkeyPatch, db: None
) -> None:
    """A clock wrong once, ten years ahead, silenced the daily copy and Today’s warning for as long."""
    ahead = datetime.now(UTC) + timedelta(days=3650)
    Copy.objects.create(made_at=ahead, file="ahead.tar", size=1, rows=1)
    assert api("GET", "/today")[1]["copies"] == "No backup of the record book has been made yet."
    (tmp_path / name_at(ahead)).touch()
    made = []
    monkeypatch.setenv("RT_BACKUP_URL", "postgresql:///")
    monkeypatch.setattr(
        "apps.copies.management.commands.backup.back_up", lambda url, file: made.append(file) or _made(file)
    )
    call_command("backup", "--into", str(tmp_path), "--every", "24")
    call_command("backup", "--into", str(tmp_path), "--every", "24")
    assert len(made) == 1
    for age in (70, 80):
        (tmp_path / name_at(NOW - timedelta(days=age))).touch()
    gone = prune(tmp_path, keep=2, days=60, now=datetime.now(UTC))
    assert (tmp_path / name_at(ahead)).exists(), "it may be the only good one"
    assert [each.name for each in gone] == [name_at(NOW - timedelta(days=80))]


def _made(file: Path) -> Manifest:
    file.touch()
    return manifest_of(b"")


def test_what_a_killed_copy_left_goes_with_the_next_and_one_under_way_stays(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    left = tmp_path / ".red-tally-killed"
    left.mkdir()
    (left / "whole.tar").write_bytes(b"half of it")
    under_way: list[Path] = []

    def write(url: str, whole: Path, dump: Path) -> Manifest:
        under_way.extend(tmp_path.glob(".red-tally-*"))
        if len(under_way) == 1:
            back_up("", tmp_path / "second.tar")
            assert under_way[0].is_dir()
        whole.touch()
        return manifest_of(b"")

    monkeypatch.setattr("apps.copies.backup._write", write)
    monkeypatch.setattr("apps.copies.backup.verify", lambda file: None)
    back_up("", tmp_path / "first.tar")
    assert sorted(each.name for each in tmp_path.iterdir()) == ["first.tar", "second.tar"]
