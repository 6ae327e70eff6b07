"""Make a workshop and its first member, or add a member to one that is named as existing."""

from __future__ import annotations

import getpass
import os
from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError
from django.db import transaction

from apps.register.models import Owner, Place
from apps.workshops.errors import Refused
from apps.workshops.models import Membership, Workshop
from apps.workshops.names import make_workshop
from apps.workshops.scope import enter_workshop


class Command(BaseCommand):
    help = "Make a workshop with its owner, or with --join add a member to one that is there. The password is asked for, or read from RT_NEW_PASSWORD."
    requires_system_checks = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("name", help="the workshop's name")
        parser.add_argument("--user", required=True, help="name to sign in with")
        parser.add_argument("--shown", required=True, help="name shown in the history")
        parser.add_argument("--join", action="store_true", help="the workshop is there already: add a member to it")
        parser.add_argument(
            "--role",
            choices=Membership.Role.values,
            help="without it the owner of a new workshop, a technician of one that is there",
        )

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        password = os.environ.get("RT_NEW_PASSWORD") or getpass.getpass("Password: ")
        try:
            validate_password(password)
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from None
        if User.objects.filter(username__iexact=options["user"]).exists():
            raise CommandError(f"There is a “{options['user']}” already; choose another name to sign in with.")
        workshop = self._joined(options["name"]) if options["join"] else self._made(options["name"])
        enter_workshop(workshop.pk)
        if not options["join"]:
            Place.objects.create(workshop=workshop, name="workshop")
            Owner.objects.create(workshop=workshop, name=workshop.name[:80])
        role = options["role"] or (Membership.Role.TECHNICIAN if options["join"] else Membership.Role.OWNER)
        user = User.objects.create_user(options["user"], password=password)
        Membership.objects.create(user=user, workshop=workshop, role=role, shown_name=options["shown"])
        self.stdout.write(f"{options['shown']} can sign in to {workshop.name} as {role}.")

    def _made(self, name: str) -> Workshop:
        try:
            return make_workshop(name)
        except Refused as error:
            raise CommandError(f"{error.message} To add a person to a workshop that is there, say --join.") from None

    def _joined(self, name: str) -> Workshop:
        found = Workshop.objects.filter(name=name).first()
        if found is None:
            raise CommandError(f"There is no workshop “{name}” to join. Write its name exactly as it is.")
        return found
