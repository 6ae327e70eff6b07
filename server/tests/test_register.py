"""The register: what goes in, what is refused, how it is found."""

import uuid
from typing import Any

import pytest
from django.utils import timezone
from house import Api, Hands, House, make_drum

from apps.heads.models import Promise
from apps.heads.promises import promise
from apps.history.models import LogEntry
from apps.planned.models import PlannedJob
from apps.register.models import KINDS, Drum
from apps.register.schemas import KIND_WORDS
from drumwork.drums import DrumKind

GOOD: dict[str, Any] = {
    "tag": "WR-010", "name": "Rook", "kind": "floor-tom", "diameter": "16", "depth": "15 1/2", "rods_batter": 8, "rods_resonant": 8,
    "place": "net loft", "owner": "chandlery", "wanted_batter": "D3 +7", "thread": "M6", "kits": ["tide kit"],
}  # fmt: skip


def test_the_kinds_of_the_tables_are_the_kinds_of_the_core() -> None:
    assert set(KINDS) == {kind.value for kind in DrumKind} == set(KIND_WORDS)


def test_a_drum_is_entered_in_the_units_it_was_typed_in(api: Api) -> None:
    status, saved = api("POST", "/register/drums", GOOD)
    assert status == 201
    drum = Drum.objects.get(tag="WR-010")
    assert drum.diameter_m == pytest.approx(16 * 0.0254)  # international inch
    assert drum.depth_m == pytest.approx(15.5 * 0.0254)
    # MIDI Tuning Standard: D3 is 146.832 Hz; seven cents above is a factor 2^(7/1200)
    assert drum.wanted_batter_hz == pytest.approx(146.832 * 2 ** (7 / 1200), abs=0.01)
    assert saved["depth"] == "15 1/2"
    assert [kit.name for kit in drum.kits.all()] == ["tide kit"]
    assert drum.log.get().text == "Entered in the register"


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"diameter": "0"}, "diameter"),
        ({"diameter": "-14"}, "diameter"),
        ({"diameter": "two feet"}, "diameter"),
        ({"diameter": "90"}, "diameter"),
        ({"depth": "0.2"}, "depth"),
        ({"rods_batter": 3}, "rods_batter"),
        ({"rods_resonant": 17}, "rods_resonant"),
        ({"rods_batter": "eight"}, "rods_batter"),
        ({"lost_batter": [9]}, "lost_batter"),
        ({"lost_batter": [1, 2, 3, 4, 5, 6]}, "lost_batter"),
        ({"port": "16"}, "port"),
        ({"wanted_batter": "10000"}, "wanted_batter"),
        ({"wanted_batter": "H#x"}, "wanted_batter"),
        ({"kind": "triangle"}, "kind"),
        ({"name": ""}, "name"),
        ({"place": ""}, "place"),
    ],
)
def test_impossible_drums_are_refused_field_by_field(api: Api, wrong: dict[str, Any], field: str) -> None:
    status, answer = api("POST", "/register/drums", {**GOOD, **wrong})
    assert status == 422
    assert any(name.endswith(field) for name in answer["fields"]), answer
    assert answer["message"]
    assert not Drum.objects.filter(tag="WR-010").exists()


def test_a_taken_tag_is_refused(api: Api) -> None:
    status, answer = api("POST", "/register/drums", {**GOOD, "tag": "WR-001"})
    assert (status, answer["code"]) == (422, "tag_taken")


def test_editing_keeps_what_is_not_changed(api: Api) -> None:
    _, form = api("GET", "/register/drums/WR-001")
    assert api("PUT", "/register/drums/WR-001", {**form, "name": "Jenny Wren"})[0] == 200
    _, after = api("GET", "/register/drums/WR-001")
    assert after == {**form, "name": "Jenny Wren"}


def test_rods_do_not_change_under_a_job_in_hand(api: Api, hands: Hands) -> None:
    _, form = api("GET", "/register/drums/WR-001")
    status, answer = api("PUT", "/register/drums/WR-001", {**form, "rods_batter": 8})
    assert (status, answer["code"]) == (409, "job_in_hand")


@pytest.mark.parametrize(
    ("query", "found"),
    [
        ("text=rook", 1),
        ("text=ROOK%20floor", 1),
        ("text=rook%20snare", 0),
        ("kind=floor-tom", 1),
        ("place=net%20loft", 2),
        ("owner=nobody", 0),
        ("kit=tide%20kit", 1),
        ("state=out", 0),
    ],
)
def test_filters_narrow_and_combine(api: Api, query: str, found: int) -> None:
    api("POST", "/register/drums", GOOD)
    assert api("GET", f"/register/drums?{query}")[1]["total"] == found


def test_pages_are_fifty_long_and_cover_everything_once(api: Api, house: House) -> None:
    for number in range(2, 63):
        make_drum(house.workshop, f"WR-{number:03d}")
    pages = [api("GET", f"/register/drums?offset={offset}")[1] for offset in (0, 50)]
    tags = [drum["tag"] for page in pages for drum in page["drums"]]
    assert [len(page["drums"]) for page in pages] == [50, 12]
    assert tags == sorted(set(tags))


def test_reading_the_register_takes_the_same_number_of_queries_for_any_length(
    api: Api, house: House, django_assert_max_num_queries: Any
) -> None:
    for number in range(2, 40):
        make_drum(house.workshop, f"WR-{number:03d}")
    with django_assert_max_num_queries(10):
        api("GET", "/register/drums")


def test_the_next_free_tag_carries_the_numbering_on(api: Api) -> None:
    assert api("GET", "/register/choices")[1]["next_tag"] == "WR-002"


def test_the_ways_of_the_workshop_can_be_changed_and_are_checked(api: Api, house: House) -> None:
    ways = api("GET", "/session")[1]["workshop"]
    assert api("PUT", "/workshop/ways", {**ways, "pattern": "plus-cross", "step_32": 1})[0] == 200
    house.workshop.refresh_from_db()
    assert (house.workshop.pattern, house.workshop.step_32) == ("plus-cross", 1)
    status, answer = api("PUT", "/workshop/ways", {**ways, "a4_hz": 4400, "step_32": 3})
    assert status == 422
    assert {"a4_hz", "step_32"} <= {name.split(".")[-1] for name in answer["fields"]}


def test_patterns_say_where_every_third_rod_fails(api: Api) -> None:
    # common practice P4
    found = {each["pattern"]: each for each in api("GET", "/workshop/patterns?rods=6")[1]}
    assert found["every-third"]["reaches_all"] is False
    assert "three laps" in found["every-third"]["note"]
    assert sum(each["recommended"] for each in found.values()) == 1
    assert api("GET", "/workshop/patterns?rods=40")[0] == 422


class TestLeaving:
    def test_retired_its_plans_go_and_it_comes_back(self, api: Api, house: House) -> None:
        planned = PlannedJob.objects.create(
            id=uuid.uuid4(), workshop=house.workshop, drum=house.drum, work="new-head", part="batter", due_on="2026-12-01",
            made_at=timezone.now(),
        )  # fmt: skip
        promise(house.stock.pk, house.drum, planned.pk, "batter", house.technician)
        for _ in range(2):
            assert api("PUT", "/register/drums/WR-001/retired")[0] == 204
        house.drum.refresh_from_db()
        planned.refresh_from_db()
        assert (house.drum.state, planned.state, Promise.objects.count()) == ("retired", "dropped", 0)
        assert api("DELETE", "/register/drums/WR-001/retired")[0] == 204
        texts = list(LogEntry.objects.filter(drum=house.drum).order_by("pk").values_list("text", flat=True))
        assert texts[-2:] == ["Retired", "Brought back"]

    def test_a_drum_with_a_job_in_hand_stays(self, api: Api, hands: Hands) -> None:
        status, answer = api("PUT", "/register/drums/WR-001/retired")
        assert (status, answer["code"]) == (409, "job_in_hand")
        form = api("GET", "/register/drums/WR-001")[1]
        assert api("PUT", "/register/drums/WR-001", {**form, "state": "retired", "seen": form})[0] == 409

    def test_only_a_drum_without_a_history_is_deleted(self, api: Api, house: House) -> None:
        status, answer = api("DELETE", "/register/drums/WR-001")
        assert (status, answer["code"]) == (409, "has_history")
        drum = {
            "tag": "WR-9",
            "name": "Slip",
            "kind": "snare",
            "diameter": "14",
            "depth": "5",
            "rods_batter": 8,
            "rods_resonant": 8,
        }
        assert api("POST", "/register/drums", {**drum, "place": "net loft", "owner": "chandlery"})[0] == 201
        assert api("DELETE", "/register/drums/WR-9")[0] == 204
        assert not Drum.objects.filter(tag="WR-9").exists()
