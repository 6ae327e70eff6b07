"""Even and at pitch are two things, on the Bench, the kit and the sheet; a head that rested is cleared once more; what is fitted is asked about (trade §3.14, §12: common practice, no source)."""

from __future__ import annotations

from typing import Any

import pytest
from house import INCH, Api, Hands, House, make_drum, start_body

from apps.followups.models import FollowUp
from apps.heads.models import Fitting
from apps.history.models import LogEntry, PitchRecord
from apps.kits.selectors import without_what_is_there
from apps.kits.standing import standing_drums
from apps.register.models import Drum, Kit, KitDrum
from drumwork.kits import HeadMove, KitPlan, is_turned
from drumwork.quantities import Pitch

OFF = ("86.9",) * 8
THERE = ("85.6", "85.5") * 4


@pytest.fixture
def bass(house: House, api: Api) -> Hands:
    """A bass drum on its way from 86.9 to 85.5 Hz, and in a kit that wants it there."""
    house.enter()
    drum = make_drum(
        house.workshop, "WR-022", name="Collier", kind="bass", diameter_m=22 * INCH, rods_batter=8, rods_resonant=8
    )
    status, answer = api("POST", "/bench/jobs", start_body(drum, "another-pitch", target="85.5"))
    assert status == 201, answer
    return Hands(api, answer["id"])


def _up_to(hands: Hands, step: str) -> None:
    for each in hands.folded().steps:
        if each.id == step:
            return
        assert hands.do(kind="step_done", step=each.id)["standing"] == "applied"


def _close(hands: Hands) -> None:
    for each in hands.folded().steps[:-1]:
        if each.id not in hands.folded().done:
            hands.do(kind="step_done", step=each.id)
    receipt = hands.do(kind="close", reason="", check=False)
    assert receipt["standing"] == "applied", receipt


def _kit_asks(house: House, hz: float) -> bool:
    """Whether a kit that wants the batter there still has work for it."""
    house.enter()
    drum = Drum.objects.get(tag="WR-022")
    kit = Kit.objects.create(workshop=house.workshop, name=f"kit at {hz:g}")
    KitDrum.objects.create(workshop=house.workshop, kit=kit, drum=drum)
    move = HeadMove(Pitch(hz), -28.0, -0.2)
    plan = KitPlan({}, {drum.tag: move}, {drum.tag: None}, 0.2, 0.0, True)
    return is_turned(without_what_is_there(plan, standing_drums(kit, house.workshop, {})).batter[drum.tag])


def _round(hands: Hands, number: int, *hz: str) -> dict[str, Any]:
    hands.read_round(number, *hz, step="bring")
    hands.do(kind="plan", step="bring", lap=number)
    return dict(hands.lap("bring", number))


def test_another_pitch_ends_at_that_pitch(bass: Hands, house: House, api: Api) -> None:
    _up_to(bass, "bring")
    first = _round(bass, 0, *OFF)["plan"]
    assert (first["even"], first["at_pitch"], first["clear"]) == (True, False, False)
    assert "28 cents too high" in first["verdict"]
    assert any(rod["owed_32"] < 0 for rod in bass.lap("bring", 0)["rods"])
    owed = [(rod["rod"], rod["owed_32"]) for rod in bass.lap("bring", 0)["rods"] if rod["owed_32"]]
    bass.send(*[bass.turned("bring", 0, each) for each in owed])
    second = _round(bass, 1, *THERE)["plan"]
    assert (second["even"], second["at_pitch"], second["clear"]) == (True, True, True)
    _close(bass)
    entry = LogEntry.objects.get(drum__tag="WR-022", kind="another-pitch")
    assert "at pitch" in entry.text
    (side,) = [each for each in api("GET", "/register/drums/WR-022/sheet")[1]["sides"] if each["side"] == "batter"]
    assert (side["even"], side["left_so"]) == (True, False)
    assert PitchRecord.objects.get(drum__tag="WR-022").wanted_hz == 85.5
    assert not _kit_asks(house, 85.5)


def test_a_pitch_left_so_is_on_record_and_not_asked_for_again(bass: Hands, house: House, api: Api) -> None:
    _up_to(bass, "bring")
    _round(bass, 0, *OFF)
    _close(bass)  # the person keeps the pitch it has
    record = PitchRecord.objects.get(drum__tag="WR-022")
    assert (record.left_so, record.wanted_hz) == (True, 85.5)
    assert "left 28 cents above 85.5 Hz" in LogEntry.objects.get(drum__tag="WR-022", kind="another-pitch").text
    (side,) = [each for each in api("GET", "/register/drums/WR-022/sheet")[1]["sides"] if each["side"] == "batter"]
    assert side["left_so"] is True
    assert not _kit_asks(house, 85.5)
    assert _kit_asks(house, 80.0)  # another wish is another matter


def test_turns_are_not_worked_out_of_a_reading_that_cannot_be(bass: Hands) -> None:
    _up_to(bass, "bring")
    bass.read_round(0, "86.9", "869", *OFF[2:], step="bring")
    refused = bass.do(kind="plan", step="bring", lap=0)
    assert (refused["standing"], refused["code"]) == ("refused", "read_again")
    assert "869" in refused["message"]
    bass.send(bass.reading(0, 2, "869", "bring", sure=True))
    assert bass.do(kind="plan", step="bring", lap=0)["standing"] == "applied"


def test_after_the_rest_a_fresh_round_is_held_against_the_one_before(hands: Hands) -> None:
    _up_to(hands, "clear")
    hands.read_round(0, "210", "210.2", "210", "209.9", "210.1", "210")
    hands.do(kind="plan", step="clear", lap=0)
    _up_to(hands, "rest")
    hands.do(kind="rest", step="rest", minutes=1)
    assert hands.do(kind="once_more", step="clear")["standing"] == "applied"
    state = hands.folded()
    assert state.now is not None
    assert state.now.id == "clear"
    assert (len(state.laps["clear"]), state.laps["clear"][1].afresh) == (2, True)
    assert state.laps["clear"][0].plan is not None  # the round before is kept
    hands.read_round(1, *["207"] * 6)
    shown = hands.lap("clear", 1)
    assert shown["compared"].startswith("25 cents down since it rested: 210.0 Hz then, 207.0 now")
    hands.do(kind="plan", step="clear", lap=1)
    plan = hands.lap("clear", 1)["plan"]
    assert plan["wanted"] == pytest.approx(211.87, abs=0.01)  # 210, and what a new head drops until its check
    assert plan["findings"] == []  # that it went down with nothing turned is no mishap
    assert all(rod["owed_32"] >= 0 for rod in hands.lap("clear", 1)["rods"])
    again = hands.do(kind="once_more", step="clear")
    assert again["standing"] == "refused"  # it is in hand already


def test_a_new_head_is_left_above_its_pitch_and_that_is_not_asked_for_again(hands: Hands, house: House) -> None:
    """Trade §12: stretching heads are left above pitch meanwhile."""
    _up_to(hands, "clear")
    hands.read_round(0, *["212"] * 6)
    hands.do(kind="plan", step="clear", lap=0)
    plan = hands.lap("clear", 0)["plan"]
    assert (plan["clear"], plan["wanted"]) == (True, pytest.approx(211.87, abs=0.01))
    assert hands.look()["heads"][0]["above_cents"] == pytest.approx(15.4, abs=0.1)
    _close(hands)
    house.drum.refresh_from_db()
    assert house.drum.wanted_batter_hz == 210.0  # the drum's own pitch is what it was
    assert "at pitch" in LogEntry.objects.get(drum=house.drum, kind="new-batter-head").text


def test_mesh_asks_no_pitch_and_books_no_check_and_what_is_not_from_the_shelf_is_named(api: Api, house: House) -> None:
    body = start_body(house.drum, "mesh-heads", "batter")
    body["heads"] = [{"side": "batter", "named": "two-layer mesh", "reason": ""}]
    status, answer = api("POST", "/bench/jobs", body)
    assert status == 201, answer
    assert answer["books_check"] is False
    hands = Hands(api, answer["id"])
    assert hands.folded().targets == {}
    for each in hands.folded().steps[:-1]:
        hands.do(kind="step_done", step=each.id)
    assert hands.do(kind="close", reason="", check=True)["standing"] == "applied"
    house.enter()
    assert not FollowUp.objects.filter(drum=house.drum, done_at__isnull=True).exists()
    assert set(Fitting.objects.filter(drum=house.drum, retired_at__isnull=True).values_list("head", flat=True)) == {
        "two-layer mesh"
    }


def test_a_batter_film_is_not_offered_for_a_snare_side_without_a_word(api: Api, house: House) -> None:
    house.enter()
    make_drum(house.workshop, "WR-030", name="Knot", kind="snare", snare_bed=True)
    offered = {side: api("GET", f"/heads/fitting/WR-030/{side}")[1] for side in ("batter", "resonant")}
    assert [each["warning"] for each in offered["batter"]] == [""]
    assert all("about 3 is wanted" in each["warning"] for each in offered["resonant"])


def test_what_the_lever_does_plans_what_follows(api: Api, house: House) -> None:
    house.enter()
    drum = make_drum(house.workshop, "WR-031", name="Dunlin", kind="snare", snare_bed=True)
    hands = Hands(api, api("POST", "/bench/jobs", start_body(drum, "set-wires", "wires"))[1]["id"])
    _up_to(hands, "on-off")
    assert hands.do(kind="step_done", step="on-off")["standing"] == "refused"  # which of the four is said first
    hands.do(kind="answer", step="on-off", question="on-off", values=["stays-on"])
    assert [each.id for each in hands.folded().steps if each.id not in hands.folded().done][:6] == [
        "on-off", "to-resonant-2", "stays-on-1", "to-batter-3", "on-off-2", "fine",
    ]  # fmt: skip
    for step in ("on-off", "to-resonant-2", "stays-on-1", "to-batter-3"):
        hands.do(kind="step_done", step=step)
    hands.do(kind="answer", step="on-off-2", question="on-off-2", values=["right"])
    hands.do(kind="step_done", step="on-off-2")
    now = hands.folded().now
    assert now is not None
    assert now.id == "fine"
