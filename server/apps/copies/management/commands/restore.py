"""Bring a backup back; tools/restore calls this."""

from __future__ import annotations

import os
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from apps.copies.restore import require_restorable, restore


class Command(BaseCommand):
    help = "Bring a backup back into an empty database."
    requires_system_checks = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)
        parser.add_argument("--check", action="store_true", help="only read the backup and say whether it is whole")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["check"]:
            found = require_restorable(options["file"])
            self.stdout.write(f"Whole: {found.rows} rows of {len(found.counts)} tables, made {found.made_at}.")
            return
        reader = os.environ.get("RT_BACKUP_URL", "")
        if not reader:
            raise CommandError(
                "Set RT_BACKUP_URL: a role with BYPASSRLS, for backups alone (docs/running.md, “Backups”)."
            )
        found = restore(options["file"], os.environ["RT_DATABASE_URL"], reader)
        self.stdout.write(f"Restored: {found.rows} rows of {len(found.counts)} tables, as of {found.made_at}.")
