"""Write a backup of everything; tools/backup calls this."""

from __future__ import annotations

import os
import signal
import sys
from argparse import ArgumentParser
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import DatabaseError

from apps.copies.age import is_believed
from apps.copies.backup import back_up, copies_in, name_at, prune
from apps.copies.manifest import Manifest
from apps.copies.models import Copy


class Command(BaseCommand):
    help = "Write a backup of everything into FILE, or a dated one into a folder."
    requires_system_checks = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", nargs="?", help="the file to write")
        parser.add_argument("--into", help="a folder that gets a dated copy instead")
        parser.add_argument("--keep", type=int, default=14, help="of the dated copies the newest so many stay (14)")
        parser.add_argument("--days", type=int, default=60, help="others go once they are older than this (60)")
        parser.add_argument(
            "--every", type=float, metavar="HOURS", help="only where the newest copy is older than this"
        )

    def handle(self, *args: Any, **options: Any) -> None:
        url = os.environ.get("RT_BACKUP_URL", "")
        if not url:
            raise CommandError(
                "Set RT_BACKUP_URL: a role with BYPASSRLS, for backups alone (docs/running.md, “Backups”)."
            )
        if bool(options["file"]) == bool(options["into"]):
            raise CommandError("Name a file to write, or a folder with --into.")
        now = datetime.now(UTC)
        folder = Path(options["into"]) if options["into"] else None
        if folder:
            folder.mkdir(mode=0o700, parents=True, exist_ok=True)
            newest = next((at for at, _ in copies_in(folder) if is_believed(at, now)), None)
            if options["every"] and newest and now - newest < timedelta(hours=options["every"]):
                return
        file = folder / name_at(now) if folder else Path(options["file"])
        before = signal.signal(signal.SIGTERM, lambda *_: sys.exit("Told to end: nothing was written."))
        try:  # so that a half-written copy goes too
            made = back_up(url, file)
        finally:
            signal.signal(signal.SIGTERM, before)
        self._remember(file, made, now)
        self.stdout.write(f"{file}: {made.rows} rows of {len(made.counts)} tables, read back and complete.")
        for gone in prune(folder, options["keep"], options["days"], now) if folder else []:
            self.stdout.write(f"{gone.name} was old and is deleted.")

    def _remember(self, file: Path, made: Manifest, now: datetime) -> None:
        """So that Today knows how old the last good copy is. The copy counts even where this cannot be written."""
        try:
            Copy.objects.create(made_at=now, file=str(file.absolute())[:300], size=file.stat().st_size, rows=made.rows)
        except DatabaseError as error:
            self.stderr.write(f"The copy is good, but its date could not be put into the record book: {error}")
