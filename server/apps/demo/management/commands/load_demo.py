"""Load the demo workshop; with --reset, throw it away first."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.hashers import make_password
from django.contrib.auth.models import User
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from apps.accounts.demo_accounts import ACCOUNTS, PASSWORD, Account
from apps.demo import scenario
from apps.demo.build import build_history
from apps.demo.callouts import callouts
from apps.demo.in_hand import jobs_in_hand, work_done
from apps.demo.removal import remove_workshop
from apps.demo.shelf import shelf
from apps.demo.walks import walks
from apps.people.first import installation
from apps.workshops.models import Membership, Workshop
from apps.workshops.scope import enter_workshop, without_trail


class Command(BaseCommand):
    help = "Load the Marrow Quay demo workshop. Does nothing when it is there already."
    requires_system_checks = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("--reset", action="store_true", help="throw the demo away and load it afresh")
        parser.add_argument(
            "--unasked", action="store_true", help="only into an empty database, and not where the demo was removed"
        )

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        found = Workshop.objects.filter(slug=scenario.SLUG).first()
        if found and not options["reset"]:
            return
        if options["unasked"] and (Workshop.objects.filter(demo=False).exists() or installation().demo_removed_at):
            return
        if found:
            remove_workshop(found)
        without_trail()
        workshop = Workshop.objects.create(
            name=scenario.NAME, slug=scenario.SLUG, bench_name=scenario.BENCH, copy_days=0, demo=True
        )
        enter_workshop(workshop.pk)
        password = make_password(PASSWORD)
        members = [_member(workshop, account, password) for account in ACCOUNTS]
        now = timezone.localtime()
        drums = build_history(workshop, now)
        work_done(drums, members, now)
        jobs_in_hand(drums, members, now)
        walks(drums, members, now)
        callouts(drums, members, now)
        shelf(drums, members, now)
        if options["verbosity"]:
            self.stdout.write(f"{scenario.NAME}: {len(drums)} drums loaded.")


def _member(workshop: Workshop, account: Account, password: str) -> Membership:
    user = User.objects.create(username=account.username, password=password)
    return Membership.objects.create(user=user, workshop=workshop, role=account.role, shown_name=account.shown_name)
