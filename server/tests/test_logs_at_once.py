"""Entries sent at the same moment, each in a connection of its own: none lost, none doubled, all in the record."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from datetime import timedelta
from typing import Any

import pytest
from django.db import transaction
from django.utils import timezone
from house import Api, House, make_house, start_body
from test_people_at_once import at_once
from test_walks import LOOKED, Walker, seen, walk_of

from apps.bench.models import DrumFinding, JobEvent
from apps.callouts.models import CallOut, CallOutEvent
from apps.inspecting.models import WalkEvent

pytestmark = pytest.mark.django_db(transaction=True)
TRIES = 6


@pytest.fixture
def house() -> House:
    with transaction.atomic():
        return make_house("wharf")


def posting(house: House, path: str, event: dict[str, Any], said: list[dict[str, Any]]) -> Callable[[], None]:
    """One device of its own that sends one entry."""
    api = Api(house.technician)

    def act() -> None:
        status, answer = api("POST", path, {"events": [event]})
        assert status == 200, answer
        said.extend(answer["receipts"])

    return act


def begins(house: House, path: str, asked: dict[str, Any], came: list[int]) -> Callable[[], None]:
    return lambda: came.append(Api(house.technician)("POST", path, asked)[0])


def test_what_was_seen_beside_looked_is_in_the_record(house: House) -> None:
    missing = []
    for _ in range(TRIES):
        walker = walk_of(Api(house.technician), "WR-001")
        looked, found = (
            walker.event(drum="WR-001", **LOOKED),
            walker.event(drum="WR-001", **seen("coat-worn", 2, side="batter")),
        )
        said: list[dict[str, Any]] = []
        path = f"/inspect/walks/{walker.walk}/events"
        at_once([posting(house, path, each, said) for each in (looked, found)])
        assert {each["standing"] for each in said} == {"applied"}
        with transaction.atomic():
            house.enter()
            if not DrumFinding.objects.filter(finding="coat-worn", put_right_at=None).exists():
                missing.append(walker.walk)
            DrumFinding.objects.all().delete()
    assert missing == []


def walk_log(house: House) -> tuple[str, Callable[[], dict[str, Any]], Any, str]:
    walker = walk_of(Api(house.technician), "WR-001")
    made = lambda: walker.event(drum="WR-001", **seen("coat-worn", 2, side="batter"))  # noqa: E731
    return f"/inspect/walks/{walker.walk}/events", made, WalkEvent.objects.filter(walk=walker.walk), walker.walk


def job_log(house: House) -> tuple[str, Callable[[], dict[str, Any]], Any, str]:
    _, job = Api(house.technician)("POST", "/bench/jobs", start_body(house.drum, "settling-check"))
    walker = Walker(Api(house.technician), "")
    made = lambda: walker.event(kind="note", text="heard") | {"v": 2}  # noqa: E731
    return f"/bench/jobs/{job['id']}/events", made, JobEvent.objects.filter(job=job["id"], kind="note"), job["id"]


def callout_log(house: House) -> tuple[str, Callable[[], dict[str, Any]], Any, str]:
    api = Api(house.technician)
    kit = api("POST", "/kits", {"name": f"kit {uuid.uuid4().hex[:6]}", "drums": [{"tag": "WR-001"}]})[1]["id"]
    key = api("POST", "/callouts", {"id": str(uuid.uuid4()), "kit": kit, "minutes": 12})[1]["id"]
    walker = Walker(api, "")
    made = lambda: walker.event(kind="ticked", drum="WR-001", finding="rod-missing", side="batter", rod=2)  # noqa: E731
    return f"/callouts/{key}/events", made, CallOutEvent.objects.filter(callout=key), key


@pytest.mark.parametrize("log", [walk_log, job_log, callout_log])
def test_every_log_takes_each_entry_once_and_numbers_them_one_after_the_other(house: House, log: Any) -> None:
    with transaction.atomic():
        house.enter()
    path, made, rows, _ = log(house)
    for _ in range(3):
        events = [made() for _ in range(4)]
        said: list[dict[str, Any]] = []
        acts = [posting(house, path, each, said) for each in events for _ in range(2)]  # each by two devices at once
        assert at_once(acts) == ["done"] * len(acts)
        assert {each["standing"] for each in said} == {"applied"}, said
        for each in events:
            assert len({one["seq"] for one in said if one["id"] == each["id"]}) == 1
    with transaction.atomic():
        house.enter()
        seqs = list(rows.values_list("seq", flat=True))
        assert len(seqs) == len(set(seqs)) == 12
        assert max(seqs) - min(seqs) == 11


def test_a_walk_or_a_callout_begun_twice_at_once_is_one(house: House) -> None:
    api = Api(house.technician)
    kit = api("POST", "/kits", {"name": "dune kit", "drums": [{"tag": "WR-001"}]})[1]["id"]
    for path, body in (("/inspect/walks", {"tags": ["WR-001"]}), ("/callouts", {"kit": kit, "minutes": 12})):
        for _ in range(TRIES):
            asked, came = {**body, "id": str(uuid.uuid4())}, list[int]()
            at_once([begins(house, path, asked, came)] * 3)
            assert sorted(came) == [201] * 3
    with transaction.atomic():
        house.enter()
        assert CallOut.objects.count() == TRIES


class TestClocks:
    """Work entered offline keeps its times; a clock is off only when it is."""

    @staticmethod
    def sent(house: House, log: Any, made_ago: timedelta, told_off: timedelta | None) -> tuple[Any, str]:
        """One entry, of a device whose clock is off by so much (None: it does not say), made so long before it is sent."""
        path, made, rows, _ = log(house)
        clock = timezone.now() + (told_off or timedelta())
        event = made() | {"made_at": (clock - made_ago).isoformat()}
        body: dict[str, Any] = {"events": [event]}
        if told_off is not None:
            body["sent_at"] = clock.isoformat()
        status, answer = Api(house.technician)("POST", path, body)
        assert status == 200, answer
        (receipt,) = answer["receipts"]
        assert receipt["standing"] == "applied"
        with transaction.atomic():
            house.enter()
            return timezone.now() - rows.get(pk=event["id"]).made_at, receipt["code"]

    @pytest.mark.parametrize("log", [walk_log, job_log, callout_log])
    @pytest.mark.parametrize("told", [timedelta(), None])
    def test_days_without_network_keep_their_times(self, house: House, log: Any, told: timedelta | None) -> None:
        ago, code = self.sent(house, log, timedelta(days=9), told)
        assert ago == pytest.approx(timedelta(days=9), abs=timedelta(minutes=1))
        assert code == ""

    @pytest.mark.parametrize("off", [timedelta(hours=3), timedelta(days=-400), timedelta(days=3650)])
    def test_a_clock_that_is_off_is_put_right_by_as_much(self, house: House, off: timedelta) -> None:
        ago, code = self.sent(house, job_log, timedelta(days=2), off)
        assert ago == pytest.approx(timedelta(days=2), abs=timedelta(minutes=1))
        assert code == "clock_off"

    def test_made_after_it_was_sent_or_long_before_is_of_no_clock(self, house: House) -> None:
        for ago in (timedelta(hours=-2), timedelta(days=800)):
            counted, code = self.sent(house, walk_log, ago, timedelta())
            assert counted < timedelta(minutes=1)
            assert code == "clock_off"
        ahead, code = self.sent(house, job_log, timedelta(days=-3), None)
        assert ahead < timedelta(minutes=1)
        assert code == "clock_off"
