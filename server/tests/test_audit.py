"""The audit trail: every change to records, people and settings, by whom, whatever part of the server made it."""

from __future__ import annotations

import csv
import io
import uuid
from typing import Any

import pytest
from django.apps import apps
from django.contrib.auth.models import User
from django.db import connection
from house import Api, House, make_drum

from apps.audit.followed import FOLLOWED, NOT_FOLLOWED
from apps.audit.models import Change
from apps.demo.removal import remove_workshop
from apps.people import first
from apps.register.models import Drum, Kit, KitDrum
from apps.workshops.models import Membership, Workshop
from apps.workshops.scope import without_trail

OURS = {
    "workshops",
    "people",
    "register",
    "heads",
    "followups",
    "bench",
    "hearing",
    "callouts",
    "photos",
    "copies",
    "history",
    "planned",
    "stock",
    "inspecting",
    "audit",
    "bringing",
}
"""Apps whose tables tell of a workshop; sign-in is nobody's record but the person's own."""


@pytest.fixture
def owner(house: House) -> Membership:
    user = User.objects.create_user("wharf-owner", password="low-tide-by-noon")
    made = Membership.objects.create(user=user, workshop=house.workshop, role="owner", shown_name="Ora Quill")
    Change.objects.all().delete()
    return made


@pytest.fixture
def own(owner: Membership) -> Api:
    return Api(owner)


def trail(own: Api, query: str = "") -> list[dict[str, Any]]:
    status, answer = own("GET", f"/changes{query}")
    assert status == 200, answer
    return list(answer["changes"])


def test_a_person_is_told_by_name_and_role_not_by_a_number(own: Api, house: House) -> None:
    Membership.objects.create(user=User.objects.create(username="kit"), workshop=house.workshop, role="viewer", shown_name="Kit Rowe")  # fmt: skip
    (made,) = trail(own)
    assert [(line["field"], line["now"]) for line in made["lines"]] == [("role", "viewer")]


def test_every_table_is_followed_or_says_why_not() -> None:
    told = {model._meta.db_table for model in apps.get_models() if model._meta.app_label in OURS} - {
        "people_installation"
    }
    reasons = [table for tables in NOT_FOLLOWED.values() for table in tables]
    assert told == set(FOLLOWED) | set(reasons)
    assert len(reasons) == len(set(reasons))
    assert not set(FOLLOWED) & set(reasons)


def test_the_database_follows_what_is_said_to_be_followed(db: None) -> None:
    with connection.cursor() as cursor:
        cursor.execute(
            "select tgrelid::regclass::text, encode(tgargs, 'escape') from pg_trigger where tgname = 'audit_write'"
        )
        found = {table: tuple(said.split("\\000")[:3]) for table, said in cursor.fetchall()}
    assert found == {table: (each.what, each.about, each.but) for table, each in FOLLOWED.items()}


def test_a_drum_edited_says_who_and_what_stood_there(own: Api, house: House) -> None:
    kit = Kit.objects.create(workshop=house.workshop, name="tide kit")
    KitDrum.objects.create(workshop=house.workshop, drum=house.drum, kit=kit)
    Change.objects.all().delete()
    form = own("GET", "/register/drums/WR-001")[1]
    edit = {**form, "name": "Rook", "depth": "9", "place": "slipway", "seen": form}
    assert own("PUT", "/register/drums/WR-001", edit)[0] == 200
    assert {each["what"] for each in trail(own)} == {"drum", "place"}, "a kit it stays in is not touched"
    made, changed = (next(each for each in trail(own) if each["did"] == did) for did in ("made", "changed"))
    assert (made["what"], made["named"], made["by"]) == ("place", "slipway", "Ora Quill")
    assert (changed["what"], changed["named"], changed["tag"], changed["by"]) == (
        "drum",
        "WR-001 Rook",
        "WR-001",
        "Ora Quill",
    )
    assert {(each["field"], each["was"], each["now"]) for each in changed["lines"]} == {
        ("name", "Wren", "Rook"), ("depth", "8 in", "9 in"), ("place", "net loft", "slipway"),
    }  # fmt: skip


def test_people_and_settings_are_in_it(own: Api, house: House) -> None:
    ways = own("GET", "/session")[1]["workshop"]
    assert own("PUT", "/workshop/ways", {**ways, "check_after_days": 4})[0] == 200
    own("PUT", f"/people/members/{house.viewer.pk}", {"role": "technician", "shown_name": house.viewer.shown_name})
    address = own("POST", "/people/invitations", {"role": "viewer", "shown_name": "Kit Rowe"})[1]["address"]
    joined = {
        "token": address.split("#")[1],
        "username": "kit",
        "shown_name": "Kit Rowe",
        "password": "low-tide-by-noon",
    }
    assert Api(None)("POST", "/people/links/join", joined)[0] == 200
    own("DELETE", f"/people/members/{house.technician.pk}")
    told = [(each["by"], each["what"], each["did"], each["named"]) for each in reversed(trail(own))]
    assert told == [
        ("Ora Quill", "the workshop and its ways", "changed", "Wharf"),
        ("Ora Quill", "person", "changed", "viewer of wharf"),
        ("Ora Quill", "invitation or link", "made", "Kit Rowe, join"),
        ("Kit Rowe", "person", "made", "Kit Rowe"),
        ("Kit Rowe", "invitation or link", "changed", "Kit Rowe, join"),
        ("Ora Quill", "person", "removed", "technician of wharf"),
    ]
    assert address.split("#")[1] not in str(list(Change.objects.values()))
    assert "digest" not in str(list(Change.objects.values()))


def test_what_is_done_past_the_app_is_in_it_too(own: Api, house: House) -> None:
    """However a row is changed: by one statement on many rows, or by hand in the database."""
    with connection.cursor() as cursor:
        cursor.execute("select set_config('app.person', '', true), set_config('app.person_name', '', true)")
        cursor.execute("update register_drum set note = 'by hand'")
    Drum.objects.update(note="by one statement")
    newest, before = trail(own)[:2]
    assert newest["lines"] == [{"field": "note", "was": "by hand", "now": "by one statement"}]
    assert (before["by"], before["lines"][0]["now"]) == ("", "by hand")
    assert own("GET", "/changes?by=the machine")[1]["changes"][0]["named"] == "WR-001 Wren"


def test_what_changes_nothing_is_not_in_it(own: Api, house: House) -> None:
    Drum.objects.update(search="something else")
    house.drum.save()
    assert trail(own) == []


def test_it_is_read_page_by_page_and_narrowed(own: Api, house: House) -> None:
    for n in range(65):
        Kit.objects.create(workshop=house.workshop, name=f"kit {n:02}")
    make_drum(house.workshop, "WR-777", name="Teal")
    answer = own("GET", "/changes")[1]
    assert (len(answer["changes"]), answer["more"], answer["changes"][0]["named"]) == (60, True, "WR-777 Teal")
    rest = own("GET", f"/changes?before={answer['changes'][-1]['id']}")[1]
    assert (rest["more"], rest["changes"][-1]["named"]) == (False, "kit 00")
    assert {each["what"] for each in trail(own, "?what=drum")} == {"drum"}
    assert [each["named"] for each in trail(own, "?text=kit 07")] == ["kit 07"]
    assert trail(own, "?by=Nobody") == []


def test_other_workshops_and_other_roles_do_not_read_it(own: Api, house: House, other: House) -> None:
    Drum.objects.update(note="of the wharf alone")
    Membership.objects.filter(pk=other.technician.pk).update(role="owner")
    assert "of the wharf alone" not in str(trail(Api(other.technician)))
    for each in (house.technician, house.viewer):
        assert Api(each)("GET", "/changes")[0] == 403
        assert Api(each)("GET", "/changes/trail.csv")[0] == 403


def test_it_goes_out_as_a_sheet_that_runs_nothing(own: Api, house: House) -> None:
    Drum.objects.update(note="=1+1")
    answer = own.client.get("/api/changes/trail.csv")
    rows = list(csv.DictReader(io.StringIO(b"".join(answer.streaming_content).decode())))
    assert [(row["what"], row["which"], row["field"], row["now"]) for row in rows] == [
        ("drum", "WR-001 Wren", "note", "'=1+1")
    ]


def test_a_first_workshop_begins_its_own_trail(db: None) -> None:
    body = {
        "word": first.new_word(),
        "workshop": "Loft",
        "username": "petra",
        "shown_name": "Petra Lind",
        "password": "low-tide-by-noon",
    }
    api = Api(None)
    assert api("POST", "/people/first", body)[0] == 200
    told = {(each["by"], each["what"], each["did"]) for each in api("GET", "/changes")[1]["changes"]}
    assert told == {
        ("Petra Lind", what, "made") for what in ("the workshop and its ways", "place", "owner of drums", "person")
    }


def test_a_workshop_removed_takes_its_trail_with_it(house: House, other: House) -> None:
    assert Change.objects.exists()
    remove_workshop(Workshop.objects.get(pk=house.workshop.pk))
    with connection.cursor() as cursor:
        cursor.execute("set constraints all immediate")
    assert not Change.objects.exists()


def test_a_person_deleted_leaves_their_name(own: Api, owner: Membership, house: House) -> None:
    own("POST", "/register/names/place", {"name": "net loft", "to": "sail loft"})
    house.enter()
    User.objects.get(pk=owner.user_id).delete()
    house.enter()
    change = Change.objects.filter(what="place").latest("pk")
    assert (change.by_id, change.by_name) == (None, "Ora Quill")


def test_a_load_of_thousands_can_go_without(house: House) -> None:
    without_trail()
    before = Change.objects.count()
    Kit.objects.create(workshop=house.workshop, name=str(uuid.uuid4()))
    assert Change.objects.count() == before
