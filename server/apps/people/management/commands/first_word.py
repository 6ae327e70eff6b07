"""Print a word with which the first workshop is begun in the browser; nothing where there is a workshop already."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from apps.people.first import new_word


class Command(BaseCommand):
    help = "Print a fresh one-time word for beginning the first workshop. Prints nothing once there is one."
    requires_system_checks = []

    def handle(self, *args: Any, **options: Any) -> None:
        if word := new_word():
            self.stdout.write(word)
