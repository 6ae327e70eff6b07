"""Ear, gauge and key through the API; what a job teaches is kept; old plans stay readable."""

import numpy as np
import pytest
from house import Api, Hands, House, make_drum, start_body
from test_bench import to_clear, turn_all

from apps.bench.answers import answer_before, kept_answer
from apps.bench.ledger import look_at
from apps.bench.models import JobEvent, KeptAnswer
from apps.bench.selectors import job_by_id
from apps.bench.stored import entry_from, upcast_entry
from apps.history.models import LogEntry, PitchRecord
from drumwork.drums import Side
from drumwork.quantities import Turns
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from drumwork.work.kinds.clear import RoundPlanned

LEVEL = ["level"] * 5


def judge(hands: Hands, lap: int, *said: str, reference: int = 1) -> None:
    rods = [rod for rod in range(1, 7) if rod != reference]
    hands.send(
        *[
            hands.event(kind="reading", step="clear", lap=lap, rod=rod, typed=each, means="ear")
            for rod, each in zip(rods, said, strict=True)
        ]
    )


@pytest.fixture
def check(api: Api, house: House) -> Hands:
    """A settling check on the drum, at its clearing."""
    _, bench = api("POST", "/bench/jobs", start_body(house.drum, work="settling-check"))
    hands = Hands(api, bench["id"])
    hands.do(kind="step_done", step="look")
    return hands


def test_a_head_is_cleared_by_ear_without_one_number(house: House, check: Hands) -> None:
    check.do(kind="means", means="ear", reference=1)
    judge(check, 0, "much-lower", "level", "level", "much-lower", "level")
    check.do(kind="plan", step="clear", lap=0)
    lap = check.lap(number=0)
    rods = {rod["rod"]: rod for rod in lap["rods"]}
    assert rods[1]["reference"]
    assert rods[2]["reading"]["shown"] == "much lower"
    assert rods[2]["reading"]["hz"] is None
    assert rods[2]["owed_32"] + rods[5]["owed_32"] > 0
    assert rods[2]["predicted"] in ("level", "lower")
    turn_all(check, 0)
    judge(check, 1, *LEVEL)
    check.do(kind="plan", step="clear", lap=1)
    assert check.lap(number=1)["plan"]["clear"]
    check.do(kind="step_done", step="clear")
    check.do(kind="close")
    entry = LogEntry.objects.get(drum=house.drum, kind="settling-check")
    assert "by ear" in entry.text
    assert entry.record["rounds"][0]["ear"]["2"] == "much-lower"
    assert not PitchRecord.objects.filter(drum=house.drum).exists()


def test_the_whole_head_can_be_judged_beside_the_wanted_tone(check: Hands) -> None:
    check.do(kind="means", means="ear", reference=1)
    judge(check, 0, *LEVEL)
    check.do(kind="whole", step="clear", lap=0, judged="much-lower")
    check.do(kind="plan", step="clear", lap=0)
    lap = check.lap(number=0)
    assert lap["whole"] == "much-lower"
    assert sum(rod["owed_32"] for rod in lap["rods"]) > 0


@pytest.mark.parametrize(("means", "typed"), [("ear", "flat"), ("gauge", "-3"), ("gauge", "tight"), ("pitch", "loud")])
def test_what_cannot_be_read_is_refused_in_words(check: Hands, means: str, typed: str) -> None:
    receipt = check.do(kind="reading", step="clear", lap=0, rod=1, typed=typed, means=means)
    assert receipt["standing"] == "refused"
    assert receipt["message"]


@pytest.mark.parametrize("means", ["gauge", "torque"])
def test_a_number_on_any_scale_clears_a_head(check: Hands, means: str) -> None:
    check.do(kind="means", means=means)
    numbers = ["81", "66", "81", "82", "65,5", "81"]
    check.send(
        *[
            check.event(kind="reading", step="clear", lap=0, rod=rod, typed=each, means=means)
            for rod, each in enumerate(numbers, 1)
        ]
    )
    check.do(kind="plan", step="clear", lap=0)
    lap = check.lap(number=0)
    assert lap["plan"]["means"] == means
    assert lap["plan"]["unit"] == ""
    owed = {rod["rod"]: rod["owed_32"] for rod in lap["rods"]}
    assert min(owed[2], owed[5]) > 0


def test_a_gauge_beside_the_pitch_shows_the_pull(check: Hands) -> None:
    check.read_round(0, *["210"] * 6)
    check.do(kind="plan", step="clear", lap=0)
    assert check.lap(number=0)["plan"]["pull"]["told_by"] == []
    check.send(
        *[check.event(kind="reading", step="clear", lap=0, rod=rod, typed="80", means="gauge") for rod in range(1, 7)],
        check.event(kind="plan", step="clear", lap=0),
    )
    lap = check.lap(number=0)
    assert lap["plan"]["pull"]["told_by"] == ["gauge"]
    assert lap["plan"]["pull"]["clear"]
    assert [rod["number"] for rod in lap["rods"]] == ["80"] * 6
    assert lap["rods"][0]["reading"]["shown"] == "210.0"


def test_a_doubted_reading_is_kept_and_marked(check: Hands) -> None:
    check.do(kind="reading", step="clear", lap=0, rod=1, typed="210.4?")
    reading = check.lap(number=0)["rods"][0]["reading"]
    assert (reading["hz"], reading["doubtful"]) == (210.4, True)


def test_a_rod_that_does_not_answer_is_said_to(check: Hands) -> None:
    head = SimulatedHead(RodLayout(6), 210, seed=3, modal=False, uneven=0.04, noise=0.0005, quirk=0.02)
    check.read_round(0, *(str(pitch.hz) for pitch in head.tap().values()))
    check.do(kind="plan", step="clear", lap=0)
    asked = {rod["rod"]: Turns(rod["owed_32"]) for rod in check.lap(number=0)["rods"]}
    dead = max(asked, key=lambda rod: abs(asked[rod].thirtyseconds))
    turn_all(check, 0)
    head.turn(asked | {dead: Turns(0)})
    check.read_round(1, *(str(pitch.hz) for pitch in head.tap().values()))
    check.do(kind="plan", step="clear", lap=1)
    lap = check.lap(number=1)
    (found,) = lap["plan"]["findings"]
    assert (found["kind"], found["rods"]) == ("not-answering", [dead])
    assert lap["rods"][dead - 1]["owed_32"] == 0


def test_uneven_on_purpose_is_what_the_head_is_judged_by(check: Hands) -> None:
    check.do(kind="uneven", what="rod-down", start=2)
    assert "Rod 2 a little down" in check.look()["figures"]["uneven"][0]["words"]
    assert check.do(kind="uneven", what="beside-wires")["standing"] == "refused"


def test_the_wanted_pitch_says_what_film_and_turns_it_asks(check: Hands, house: House) -> None:
    house.drum.fittings.update(head="single 10 coated")
    check.read_round(0, *["180"] * 6)
    words = check.look()["heads"][0]["target_words"]
    assert "of yield" in words
    assert "turns of every rod" in words


def test_what_a_job_teaches_is_kept_for_the_next_on_this_head(api: Api, house: House, hands: Hands) -> None:
    to_clear(hands)
    hands.read_round(0, "200", "204", "207", "200.5", "204", "207.5")
    hands.do(kind="plan", step="clear", lap=0)
    turn_all(hands, 0)
    hands.read_round(1, "209.8", "210", "210.6", "209.9", "210.1", "210.4")
    hands.do(kind="plan", step="clear", lap=1)
    hands.send(*[hands.event(kind="step_done", step=step) for step in ("clear", "other-head", "rest", "mount")])
    hands.do(kind="close", reason="worn")
    kept = KeptAnswer.objects.get(drum=house.drum, side="batter")
    assert (kept.head, kept.rods, kept.rounds) == ("single 10 coated", [1, 2, 3, 4, 5, 6], 1)
    _, bench = api("POST", "/bench/jobs", start_body(house.drum, work="settling-check"))
    learned = kept_answer(job_by_id(bench["id"]), Side.BATTER)
    assert learned is not None
    assert learned.hz2_per_turn == pytest.approx(sum(kind["weight"] * kind["mean"][0] for kind in kept.kinds), rel=1e-9)
    house.drum.fittings.filter(retired_at__isnull=True).update(head="another")
    _, other = api("GET", f"/sound/{house.drum.tag}")
    assert "on this drum" not in other["sides"][0]["answer"]


def test_what_others_of_its_sort_taught_is_expected_of_a_drum_first_cleared(house: House, hands: Hands) -> None:
    """Three more rack toms of this size, rods and hoops are known; one of another size says nothing."""
    to_clear(hands)
    hands.read_round(0, "200", "204", "207", "200.5", "204", "207.5")
    job = job_by_id(hands.job)
    state = look_at(job).state
    assert answer_before(job, state, Side.BATTER) is None
    harmonics, rods = 4, 6
    covariance = np.diag([1e4] * harmonics + [0.01] * rods).tolist()
    for number, per_turn in enumerate((60_000.0, 66_000.0, 72_000.0, 900_000.0)):
        other = make_drum(house.workshop, f"OT-00{number}", **({"diameter_m": 0.4} if number == 3 else {}))
        kind = {
            "name": "local",
            "weight": 1.0,
            "mean": [per_turn, *[0.3 * per_turn] * 3, *[0.0] * rods],
            "covariance": covariance,
        }
        KeptAnswer.objects.create(
            workshop=house.workshop,
            drum=other,
            side="batter",
            head="h",
            rods=[1, 2, 3, 4, 5, 6],
            rounds=2,
            kinds=[kind],
        )
    taught = answer_before(job, state, Side.BATTER)
    assert taught is not None
    assert taught.hz2_per_turn == pytest.approx(66_000)
    assert taught.rounds == 0


OLD_PLAN = {
    "turns": {"1": 2}, "predicted_hz": {"1": 200.0}, "predicted_sd_hz": {"1": 1.0}, "wanted_hz": 200.0, "spread_hz": 5.0,
    "allowed_hz": 2.0, "mean_hz": 199.0, "predicted_spread_hz": 1.0, "predicted_mean_hz": 200.0, "clear": False,
    "verdict": "v", "why_round": "w", "why_rod": {"1": "r"}, "too_coarse": "",
}  # fmt: skip


def test_a_plan_stored_before_other_means_existed_is_still_read() -> None:
    entry = entry_from(upcast_entry({"kind": "plan", "lap": 0, "found": OLD_PLAN}), 2)
    assert isinstance(entry, RoundPlanned)
    plan = entry.found
    assert plan is not None
    assert (plan.wanted, plan.spread, plan.unit) == (200.0, 5.0, "Hz")
    assert plan.turns[1].thirtyseconds == 2
    assert not plan.pull.clear


def test_a_stored_plan_comes_back_as_it_went_in(check: Hands) -> None:
    check.read_round(0, "206", "210", "214", "206.5", "210", "213.5")
    check.do(kind="plan", step="clear", lap=0)
    stored = JobEvent.objects.get(job_id=check.job, kind="plan").body["found"]
    entry = entry_from(JobEvent.objects.get(job_id=check.job, kind="plan").body, 2)
    assert isinstance(entry, RoundPlanned)
    plan = entry.found
    assert plan is not None
    assert plan.predicted[1] == stored["predicted"]["1"]
    assert plan.pull.told_by == tuple(stored["pull"]["told_by"])


class TestSound:
    """Film, turns and two heads of one drum."""

    def test_both_sides_say_what_film_and_turns_they_ask(self, api: Api, house: House) -> None:
        house.drum.fittings.update(head="single 10 coated")
        _, sound = api("GET", f"/sound/{house.drum.tag}")
        batter = sound["sides"][0]
        assert batter["film"]["allowed"]
        assert "One turn of every rod moves it about" in batter["answer"]
        assert sound["choices"][0]["id"] == "long"

    def test_a_minor_third_above_is_nearly_six_fifths(self, api: Api, house: House) -> None:
        """Common practice F7: ratio about 1.19."""
        _, plan = api("GET", f"/sound/{house.drum.tag}/two-heads?sound=punchy&batter=180")
        assert plan["resonant"]["hz"] / plan["batter"]["hz"] == pytest.approx(1.19, abs=0.002)
        assert plan["assumed"]

    def test_the_fundamental_comes_back_from_the_plan_made_for_it(self, api: Api, house: House) -> None:
        _, plan = api("GET", f"/sound/{house.drum.tag}/two-heads?sound=long&fundamental=110")
        assert plan["fundamental_hz"] == pytest.approx(110, abs=0.2)

    @pytest.mark.parametrize("query", ["sound=loud&batter=180", "sound=long", "sound=long&batter=180&fundamental=90"])
    def test_what_cannot_be_planned_is_refused(self, api: Api, house: House, query: str) -> None:
        status, answer = api("GET", f"/sound/{house.drum.tag}/two-heads?{query}")
        assert status == 422
        assert answer["message"]

    def test_usual_targets_are_set_logged_and_kept_within_the_film(self, api: Api, house: House) -> None:
        house.drum.fittings.update(head="single 10 coated")
        path = f"/sound/{house.drum.tag}/wanted"
        assert api("PUT", path, {"batter": "195", "resonant": "232"})[0] == 200
        house.drum.refresh_from_db()
        assert (house.drum.wanted_batter_hz, house.drum.wanted_resonant_hz) == (195, 232)
        assert "195.0" in LogEntry.objects.get(drum=house.drum, kind="targets").text
        status, answer = api("PUT", path, {"batter": "900", "resonant": ""})
        assert (status, answer["code"]) == (422, "beyond_limits")

    def test_a_viewer_may_look_but_not_set(self, house: House) -> None:
        looker = Api(house.viewer)
        assert looker("GET", f"/sound/{house.drum.tag}")[0] == 200
        assert looker("PUT", f"/sound/{house.drum.tag}/wanted", {"batter": "190"})[0] == 403
