"""The engine through the API: both heads, findings into the record, old devices and newer ones, a job no one here can read."""

import uuid
from typing import Any

import pytest
from house import Api, Hands, House, make_drum, start_body

from apps.bench.effects import HANDLERS
from apps.bench.models import DrumFinding, Job, JobHead
from apps.bench.schemas import BenchAnswer
from apps.bench.stored import PLAN_SHAPE
from apps.followups.models import FollowUp
from apps.heads.models import Fitting
from apps.history.models import LogEntry, PitchRecord
from drumwork.drums import Side
from drumwork.quantities import Pitch
from drumwork.work import effects


@pytest.fixture
def both(api: Api, house: House) -> Hands:
    drum = make_drum(house.workshop, "WR-010", name="Tern", wanted_resonant_hz=240.0)
    heads = [
        {"side": "batter", "stock_item": house.stock.pk, "reason": "creased", "target": "212"},
        {"side": "resonant", "stock_item": house.stock.pk, "reason": "dull"},
    ]
    body = {"id": str(uuid.uuid4()), "tag": drum.tag, "work": "both-heads", "part": "heads", "heads": heads}
    status, bench = api("POST", "/bench/jobs", body)
    assert status == 201, bench
    return Hands(api, bench["id"])


def finish(hands: Hands) -> None:
    state = hands.folded()
    hands.send(
        *[
            hands.event(kind="step_done", step=step.id)
            for step in state.steps
            if step.id not in state.done and step.kind != "close"
        ]
    )


def test_both_heads_are_one_job_and_land_together(house: House, both: Hands) -> None:
    assert both.folded().target(Side.BATTER) == Pitch(212)
    assert both.folded().target(Side.RESONANT) == Pitch(240)
    both.read_round(0, *["240"] * 6, step="resonant-clear")
    both.do(kind="plan", step="resonant-clear", lap=0)
    both.read_round(0, "210", "212", "214", "210", "212", "214", step="batter-clear")
    both.do(kind="plan", step="batter-clear", lap=0)
    assert both.lap("resonant-clear")["plan"]["clear"]
    assert not both.lap("batter-clear")["plan"]["clear"]
    assert both.lap("batter-clear")["wanted_hz"] == pytest.approx(
        213.89, abs=0.01
    )  # 212, left above by what it drops until its check
    finish(both)
    assert both.do(kind="close", check=True)["standing"] == "applied"
    house.stock.refresh_from_db()
    assert house.stock.count == 0  # both from the shelf
    fitted = Fitting.objects.filter(job_id=both.job).order_by("side")
    assert [each.side for each in fitted] == ["batter", "resonant"]
    assert FollowUp.objects.filter(booked_by_job=both.job).count() == 2
    assert {p.side: round(p.mean_hz) for p in PitchRecord.objects.filter(job_id=both.job)} == {
        "batter": 212,
        "resonant": 240,
    }
    entry = LogEntry.objects.get(job_id=both.job)
    assert (entry.kind, entry.side) == ("both-heads", "")
    assert entry.record["heads"]["resonant"]["new_head"] == "single 10 coated"
    assert len(entry.record["rounds"]) == 2


def test_a_drum_without_a_usual_pitch_takes_the_one_it_was_brought_to(api: Api, house: House) -> None:
    drum = make_drum(house.workshop, "WR-011", name="Smew", wanted_batter_hz=None)
    _, bench = api("POST", "/bench/jobs", start_body(drum, target="A3"))
    Hands(api, bench["id"]).do(kind="close")
    drum.refresh_from_db()
    assert drum.wanted_batter_hz == 220.0  # ISO 16, an octave below 440


def test_a_close_that_fails_half_way_leaves_nothing(house: House, both: Hands) -> None:
    house.stock.count = 1  # two are wanted: the second handler refuses
    house.stock.save()
    assert "nought" in both.do(kind="close")["message"]
    house.stock.refresh_from_db()
    assert house.stock.count == 1
    assert not Fitting.objects.filter(job_id=both.job).exists()
    assert Job.objects.get(pk=both.job).state == "open"


def test_a_job_on_both_heads_excludes_one_on_either(api: Api, both: Hands) -> None:
    for part in ("batter", "resonant"):
        body = {"id": str(uuid.uuid4()), "tag": "WR-010", "work": "settling-check", "part": part, "heads": []}
        status, answer = api("POST", "/bench/jobs", body)
        assert (status, answer["code"], answer["fields"]["job"]) == (409, "in_hand", both.job)
    offers = api("GET", "/bench/work/WR-010")[1]
    on_heads = [offer for offer in offers if offer["part"] in ("batter", "resonant", "heads")]
    assert {offer["in_hand"] for offer in on_heads} == {both.job}


def test_each_effect_of_the_core_has_its_handler() -> None:
    assert set(HANDLERS) == set(effects.EFFECTS)


def test_the_answer_is_what_the_schema_says(both: Hands) -> None:
    both.read_round(0, *["240"] * 6, step="resonant-clear")
    both.do(kind="plan", step="resonant-clear", lap=0)
    both.do(kind="found", step="mark", finding="rod-bent", side="batter", rod=2)
    answer = both.api("GET", f"/bench/jobs/{both.job}")[1]
    assert BenchAnswer.model_validate(answer).model_dump(mode="json") == answer


class TestFindings:
    """From the Bench into the drum's record."""

    def test_are_owed_put_right_or_gone_with_the_old_head(self, api: Api, house: House, hands: Hands) -> None:
        hands.do(kind="found", step="clean", finding="thread-stripped", side="batter", rod=2, note="third time")
        hands.do(kind="found", step="clean", finding="edge-dirty", side="batter")
        hands.do(kind="found", step="mark", finding="dents", side="batter", degree=3)
        hands.do(kind="found", step="mark", finding="rod-missing", side="batter", rod=5)
        dirty = next(key for key, mark in hands.folded().found.items() if mark.finding == "edge-dirty")
        hands.do(kind="put_right", event=dirty)
        assert "repair-draw" in [step.id for step in hands.folded().steps]
        hands.do(kind="close")
        rows = {row.finding: row for row in DrumFinding.objects.filter(job_id=hands.job)}
        assert (rows["thread-stripped"].owed, rows["thread-stripped"].part) == ("repair", "insert")
        assert rows["thread-stripped"].put_right_at is None
        assert rows["edge-dirty"].put_right_at is not None
        assert rows["dents"].put_right_at is not None  # they went with the head
        house.drum.refresh_from_db()
        assert house.drum.lost_batter == [5]
        sheet = api("GET", f"/register/drums/{house.drum.tag}/sheet")[1]
        assert {each["finding"] for each in sheet["findings"]} == {"thread-stripped", "rod-missing"}
        assert LogEntry.objects.get(job_id=hands.job).record["findings"][0]["note"] == "third time"

    def test_are_put_right_later(self, api: Api, house: House, hands: Hands) -> None:
        hands.do(kind="found", step="clean", finding="casing-loose", side="batter", rod=1)
        hands.do(kind="close")
        row = DrumFinding.objects.get(job_id=hands.job)
        assert Api(house.viewer)("POST", f"/bench/findings/{row.pk}/put-right")[0] == 403
        assert api("POST", f"/bench/findings/{row.pk}/put-right")[0] == 204
        row.refresh_from_db()
        assert row.put_right_at is not None

    def test_belong_to_their_workshop(self, house: House, other: House, hands: Hands) -> None:
        hands.do(kind="found", step="clean", finding="casing-loose", side="batter", rod=1)
        hands.do(kind="close")
        row = DrumFinding.objects.get(job_id=hands.job)
        assert Api(other.technician)("POST", f"/bench/findings/{row.pk}/put-right")[0] == 404

    @pytest.mark.parametrize(
        ("body", "code"),
        [
            ({"finding": "rod-bent", "side": "batter", "rod": 12}, "bad_layout"),
            ({"finding": "moths", "side": "batter"}, "bad_finding"),
            ({"finding": "strand-bent"}, "bad_finding"),
        ],
    )
    def test_that_this_drum_cannot_have_are_refused(self, hands: Hands, body: dict[str, Any], code: str) -> None:
        receipt = hands.do(kind="found", step="clean", **body)
        assert (receipt["standing"], receipt["code"]) == ("refused", code)
        assert receipt["message"].endswith(".")

    def test_can_be_found_are_listed_for_the_kind(self, api: Api) -> None:
        snare, tom = (api("GET", f"/bench/findings/{kind}")[1] for kind in ("snare", "rack-tom"))
        assert "strand-bent" in {each["id"] for each in snare}
        assert "strand-bent" not in {each["id"] for each in tom}


class TestOtherVersions:
    """Devices older and newer than this server, and jobs a newer one wrote."""

    def test_entries_of_the_shape_before_are_taken_as_what_they_said(self, hands: Hands) -> None:
        def old(**body: Any) -> dict[str, Any]:
            return {**hands.event(**body), "v": 1}

        sent = [
            old(kind="turned", step="slacken", lap=0, rod=1, turns_32=-64),
            old(kind="skipped", step="slacken", lap=0, rod=2),
            old(kind="reading", lap=0, rod=1, typed="A3"),
            old(kind="centre", lap=0, typed="118"),
            old(kind="rest", minutes=20),
        ]
        for event in sent:
            del event["v"]  # such a device says nothing of shapes
        assert {receipt["standing"] for receipt in hands.send(*sent)} == {"applied"}
        state = hands.folded()
        assert state.laps["slacken"][0].turned[2].value is None
        assert state.laps["clear"][0].readings[1].value.hz == 220.0  # ISO 16
        assert "rest" in state.rests

    def test_an_unknown_kind_is_refused_by_itself_and_named(self, hands: Hands) -> None:
        good, strange, after = hands.send(
            hands.event(kind="step_done", step="lay-out"),
            hands.event(kind="weighed", grams=12),
            hands.event(kind="note", text="still here"),
        )
        assert (good["standing"], strange["standing"], after["standing"]) == ("applied", "refused", "applied")
        assert strange["code"] == "unknown_entry"
        assert "weighed" in strange["message"]

    def test_a_job_of_a_newer_shape_says_so_and_loses_nothing(self, api: Api, hands: Hands) -> None:
        from apps.bench import ledger

        Job.objects.filter(pk=hands.job).update(plan_shape=99)
        ledger._KNOWN.clear()
        status, answer = api("GET", f"/bench/jobs/{hands.job}")
        assert (status, answer["code"]) == (422, "bad_event")
        assert "newer version" in answer["message"]
        Job.objects.filter(pk=hands.job).update(plan_shape=PLAN_SHAPE)
        assert hands.look()["last_seq"] == 1

    def test_unknown_work_starts_nothing(self, api: Api, house: House) -> None:
        body = {"id": str(uuid.uuid4()), "tag": house.drum.tag, "work": "polish", "part": "batter"}
        status, answer = api("POST", "/bench/jobs", body)
        assert (status, answer["code"]) == (422, "unknown_work")
        assert not JobHead.objects.exists()


@pytest.mark.parametrize(("kind", "more"), [("centre", {"typed": "114"}), ("whole", {"judged": "lower"})])
def test_differing_words_about_the_middle_and_the_whole_are_a_conflict_shown(
    api: Api, hands: Hands, kind: str, more: dict[str, str]
) -> None:
    # before the engine the second was dropped as a repeat
    hands.look()
    second = Hands(api, hands.job, "phone")
    second.look()
    other = {"typed": "118"} if kind == "centre" else {"judged": "higher"}
    hands.do(kind=kind, step="clear", lap=0, **more)
    assert second.do(kind=kind, step="clear", lap=0, **other)["standing"] == "conflict"
    (conflict,) = hands.look()["conflicts"]
    assert not conflict["can_be_both"]
    hands.do(kind="settle", event=conflict["event"], take="second")
    assert hands.look()["conflicts"] == []


def test_rods_that_changed_meanwhile_do_not_spoil_a_job(api: Api, house: House, hands: Hands) -> None:
    """A drum's rods cannot be changed under a job; where the record was changed all the same, the job goes on with its own."""
    house.drum.rods_batter = 8
    house.drum.save()
    assert hands.do(kind="reading", step="clear", lap=0, rod=6, typed="200")["standing"] == "applied"
    refused = hands.do(kind="reading", step="clear", lap=0, rod=8, typed="200")
    assert "no rod 8" in refused["message"]
    assert hands.look()["heads"][0]["rods"] == 6
