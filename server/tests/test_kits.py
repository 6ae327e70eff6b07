"""Kits over HTTP: put together, planned, their jobs made; nothing of another workshop, nothing twice."""

from __future__ import annotations

import json
import uuid
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from archived import empty_workshop, taken, written
from django.utils import timezone
from house import INCH, Api, House, make_drum, make_house, start_body
from pytest_django import DjangoAssertNumQueries

from apps.archive.tables import LATER, LATER_SETTINGS, LATER_TABLES
from apps.heads.models import Fitting
from apps.history.models import LogEntry, PitchRecord
from apps.planned.models import PlannedJob
from apps.register.models import Drum, Kit, KitDrum
from apps.workshops.scope import enter_workshop
from drumwork.commands.sound_files import write_sound
from drumwork.simulated.kit import SimulatedKit

TOMS = (("WR-010", "Siskin", 10, 251.0), ("WR-012", "Linnet", 12, 211.0), ("WR-013", "Serin", 13, 205.0))


def read(drum: Drum, side: str, hz: float, days: int = 1) -> None:
    PitchRecord.objects.create(
        workshop=drum.workshop, drum=drum, side=side, at=timezone.now() - timedelta(days=days), mean_hz=hz
    )


@pytest.fixture
def toms(house: House) -> list[Drum]:
    """Three toms as they were read yesterday; Linnet and Serin lie so near that they sing at each other."""
    house.enter()
    made = []
    for tag, name, inches, hz in TOMS:
        drum = make_drum(
            house.workshop, tag, name=name, diameter_m=inches * INCH, wanted_batter_hz=hz, wanted_resonant_hz=hz * 1.1
        )
        read(drum, "batter", hz)
        read(drum, "resonant", hz * 1.1)
        made.append(drum)
    return made


def body(*tags: str, **more: Any) -> dict[str, Any]:
    return {"name": "dune kit", "drums": [{"tag": tag} for tag in tags], **more}


@pytest.fixture
def kit(toms: list[Drum], api: Api) -> int:
    status, answer = api("POST", "/kits", body(*(each.tag for each in toms), occasion="dune fair", at="big tent"))
    assert status == 201, answer
    return int(answer["id"])


def jobs_of(plan: dict[str, Any]) -> dict[str, Any]:
    heads = [
        {"tag": place["tag"], "side": head["side"], "hz": head["hz"], "job": head["job"], "why": head["words"]}
        for place in plan["places"]
        for head in place["heads"]
        if any(each["job"] for each in place["heads"])
    ]
    return {"id": str(uuid.uuid4()), "heads": heads}


def test_a_kit_stands_as_it_was_read(kit: int, api: Api) -> None:
    status, found = api("GET", f"/kits/{kit}")
    assert status == 200
    assert [each["name"] for each in found["drums"]] == ["Siskin", "Linnet", "Serin"]
    siskin = found["drums"][0]
    assert [(each["side"], round(each["now_hz"])) for each in siskin["heads"]] == [("batter", 251), ("resonant", 276)]
    assert siskin["way_cents"] == pytest.approx(165.0, abs=0.1)  # 1200 log2 1.1
    assert siskin["note_hz"] < siskin["heads"][0]["now_hz"]
    assert [(each["name"], each["drums"]) for each in api("GET", "/kits")[1]] == [
        ("dune kit", ["Siskin", "Linnet", "Serin"])
    ]


def test_only_what_was_read_since_the_head_was_fitted_counts(kit: int, toms: list[Drum], api: Api) -> None:
    Fitting.objects.create(
        workshop=toms[0].workshop, drum=toms[0], side="batter", head="single 10 coated", fitted_at=timezone.now()
    )
    head = api("GET", f"/kits/{kit}")[1]["drums"][0]["heads"][0]
    assert head["now_hz"] is None
    read(toms[0], "batter", 244.0, days=0)
    assert api("GET", f"/kits/{kit}")[1]["drums"][0]["heads"][0]["now_hz"] == pytest.approx(244.0)


def test_drums_that_sing_are_parted_and_the_jobs_are_there_once(kit: int, api: Api, house: House) -> None:
    plan = api("POST", f"/kits/{kit}/plan", {"apart": 60})[1]
    assert plan["headline"] == "Best there is"
    assert {plan["crowded"][0]["one"], plan["crowded"][0]["other"]} == {"WR-012", "WR-013"}
    asked = jobs_of(plan)
    assert plan["jobs"] == sum(each["job"] for each in asked["heads"]) > 0
    for _ in range(2):  # the answer was lost once, and it is sent again
        status, made = api("POST", f"/kits/{kit}/jobs", asked)
        assert (status, len(made["planned"])) == (200, plan["jobs"])
    house.enter()
    rows = list(PlannedJob.objects.filter(state="open"))
    assert [row.work for row in rows] == ["another-pitch"] * plan["jobs"]
    assert {row.due_on for row in rows} == {timezone.localdate()}
    assert rows[0].why.startswith("dune kit: ")
    for head in asked["heads"]:
        drum = Drum.objects.get(tag=head["tag"])
        wanted = drum.wanted_batter_hz if head["side"] == "batter" else drum.wanted_resonant_hz
        assert wanted == pytest.approx(head["hz"], abs=0.01)
    lines = LogEntry.objects.filter(kind="targets", text__startswith="Usual targets for dune kit")
    assert lines.count() == len({each["tag"] for each in asked["heads"]})


def test_once_the_jobs_are_done_nothing_more_is_asked(kit: int, api: Api, house: House) -> None:
    plan = api("POST", f"/kits/{kit}/plan", {"apart": 60})[1]
    house.enter()
    for place in plan["places"]:
        for head in place["heads"]:
            read(Drum.objects.get(tag=place["tag"]), head["side"], head["hz"], days=0)
    again = api("POST", f"/kits/{kit}/plan", {"apart": 60})[1]
    assert (again["headline"], again["jobs"], again["crowded"]) == ("Leave it as it is", 0, [])


def test_the_wish_is_kept_and_a_drum_can_stay_or_have_its_note(kit: int, api: Api) -> None:
    wish = {
        "shape": "low-and-open",
        "step": "major third",
        "stays": ["WR-010"],
        "notes": {"WR-013": "C3"},
        "against": ["55 Hz"],
    }
    assert api("PUT", f"/kits/{kit}/wish", wish)[0] == 204
    kept = api("GET", f"/kits/{kit}")[1]["wish"]
    assert {name: kept[name] for name in wish} == wish
    plan = api("POST", f"/kits/{kit}/plan", {"stays": ["WR-010"], "notes": {"WR-013": "C3"}})[1]
    places = {each["tag"]: each for each in plan["places"]}
    assert [each["words"] for each in places["WR-010"]["heads"]] == ["stays", "stays"]
    assert places["WR-013"]["note_hz"] == pytest.approx(
        130.81, rel=0.002
    )  # C3 by twelve equal steps from A4 = 440 (ISO 16)
    assert api("POST", f"/kits/{kit}/plan", {"stays": ["gone"], "notes": {"gone": "C3"}})[0] == 200


def test_two_heads_by_another_school_for_this_kit(kit: int, api: Api) -> None:
    plan = api("POST", f"/kits/{kit}/plan", {"above": {"WR-010": "minor third"}})[1]
    batter, resonant = (each["hz"] for each in plan["places"][0]["heads"])
    assert resonant / batter == pytest.approx(2 ** (3 / 12), rel=1e-4)


@pytest.mark.parametrize(
    ("wish", "status", "says"),
    [
        ({"step": "a mile"}, 422, "Give an interval by name"),
        ({"step": "9000"}, 422, "up to two octaves"),
        ({"against": ["loud"]}, 422, "pitch"),
        ({"notes": {"WR-010": "high"}}, 422, "pitch"),
        ({"apart": -1}, 422, ""),
        ({"tolerance": 1e400}, 400, ""),  # no number in JSON
        ({"above": {"WR-010": "5000"}}, 422, "Choose another school"),
        ({"apart": 400, "stays": ["WR-010", "WR-012", "WR-013"]}, 200, "It cannot all be"),
    ],
)
def test_what_cannot_be_read_or_held_is_told(kit: int, api: Api, wish: dict[str, Any], status: int, says: str) -> None:
    found, answer = api("POST", f"/kits/{kit}/plan", wish)
    assert found == status, answer
    assert says.lower() in json.dumps(answer, ensure_ascii=False).lower()


def test_a_kit_of_what_cannot_be_reckoned_says_so(house: House, api: Api) -> None:
    house.enter()
    make_drum(house.workshop, "WR-070", name="Rope", kind="rope-bass", rods_batter=0, rods_resonant=0, badge="none")
    made = api("POST", "/kits", body("WR-070"))[1]
    assert made["drums"][0]["left_out"].startswith("on a rope")
    status, answer = api("POST", f"/kits/{made['id']}/plan", {})
    assert (status, answer["code"]) == (422, "no_drums")
    empty = api("POST", "/kits", {"name": "empty", "drums": []})[1]
    assert api("POST", f"/kits/{empty['id']}/plan", {})[0] == 422


def test_one_drum_alone_can_be_planned(house: House, api: Api) -> None:
    made = api("POST", "/kits", body("WR-001"))[1]
    status, plan = api("POST", f"/kits/{made['id']}/plan", {"shape": "low-and-open"})
    assert status == 200
    assert plan["places"][0]["heads"][0]["words"] == "to be read first"
    assert plan["steps"] == []


def test_a_drum_on_the_bench_or_without_a_rod_or_in_repair_is_told_of(toms: list[Drum], kit: int, api: Api) -> None:
    assert api("POST", "/bench/jobs", start_body(toms[0], "settling-check", stock_item=None))[0] == 201
    Drum.objects.filter(pk=toms[1].pk).update(lost_resonant=[3], state="out")
    Drum.objects.filter(pk=toms[2].pk).update(state="repair")
    siskin, linnet, serin = api("GET", f"/kits/{kit}")[1]["drums"]
    assert siskin["notes"][0].startswith("on the bench now")
    assert linnet["notes"] == [
        "rod 3 of its resonant is missing: fetch it first",
        "out: its jobs wait until it is back",
    ]
    assert serin["left_out"].startswith("in repair")
    plan = api("POST", f"/kits/{kit}/plan", {"notes": {"WR-010": "E3"}})[1]
    made = api("POST", f"/kits/{kit}/jobs", jobs_of(plan))[1]
    assert made["notes"] == ["Siskin is on the bench: close that job first, then its new pitch."]


def test_a_pitch_no_film_should_carry_makes_no_job_at_all(kit: int, toms: list[Drum], api: Api, house: House) -> None:
    Fitting.objects.create(
        workshop=house.workshop, drum=toms[1], side="batter", head="single 10 coated", fitted_at=timezone.now()
    )
    heads = [
        {"tag": "WR-010", "side": "batter", "hz": 240, "job": True},
        {"tag": "WR-012", "side": "batter", "hz": 1900, "job": True},
    ]
    status, answer = api("POST", f"/kits/{kit}/jobs", {"id": str(uuid.uuid4()), "heads": heads})
    assert (status, answer["code"]) == (422, "beyond_limits")
    house.enter()
    assert not PlannedJob.objects.exists()
    assert Drum.objects.get(tag="WR-010").wanted_batter_hz == pytest.approx(251.0)


def test_a_drum_that_left_the_kit_meanwhile_is_named(kit: int, api: Api) -> None:
    plan = api("POST", f"/kits/{kit}/plan", {"apart": 60, "stays": ["WR-012"]})[1]
    assert api("PUT", f"/kits/{kit}", body("WR-010", "WR-012"))[0] == 200
    status, answer = api("POST", f"/kits/{kit}/jobs", jobs_of(plan))
    assert (status, answer["code"]) == (409, "left_kit")


def test_the_row_and_roles_are_as_a_person_put_them(kit: int, api: Api, house: House) -> None:
    asked = body("WR-013", "WR-010", name="fair kit", day="2031-05-01")
    asked["drums"][0]["role"] = "beside"
    found = api("PUT", f"/kits/{kit}", asked)[1]
    assert [(each["tag"], each["role"]) for each in found["drums"]] == [("WR-013", "beside"), ("WR-010", "tom")]
    assert (found["name"], found["day"]) == ("fair kit", "2031-05-01")
    house.enter()
    assert "fair kit" in Drum.objects.get(tag="WR-010").search
    assert "dune kit" not in Drum.objects.get(tag="WR-012").search
    plan = api("POST", f"/kits/{kit}/plan", {"notes": {"WR-010": "E3"}})[1]
    api("POST", f"/kits/{kit}/jobs", jobs_of(plan))
    house.enter()
    assert {str(row.due_on) for row in PlannedJob.objects.all()} == {"2031-05-01"}


@pytest.mark.parametrize(
    ("asked", "status", "says"),
    [
        (body("WR-010", "WR-010", name="new"), 422, "twice"),
        (body("WR-999", name="new"), 422, "There is no drum WR-999"),
        (body("WR-010", name="DUNE KIT"), 422, "There is a kit"),
        (body("WR-010", name=" "), 422, ""),
        (body("WR-010", name="two\nlines"), 422, "one line"),
        ({"name": "no drums"}, 422, ""),
        (body(*(f"WR-{n}" for n in range(60)), name="many"), 422, ""),
    ],
)
def test_a_kit_that_cannot_be_is_told_why(kit: int, api: Api, asked: dict[str, Any], status: int, says: str) -> None:
    found, answer = api("POST", "/kits", asked)
    assert found == status
    assert says in json.dumps(answer, ensure_ascii=False)


def test_viewers_look_and_plan_and_change_nothing(kit: int, house: House) -> None:
    viewer_api = Api(house.viewer)
    assert viewer_api("GET", f"/kits/{kit}")[0] == 200
    assert viewer_api("POST", f"/kits/{kit}/plan", {})[0] == 200
    for method, path in (
        ("POST", "/kits"),
        ("PUT", f"/kits/{kit}"),
        ("PUT", f"/kits/{kit}/wish"),
        ("POST", f"/kits/{kit}/jobs"),
    ):
        assert viewer_api(method, path, {})[0] in (403, 422)
    assert viewer_api("PUT", f"/kits/{kit}/wish", {})[0] == 403


def test_no_other_workshop_sees_it(kit: int) -> None:
    other = make_house("salt-marsh")
    stranger = Api(other.technician)
    assert stranger("GET", "/kits")[1] == []
    for method, path, asked in (
        ("GET", f"/kits/{kit}", None),
        ("POST", f"/kits/{kit}/plan", {}),
        ("PUT", f"/kits/{kit}/wish", {}),
        ("PUT", f"/kits/{kit}", body("WR-001")),
    ):
        assert stranger(method, path, asked)[0] == 404


def test_an_archive_made_before_kits_had_an_occasion_is_read(kit: int, house: House) -> None:
    house.enter()
    archive = json.loads(written(house.workshop))
    for table, names in LATER.items():
        for row in archive["tables"][table]:
            for name in names:
                row.pop(name)
    for table in LATER_TABLES:
        archive["tables"].pop(table)
    for name in LATER_SETTINGS:
        archive["workshop"].pop(name)
    other = empty_workshop("low-tide")
    taken(json.dumps(archive), other)
    enter_workshop(other.workshop_id)
    row = Kit.objects.get()
    assert (row.name, row.occasion, row.day, row.wish) == ("dune kit", "", None, {})
    assert set(KitDrum.objects.values_list("role", "row")) == {("", None)}


def test_a_kit_is_read_with_few_queries_a_drum(
    kit: int, api: Api, django_assert_max_num_queries: DjangoAssertNumQueries
) -> None:
    with django_assert_max_num_queries(60):
        api("GET", f"/kits/{kit}")


@pytest.mark.usefixtures("in_demo")
def test_a_simulated_kit_sings_and_once_retuned_is_silent(kit: int, api: Api, house: House) -> None:
    house.enter()
    read(Drum.objects.get(tag="WR-013"), "batter", 211.0 * 1.02, days=0)
    read(Drum.objects.get(tag="WR-013"), "resonant", 211.0 * 1.1 * 1.02, days=0)
    status, sang = api("POST", f"/kits/{kit}/sing/simulated", {"struck": "WR-012"})
    assert status == 200, sang
    assert sang["answers"], sang["sentences"]
    assert sang["answers"][0]["name"] == "Serin"
    assert (sang["before"], sang["hand_heard"] or sang["answers"][0]["level_db"] > -28) == ([], True)
    house.enter()
    read(Drum.objects.get(tag="WR-013"), "batter", 190.0, days=0)
    read(Drum.objects.get(tag="WR-013"), "resonant", 209.0, days=0)
    again = api("POST", f"/kits/{kit}/sing/simulated", {"struck": "WR-012"})[1]
    assert again["before"][0]["name"] == "Serin"
    loud = next((each["level_db"] for each in again["answers"] if each["name"] == "Serin"), -60.0)
    assert loud < sang["answers"][0]["level_db"] - 10
    house.enter()
    lines = LogEntry.objects.filter(kind="sing", drum__tag="WR-012")
    assert lines.count() == 2
    assert lines[0].text.startswith("Struck in dune kit, a simulated one: ")
    assert [each["struck"] for each in api("GET", f"/kits/{kit}/sing")[1]] == ["WR-012"]


def test_a_stroke_from_the_microphone_or_a_recording(kit: int, api: Api, tmp_path: Path) -> None:
    made = SimulatedKit({"WR-012": (130.0, 211.0), "WR-013": (130.6, 205.0)})
    sound = made.strike("WR-012", 4)
    pcm = (sound * 32767).astype("<i2").tobytes()
    answer = api.client.generic(
        "POST", f"/api/kits/{kit}/sing?struck=WR-012&rate={made.rate}", pcm, content_type="application/octet-stream"
    )
    assert answer.status_code == 200, answer.content
    write_sound(tmp_path / "stroke.wav", sound, made.rate)
    with (tmp_path / "stroke.wav").open("rb") as file:
        found = api.client.post(f"/api/kits/{kit}/sing/file", {"sound": file, "struck": "WR-012"})
    assert found.status_code == 200, found.content
    assert found.json()["answers"][0]["tag"] == answer.json()["answers"][0]["tag"]
    for body, query in (
        (b"", "struck=WR-012&rate=48000"),
        (b"odd", "struck=WR-012&rate=48000"),
        (pcm, "struck=WR-999&rate=48000"),
    ):
        bad = api.client.generic("POST", f"/api/kits/{kit}/sing?{query}", body, content_type="application/octet-stream")
        assert bad.status_code == 422
        assert bad.json()["message"]


def test_a_drum_nobody_read_is_not_struck_and_no_simulated_kit_outside_the_demo(
    house: House, api: Api, settings: Any
) -> None:
    made = api("POST", "/kits", body("WR-001"))[1]["id"]
    settings.DEMO = True
    assert api("POST", f"/kits/{made}/sing/simulated", {"struck": "WR-001"})[1]["code"] == "no_demo"
    assert api("GET", f"/kits/{made}")[1]["simulated"] is False
    with house.as_demo():
        assert api("POST", f"/kits/{made}/sing/simulated", {"struck": "WR-001"})[1]["code"] == "not_read"


def snare(house: House, tag: str, name: str, rods: int = 10, **more: Any) -> Drum:
    facts = {"kind": "snare", "diameter_m": 14 * INCH, "rods_batter": rods, "rods_resonant": rods, "wanted_batter_hz": 300.0,
             "snare_bed": True, "thread": "7/32-24", "hoops": "triple-flanged", "bed_rods": [2, 3, 7, 8] if rods == 10 else [2, 3, 6, 7]}  # fmt: skip
    return make_drum(house.workshop, tag, name=name, **{**facts, **more})


def test_who_gives_a_rod_and_which(house: House, api: Api) -> None:
    house.enter()
    Drum.objects.filter(pk=house.drum.pk).update(thread="7/32-24")
    snare(house, "SN-10", "Ten")
    snare(house, "SN-08", "Eight", 8)
    tonight = snare(house, "SN-11", "Tonight")
    snare(house, "SN-12", "Short", lost_batter=[5])
    snare(house, "SN-13", "Metric", thread="M6")
    snare(house, "SN-14", "Away", state="out")
    make_drum(house.workshop, "BD-1", name="Bass", kind="bass", diameter_m=22 * INCH, rods_batter=8, thread="7/32-24")
    kit = Kit.objects.create(workshop=house.workshop, name="tonight")
    for drum in (house.drum, tonight):
        KitDrum.objects.create(workshop=house.workshop, kit=kit, drum=drum)
    status, found = api("GET", f"/kits/donors?tag={house.drum.tag}&side=resonant&rod=2")
    assert status == 200
    assert [each["name"] for each in found["donors"]] == ["Ten", "Eight", "Tonight"]
    assert found["donors"][0]["rod"] == 1
    assert found["donors"][0]["words"].startswith(
        "rests tonight; with 10 rods it hardly notices; then both its neighbours up "
    )
    assert found["refused"] == ["Short: it lacks a rod itself"]
    assert api("GET", "/kits/donors?tag=NOPE")[0] == 404
    assert api("GET", f"/kits/donors?tag={house.drum.tag}&rod=99")[1]["need"] == ""


def test_what_is_kept_and_cannot_be_read_does_not_shut_the_kit(
    kit: int, toms: list[Drum], api: Api, house: House
) -> None:
    assert api("PUT", f"/kits/{kit}/wish", {"above": {"WR-010": "a mile"}})[0] == 422
    house.enter()
    LogEntry.objects.create(
        workshop=house.workshop,
        drum=toms[0],
        at=timezone.now(),
        kind="sing",
        text="old",
        record={"kit": "dune kit", "sang": {"struck": 1}},
    )
    LogEntry.objects.create(
        workshop=house.workshop, drum=toms[0], at=timezone.now(), kind="sing", text="older", record={"kit": "dune kit"}
    )
    for wish in ({"shape": 7}, {"shape": "high-and-tight", "above": {"WR-010": "a mile"}}):
        Kit.objects.filter(pk=kit).update(wish=wish)
        status, found = api("GET", f"/kits/{kit}")
        assert (status, found["wish"]["shape"]) == (200, "as-it-is")
        house.enter()
    assert api("GET", f"/kits/{kit}/sing") == (200, [])
