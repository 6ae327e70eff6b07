"""A tag is one tag in capitals and in small letters, whoever types it and wherever."""

from __future__ import annotations

import importlib
import uuid
from typing import Any

import pytest
from django.apps import apps
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import IntegrityError, connection, transaction
from house import Api, House, make_drum, start_body
from test_register import GOOD

from apps.history.models import LogEntry
from apps.register.lookup import drums_by_tag
from apps.register.models import Drum
from apps.stock.models import Loan

LIST = "tag,name,kind,size,rods\nwr-001,Jenny,rack tom,12 x 8,6\n"


def test_the_register_takes_no_second_drum_that_differs_by_capitals(api: Api, house: House) -> None:
    status, answer = api("POST", "/register/drums", {**GOOD, "tag": "wr-001"})
    assert (status, answer["code"]) == (422, "tag_taken")
    with pytest.raises(IntegrityError, match="drum_tag_unique"), transaction.atomic():
        make_drum(house.workshop, "wR-001")
    assert api("PUT", "/register/drums/WR-001", {**api("GET", "/register/drums/WR-001")[1], "tag": "wr-001"})[0] == 200
    assert Drum.objects.get().tag == "wr-001", "its own label may be written otherwise"


@pytest.mark.parametrize(
    "path",
    [
        "/register/drums/wr-001", "/register/drums/wr-001/sheet", "/register/drums/wr-001/stands", "/heads/fitting/wr-001/batter",
        "/photos/drum/wr-001", "/planned?tag=wr-001", "/sound/wr-001",
    ],
)  # fmt: skip
def test_pages_of_a_drum_open_by_its_tag_in_any_letters(api: Api, house: House, path: str) -> None:
    assert api("GET", path) == api("GET", path.replace("wr-", "WR-"))
    assert api("GET", path)[0] == 200


def test_a_job_a_walk_and_a_kit_are_of_the_drum_meant(api: Api, house: House) -> None:
    body = start_body(house.drum, "settling-check") | {"tag": "wr-001"}
    assert api("POST", "/bench/jobs", body)[1]["tag"] == "WR-001"
    walk = api("POST", "/inspect/walks", {"id": str(uuid.uuid4()), "tags": ["wr-001", "WR-001"]})
    assert walk[0] == 201, walk
    assert [each["tag"] for each in walk[1]["drums"]] == ["WR-001"]
    kit = {"name": "dune kit", "drums": [{"tag": "wr-001"}]}
    status, made = api("POST", "/kits", kit)
    assert status == 201, made
    twice = {"name": "other kit", "drums": [{"tag": "wr-001"}, {"tag": "WR-001"}]}
    assert api("POST", "/kits", twice)[1]["code"] == "twice"


def test_a_loan_written_in_small_letters_is_linked(api: Api, house: House) -> None:
    lender = make_drum(house.workshop, "WR-002", name="Finch")
    body = {"id": str(uuid.uuid4()), "what": "tension rod", "number": 1, "from_tag": "wr-002", "to_tag": "wr-001"}
    status, answer = api("POST", "/shelf/loans", body)
    assert status == 204, answer
    assert Loan.objects.get().from_drum == lender


def test_a_list_brings_the_drum_that_is_there_up_to_date(api: Api, house: House) -> None:
    answer = api.client.post("/api/register/sheet", {"sheet": SimpleUploadedFile("drums.csv", LIST.encode())})
    assert (answer.status_code, answer.json()["new"], answer.json()["changed"]) == (200, 0, 1)
    assert [(each.tag, each.name) for each in Drum.objects.all()] == [("WR-001", "Jenny")]


def test_found_under_the_tag_that_was_asked_for(house: House) -> None:
    make_drum(house.workshop, "Ömega-1")
    found = drums_by_tag(["wr-001", " WR-001", "öMEGA-1", "none"])
    assert {asked: drum.tag for asked, drum in found.items()} == {
        "wr-001": "WR-001", " WR-001": "WR-001", "öMEGA-1": "Ömega-1",
    }  # fmt: skip


def test_the_migration_tells_apart_what_collides_and_says_how(house: House, capsys: Any) -> None:
    with connection.cursor() as cursor:
        cursor.execute("drop index drum_tag_unique")
    for tag in ("wr-001", "Wr-001", "wr-001-2"):
        make_drum(house.workshop, tag)
    migration = importlib.import_module("apps.register.migrations.0009_one_tag_in_any_letters")
    migration.tell_apart(apps, None)
    house.enter()
    assert [each.tag for each in Drum.objects.order_by("pk")] == ["WR-001", "wr-001-3", "Wr-001-4", "wr-001-2"]
    assert "wr-001 (Wren) is wr-001-3 now; WR-001 keeps its tag." in capsys.readouterr().out
    told = LogEntry.objects.filter(drum__tag="wr-001-3").get()
    assert told.text.startswith("Its tag was wr-001")
