"""Two people change one drum: nothing either wrote is lost, and the history says who changed what."""

from __future__ import annotations

from typing import Any

import pytest
from house import Api, House

from apps.history.models import LogEntry
from apps.workshops.models import Membership


@pytest.fixture
def second(house: House) -> Api:
    from django.contrib.auth.models import User

    user = User.objects.create(username="bo")
    return Api(Membership.objects.create(user=user, workshop=house.workshop, role="technician", shown_name="Bo"))


def opened(api: Api) -> dict[str, Any]:
    return api("GET", "/register/drums/WR-001")[1]


def save(api: Api, seen: dict[str, Any], **mine: Any) -> tuple[int, Any]:
    return api("PUT", "/register/drums/WR-001", {**seen, **mine, "seen": seen})


def test_changes_in_different_fields_are_put_together(api: Api, second: Api) -> None:
    seen = opened(api)
    assert save(second, seen, place="stage", lost_batter=[2])[0] == 200
    status, stands = save(api, seen, name="Jenny Wren")
    assert status == 200
    assert (stands["name"], stands["place"], stands["lost_batter"]) == ("Jenny Wren", "stage", [2])


def test_where_both_wrote_both_are_shown_and_the_second_decides(api: Api, second: Api) -> None:
    seen = opened(api)
    save(second, seen, place="stage", note="thud")
    status, answer = save(api, seen, place="attic", name="Jenny Wren")
    assert (status, answer["code"]) == (409, "edited_meanwhile")
    assert answer["fields"] == {"place": "Bo wrote “stage” here meanwhile."}
    assert opened(api)["place"] == "stage"
    status, stands = save(api, opened(api), place="attic", name="Jenny Wren")
    assert (status, stands["place"], stands["note"]) == (200, "attic", "thud")


def test_the_same_change_twice_is_no_conflict(api: Api, second: Api) -> None:
    seen = opened(api)
    save(second, seen, place="stage")
    assert save(api, seen, place="stage")[0] == 200


def test_the_history_says_what_was_changed(api: Api, second: Api, house: House) -> None:
    save(second, opened(api), place="stage", rods_resonant=8, snare_bed=True)
    entry = LogEntry.objects.filter(drum=house.drum, kind="register").first()
    assert entry is not None
    assert entry.by_name == "Bo"
    assert (
        entry.text
        == "Changed: resonant rods from “6” to “8”; snare bed from “no” to “yes”; place from “net loft” to “stage”"
    )
    assert entry.record["changed"]["place"] == ["net loft", "stage"]
    count = LogEntry.objects.count()
    save(second, opened(api))
    assert LogEntry.objects.count() == count


def test_a_very_long_change_still_fits_the_history(api: Api, house: House) -> None:
    save(api, opened(api), name="n" * 60, shell="s" * 60, place="p" * 80, owner="o" * 80, kits=["k" * 80, "l" * 80])
    entry = LogEntry.objects.filter(drum=house.drum, kind="register").first()
    assert entry is not None
    assert len(entry.text) == 300
