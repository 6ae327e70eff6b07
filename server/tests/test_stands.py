"""What stands on a drum now is entered without a job: dated, guessed, or nobody knows; and Today has something to say at once."""

from __future__ import annotations

import uuid
from datetime import date, timedelta
from typing import Any

import pytest
from house import Api, House, make_drum, start_body

from apps.heads import lives
from apps.heads.models import Fitting
from apps.history.models import LogEntry, PitchRecord
from apps.register.models import Drum


@pytest.fixture
def bare(house: House) -> Drum:
    """A drum of which nothing is on record."""
    return make_drum(house.workshop, "WR-050", name="Bare", kind="snare", snare_bed=True, rods_batter=6, rods_resonant=6)  # fmt: skip


def say(api: Api, tag: str = "WR-050", **said: Any) -> tuple[int, Any]:
    return api("POST", f"/register/drums/{tag}/stands", {"id": str(uuid.uuid4()), **said})


def ago(days: int) -> str:
    return (date.today() - timedelta(days=days)).isoformat()


def test_heads_wires_and_pitches_as_found_stand_on_the_sheet(api: Api, bare: Drum) -> None:
    known = {"what": "single 10 coated", "dated": "known", "on": ago(500)}
    status, sheet = say(
        api, batter=known, resonant={"what": "snare side 3", "dated": "guessed", "months": 8}, wires={"what": "20 strands", "dated": "unknown"},
        batter_pitch="300 304 302 301 299 306", resonant_pitch="350",
    )  # fmt: skip
    assert status == 200, sheet
    batter, resonant = sheet["sides"]
    assert (batter["head"], batter["dated"], batter["months_old"]) == ("single 10 coated", "known", 16)
    assert (batter["mean_hz"], batter["spread_hz"]) == (302.0, 7.0)
    assert (resonant["dated"], resonant["months_old"] in (7, 8), resonant["spread_hz"]) == ("guessed", True, None)
    assert (sheet["wires"]["name"], sheet["wires"]["dated"]) == ("20 strands", "unknown")
    assert sheet["log"][0]["text"].startswith("What stands now: batter single 10 coated, since ")
    owed = [(item["kind"], item["tag"]) for item in api("GET", "/today")[1]["items"]]
    assert ("aged-head", "WR-050") in owed


def test_said_twice_it_stands_once(api: Api, bare: Drum) -> None:
    body = {"id": str(uuid.uuid4()), "batter": {"what": "single 10 coated"}, "batter_pitch": "300"}
    for _ in range(2):
        assert api("POST", "/register/drums/WR-050/stands", body)[0] == 200
    assert (Fitting.objects.filter(drum=bare).count(), PitchRecord.objects.filter(drum=bare).count()) == (1, 1)
    assert LogEntry.objects.filter(drum=bare, kind="stands").count() == 1


def test_a_day_that_becomes_known_is_set_right_and_another_head_ends_the_one_before(api: Api, bare: Drum) -> None:
    say(api, batter={"what": "single 10 coated"})
    say(api, batter={"what": "single 10 coated", "dated": "known", "on": ago(90)})
    assert [row.dated for row in Fitting.objects.filter(drum=bare)] == ["known"]
    status, sheet = say(api, batter={"what": "double 7+7 clear", "dated": "known", "on": ago(30)})
    assert sheet["sides"][0]["head"] == "double 7+7 clear"
    before = Fitting.objects.get(drum=bare, retired_at__isnull=False)
    assert (before.head, before.retired_because) == ("single 10 coated", "another one was found on the drum")
    status, answer = say(api, batter={"what": "mesh", "dated": "known", "on": ago(60)})
    assert (status, answer["code"]) == (409, "overlaps")


def test_while_a_job_is_on_it_its_record_is_the_jobs(api: Api, house: House) -> None:
    api("POST", "/bench/jobs", start_body(house.drum, stock_item=house.stock.pk))
    status, answer = say(api, house.drum.tag, batter={"what": "mesh"})
    assert (status, answer["code"]) == (409, "in_hand")
    assert say(api, house.drum.tag, resonant={"what": "single 10 clear"})[0] == 200


@pytest.mark.parametrize(
    ("said", "code"),
    [
        ({}, "nothing_said"),
        ({"batter": {"what": "mesh", "dated": "known"}}, "bad_date"),
        ({"batter": {"what": "mesh", "dated": "known", "on": ago(-3)}}, "bad_date"),
        ({"batter_pitch": "loud"}, "bad_pitch"),
    ],
)
def test_what_cannot_be_kept_is_refused_and_nothing_of_it_is(
    said: dict[str, Any], code: str, api: Api, bare: Drum
) -> None:
    status, answer = say(api, **said)
    assert (status in (409, 422), answer["code"]) == (True, code)
    assert not Fitting.objects.filter(drum=bare).exists()


def test_a_tom_has_no_wires_and_a_viewer_says_nothing(api: Api, house: House) -> None:
    assert say(api, house.drum.tag, wires={"what": "20 strands"})[1]["code"] == "no_wires"
    assert say(Api(house.viewer), house.drum.tag, batter={"what": "mesh"})[0] == 403


def test_a_head_nobody_knows_the_age_of_says_nothing_of_how_long_heads_last(api: Api, house: House, bare: Drum) -> None:
    say(api, batter={"what": "single 10 coated", "dated": "unknown"})
    groups = lives.known_of(house.workshop, fresh=True).lives
    assert not [group for group in groups if group.kind == "snare"]
    say(api, resonant={"what": "snare side 3", "dated": "guessed", "months": 5})
    assert [group.head for group in lives.known_of(house.workshop, fresh=True).lives if group.kind == "snare"] == ["snare side 3"]  # fmt: skip


def test_a_note_stands_in_the_history_without_a_job_once(api: Api, house: House, bare: Drum) -> None:
    body = {"id": str(uuid.uuid4()), "text": " strainer feels rough since the ferry "}
    for _ in range(2):
        assert api("POST", "/register/drums/WR-050/notes", body)[0] == 204
    (line,) = api("GET", "/register/drums/WR-050/sheet")[1]["log"]
    assert (line["kind"], line["text"], line["by"]) == ("note", "strainer feels rough since the ferry", "technician of wharf")  # fmt: skip
    assert api("POST", "/register/drums/WR-050/notes", {**body, "text": "  "})[0] == 422
    assert Api(house.viewer)("POST", "/register/drums/WR-050/notes", body)[0] == 403
