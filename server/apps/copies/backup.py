"""Write a backup: everything as it stands at one moment, with a manifest, read back before it counts as good."""

from __future__ import annotations

import fcntl
import io
import os
import re
import shutil
import subprocess
import tarfile
import tempfile
import time
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from pathlib import Path
from threading import Thread
from typing import IO, Final

from apps.copies.age import is_believed
from apps.copies.errors import CannotCopy
from apps.copies.manifest import DUMP, FORMAT, MANIFEST, Manifest, checksum, member, opened, read_manifest
from apps.copies.postgres import connect, counts, migrations, program, run

__all__ = ["NAME", "back_up", "copies_in", "prune", "verify"]

NAME: Final = re.compile(r"^red-tally-(\d{8}T\d{6})Z\.tar$")
_COPY: Final = re.compile(rb'^COPY public\.("?)(\w+)\1 .*FROM stdin;$')
LEVEL: Final = "5"
_HALF: Final = ".red-tally-"


def name_at(now: datetime) -> str:
    return f"red-tally-{now.astimezone(UTC):%Y%m%dT%H%M%S}Z.tar"


def back_up(url: str, file: Path) -> Manifest:
    """Write `file`, and read it back. `url` is of a role that row security does not hold back.

    Raises
    ------
    CannotCopy
        whatever stands in the way; then there is no file, and an earlier one of that name stays as it was.
    """
    folder = file.absolute().parent
    if not folder.is_dir():
        raise CannotCopy(f"There is no folder {folder}. Make it first.")
    try:
        _clear_leftovers(folder)
        with tempfile.TemporaryDirectory(dir=folder, prefix=_HALF) as made, _held(Path(made)):
            whole = Path(made) / "whole.tar"
            manifest = _write(url, whole, Path(made) / DUMP)
            verify(whole)
            whole.chmod(0o600)
            whole.replace(file)
    except OSError as error:
        raise CannotCopy(f"{file} cannot be written: {error.strerror or error}") from error
    return manifest


@contextmanager
def _held(made: Path) -> Iterator[None]:
    """Locked as long as this process lives: whoever finds it unlocked finds what a killed one left."""
    handle = os.open(made, os.O_RDONLY)
    try:
        fcntl.flock(handle, fcntl.LOCK_EX)
        yield
    finally:
        os.close(handle)


def _clear_leftovers(folder: Path) -> None:
    """What copies that were killed half way left behind."""
    for left in folder.glob(f"{_HALF}*"):
        if not left.is_dir():
            continue
        handle = os.open(left, os.O_RDONLY)
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
            shutil.rmtree(left, ignore_errors=True)
        except OSError:  # another copy is being written there now
            continue
        finally:
            os.close(handle)


def _write(url: str, whole: Path, dump: Path) -> Manifest:
    with connect(url) as connection:
        # What is counted and what is dumped are of one moment, whatever is entered meanwhile.
        connection.execute("set transaction isolation level repeatable read, read only")
        snapshot = connection.execute("select pg_export_snapshot()").fetchone()
        found, state = counts(connection), migrations(connection)
        words = ["--format=custom", f"--compress={LEVEL}", "--no-owner", "--no-privileges"]
        run(url, "pg_dump", *words, f"--snapshot={snapshot[0] if snapshot else ''}", f"--file={dump}")
        server = str(connection.info.server_version)
    with dump.open("rb") as written:
        sum_ = checksum(written)
    now = datetime.now(UTC).isoformat(timespec="seconds")
    manifest = Manifest(FORMAT, now, server, state, found, sum_, dump.stat().st_size)
    with whole.open("xb") as out:
        with tarfile.open(fileobj=out, mode="w") as archive:
            said = manifest.to_json()
            about = tarfile.TarInfo(MANIFEST)
            about.size, about.mtime = len(said), int(time.time())
            archive.addfile(about, io.BytesIO(said))
            archive.add(dump, DUMP)
        out.flush()
        os.fsync(out.fileno())
    return manifest


def verify(file: Path) -> Manifest:
    """The backup read back: its checksum holds, and its dump holds every row that was counted.

    Raises
    ------
    CannotCopy
        when it does not.
    """
    with opened(file) as archive:
        manifest = read_manifest(archive)
        if checksum(member(archive, DUMP)) != manifest.sha256:
            raise CannotCopy(f"{file} is damaged: its checksum does not hold. Take another copy.")
        held = _rows_in(member(archive, DUMP))
    short = {name: (n, held[name]) for name, n in manifest.counts.items() if held[name] != n}
    if short:
        said = ", ".join(f"{name}: {want} counted, {got} written" for name, (want, got) in short.items())
        raise CannotCopy(f"The backup does not hold what the database does ({said}). Nothing was kept.")
    return manifest


def _rows_in(dump: IO[bytes]) -> Counter[str]:
    """Rows by table in a dump, by reading all of it."""
    found: Counter[str] = Counter()
    with tempfile.TemporaryFile() as errors:
        words = [program("pg_restore"), "--data-only", "--file=-"]
        with subprocess.Popen(words, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=errors) as reading:
            assert reading.stdin is not None
            assert reading.stdout is not None
            Thread(target=_feed, args=(dump, reading.stdin), daemon=True).start()
            table = ""
            for line in reading.stdout:
                if table and line == b"\\.\n":
                    table = ""
                elif table:
                    found[table] += 1
                elif match := _COPY.match(line.rstrip(b"\n")):
                    table = match[2].decode()
        if reading.returncode:
            errors.seek(0)
            raise CannotCopy(f"The dump cannot be read back: {errors.read().decode(errors='replace').strip()[-500:]}")
    return found


def _feed(dump: IO[bytes], into: IO[bytes]) -> None:
    try:
        while block := dump.read(1 << 20):
            into.write(block)
    except BrokenPipeError:
        pass  # what it says of that stands in its errors
    finally:
        into.close()


def copies_in(folder: Path) -> list[tuple[datetime, Path]]:
    """Our copies in a folder, the newest first, with when they were made."""
    found = []
    for file in folder.iterdir():
        if match := NAME.match(file.name):
            found.append((datetime.strptime(match[1], "%Y%m%dT%H%M%S").replace(tzinfo=UTC), file))
    return sorted(found, reverse=True)


def prune(folder: Path, keep: int, days: int, now: datetime) -> list[Path]:
    """Delete copies beyond the newest `keep` that are older than `days`. What is not named like ours is left alone, and so is what is dated
    ahead: it is no newest one, and nobody knows how old it is."""
    ours = [(at, file) for at, file in copies_in(folder) if is_believed(at, now)]
    gone = [file for at, file in ours[max(1, keep) :] if now - at > timedelta(days=days)]
    for file in gone:
        file.unlink(missing_ok=True)
    return gone
