"""One job does it otherwise than the workshop: at its start, and in the middle, where what is left is planned anew."""

import pytest
from house import Api, Hands, House, start_body

from apps.bench.models import Job, JobEvent
from apps.bench.stored import PLAN_SHAPE
from drumwork.work.schools import SCHOOLS

SEAT = ("lay-out", "mark", "slacken", "lift-off", "clean", "set-head", "fingers")


def school_of(found: list[dict[str, object]], way: str) -> dict[str, object]:
    return next(each for each in found if each["way"] == way)


def test_what_matters_to_a_job_is_told_before_it_starts(api: Api, house: House) -> None:
    status, found = api("GET", f"/bench/work/{house.drum.tag}/new-batter-head/batter/schools")
    assert status == 200
    assert {"stretch", "logo", "grease", "pattern"} <= {each["way"] for each in found}
    assert "first_head" not in {each["way"] for each in found}  # one head: nothing to choose
    stretch = school_of(found, "stretch")
    words = {choice.value: choice for choice in SCHOOLS[3].choices}
    assert [(each["value"], each["speaks_for"]) for each in stretch["choices"]] == [
        (value, choice.speaks_for) for value, choice in words.items()
    ]


def test_a_job_begins_in_the_ways_asked_for_and_the_workshops_stay(api: Api, house: House) -> None:
    _, bench = api("POST", "/bench/jobs", start_body(house.drum, schools={"stretch": "barely", "grease": "never"}))
    seat = next(step for step in bench["plan"] if step["id"] == "seat")
    assert "lightly" in seat["say"]
    assert api("GET", "/session")[1]["workshop"]["stretch"] == "palm"


@pytest.mark.parametrize("schools", [{"stretch": "jump"}, {"a4_hz": "442"}, {"no-such": "way"}])
def test_a_way_nobody_knows_starts_nothing(schools: dict[str, str], api: Api, house: House) -> None:
    status, answer = api("POST", "/bench/jobs", start_body(house.drum, schools=schools))
    assert (status, "no such choice" in answer["message"]) == (422, True)
    assert not Job.objects.exists()


def test_changed_in_the_middle_what_is_left_is_planned_anew_and_kept_with_the_entry(api: Api, hands: Hands) -> None:
    hands.send(*[hands.event(kind="step_done", step=step) for step in SEAT])
    found = api("GET", f"/bench/jobs/{hands.job}/schools")[1]
    assert school_of(found, "stretch")["now"] == "palm"
    receipt = hands.do(kind="school", way="stretch", value="over-tension")
    assert receipt["standing"] == "applied"
    bench = hands.look()
    (anew,) = bench["anew"]
    assert anew["entry"] == bench["log"][-1]["id"]
    seat = next(step for step in anew["plan"] if step["id"] == "seat")
    assert "back right off" in seat["say"]
    assert "palm" in next(step for step in bench["plan"] if step["id"] == "seat")["say"]  # as the job began
    assert JobEvent.objects.get(pk=anew["entry"]).body["plan"]["shape"] == PLAN_SHAPE
    assert school_of(api("GET", f"/bench/jobs/{hands.job}/schools")[1], "stretch")["now"] == "over-tension"
    hands.do(kind="step_done", step="seat")
    refused = hands.do(kind="school", way="stretch", value="palm")
    assert (refused["standing"], refused["message"]) == ("refused", "Nothing that is left of this job depends on it.")


def test_two_devices_choosing_differently_is_a_conflict_and_either_can_be_taken(api: Api, hands: Hands) -> None:
    other = Hands(api, hands.job, "phone")
    other.seen = hands.seen = hands.look()["last_seq"]
    first = hands.event(kind="school", way="stretch", value="over-tension")
    second = other.event(kind="school", way="stretch", value="barely")
    hands.send(first)
    assert other.send(second)[0]["standing"] == "conflict"
    assert hands.look()["conflicts"][0]["second"].endswith("from here on barely")
    hands.do(kind="settle", event=second["id"], take="second")
    assert hands.folded().plan.ways.stretch == "barely"
    hands.do(kind="undo", event=second["id"])
    assert hands.folded().plan.ways.stretch == "over-tension"


def test_a_viewer_looks_on(house: House, hands: Hands) -> None:
    viewer = Api(house.viewer)
    assert viewer("GET", f"/bench/jobs/{hands.job}/schools")[0] == 200
    status, _ = viewer("POST", f"/bench/jobs/{hands.job}/events", {"events": [hands.event(kind="school", way="stretch", value="barely")]})  # fmt: skip
    assert status == 403
