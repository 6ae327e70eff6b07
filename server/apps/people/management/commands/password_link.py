"""Print a link with which somebody sets a new password: for an owner who forgot theirs, by who runs the machine."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError

from apps.people.links import make_password_link


class Command(BaseCommand):
    requires_system_checks = []
    help = (
        "Print the path of a link with which this person sets a new password, once; a second step is taken off by it."
    )

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("username")

    def handle(self, *args: Any, **options: Any) -> None:
        user = User.objects.filter(username__iexact=options["username"]).first()
        if user is None:
            raise CommandError(f"Nobody signs in as “{options['username']}”. Check the spelling.")
        _, token = make_password_link(user, made_by_name="whoever runs this machine", second_step_off=True)
        self.stdout.write(f"/reset#{token}")
