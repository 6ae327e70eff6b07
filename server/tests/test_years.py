"""What keeps an installation going for years: what ran out is tidied away, and how much room it takes is said."""

from __future__ import annotations

from datetime import timedelta

from axes.models import AccessAttempt
from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.core.management import call_command
from django.db import connection
from django.utils import timezone
from house import Api, House

from apps.audit.models import Change
from apps.copies.tidy import tidy
from apps.people.links import make_link
from apps.people.models import Link
from apps.workshops.models import Membership


def test_what_ran_out_goes_and_nothing_else(house: House) -> None:
    api = Api(house.technician)
    assert api("GET", "/today")[0] == 200
    now = timezone.now()
    Session.objects.create(session_key="old", session_data="", expire_date=now - timedelta(seconds=1))
    for days in (29, 31):
        made = AccessAttempt.objects.create(username=f"n{days}", failures_since_start=1)
        AccessAttempt.objects.filter(pk=made.pk).update(attempt_time=now - timedelta(days=days))
    for days in (89, 91):
        link, _ = make_link(Link.Kind.JOIN, workshop=house.workshop, role="viewer")
        Link.objects.filter(pk=link.pk).update(made_at=now - timedelta(days=days), until=now - timedelta(days=days - 7))
    house.enter()
    before = Change.objects.count()
    assert tidy() == {
        "sessions that ran out": 1,
        "tries at sign-in": 1,
        "links used or too old": 1,
        "archives that never came in whole": 0,
    }
    assert api("GET", "/today")[0] == 200
    assert Change.objects.count() == before + 1, "the trail stays, and says that the link went"
    call_command("tidy", verbosity=0)


def test_room_is_said_to_owners(house: House) -> None:
    Membership.objects.filter(pk=house.technician.pk).update(role="owner")
    status, found = Api(house.technician)("GET", "/machine/room")
    with connection.cursor() as cursor:
        cursor.execute("select pg_database_size(current_database())")
        (size,) = cursor.fetchone()
    assert status == 200
    assert abs(found["bytes"] - size) < 1_000_000
    assert sum(each["bytes"] for each in found["parts"]) == found["bytes"]
    assert found["last_copy"] is None
    assert Api(house.viewer)("GET", "/machine/room")[0] == 403
    assert User.objects.count() == 2
