"""Delete what ran out: sessions, old tries at sign-in, links. `./start` does it daily; elsewhere let a timer call it."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from apps.copies.tidy import tidy


class Command(BaseCommand):
    help = "Delete sessions that ran out, tries at sign-in older than 30 days, and links gone for 90. Records are never touched."
    requires_system_checks = []

    def handle(self, *args: Any, **options: Any) -> None:
        for words, count in tidy().items():
            if options["verbosity"]:
                self.stdout.write(f"{count} {words}")
