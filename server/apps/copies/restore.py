"""Bring a backup back into an empty database, and see that all of it came."""

from __future__ import annotations

import shutil
import tempfile
from pathlib import Path

from django.core.management import call_command
from django.db import connections
from django.db.migrations.loader import MigrationLoader

from apps.copies.backup import verify
from apps.copies.errors import CannotCopy
from apps.copies.manifest import DUMP, Manifest, member, opened
from apps.copies.postgres import connect, counts, environment, run, tables

__all__ = ["require_restorable", "restore"]


def require_restorable(file: Path) -> Manifest:
    """
    Raises
    ------
    CannotCopy
        a damaged backup, or one of a newer Red Tally.
    """
    manifest = verify(file)
    _require_no_newer(manifest)
    return manifest


def restore(file: Path, url: str, reader_url: str) -> Manifest:
    """Restore `file` into the empty database at `url` (Django's own, of the role that owns it), then bring its tables up to this version.

    `reader_url` is of the role that row security does not hold back, to count what came.

    Raises
    ------
    CannotCopy
        a damaged or newer backup, a database that is not empty, or one that did not hold everything afterwards.
    """
    manifest = require_restorable(file)
    with connect(url) as connection:
        there = tables(connection)
    if there:
        raise CannotCopy(
            f"The database already holds {len(there)} tables; a backup goes into an empty one. With our own cluster "
            "add --set-aside: what is there now is kept under another name."
        )
    with opened(file) as archive, tempfile.NamedTemporaryFile(suffix=".dump") as dump:
        shutil.copyfileobj(member(archive, DUMP), dump)
        dump.flush()
        words = ["--no-owner", "--no-privileges", "--exit-on-error", "--single-transaction"]
        run(url, "pg_restore", *words, f"--dbname={environment(url)['PGDATABASE']}", dump.name)
    with connect(reader_url) as connection:
        came = counts(connection)
    if came != manifest.counts:
        short = sorted(name for name, n in manifest.counts.items() if came.get(name) != n)
        raise CannotCopy(
            f"Not everything came: {', '.join(short)}. The database is not to be used; start with an empty one."
        )
    connections.close_all()
    call_command("migrate", verbosity=0)
    return manifest


def _on_disk() -> dict[tuple[str, str], object]:
    loader = MigrationLoader(None, load=False)
    loader.load_disk()
    return dict(loader.disk_migrations)


def _require_no_newer(manifest: Manifest) -> None:
    known = {f"{app}.{name}" for app, name in _on_disk()}
    newer = [each for each in manifest.migrations if each not in known]
    if newer:
        raise CannotCopy(
            f"This backup was made by a newer Red Tally (it knows {newer[-1]}). Bring this one up to date, then restore."
        )
