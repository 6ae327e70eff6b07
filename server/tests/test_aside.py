"""A job begun by mistake is put aside: its reason is kept, nothing of it counts, and it can be taken up again."""

from __future__ import annotations

import pytest
from house import Api, Hands, House, start_body

from apps.bench.models import Job
from apps.followups.models import FollowUp
from apps.heads.models import Fitting, StockItem
from apps.history.models import LogEntry, PitchRecord


def aside(hands: Hands, because: str = "Another drum was meant") -> tuple[int, dict]:
    return hands.api("POST", f"/bench/jobs/{hands.job}/aside", {"because": because})


def test_nothing_of_it_counts_and_its_reason_is_kept(hands: Hands, house: House) -> None:
    before = [list(of.objects.order_by("pk").values()) for of in (Fitting, StockItem, FollowUp, PitchRecord)]
    hands.do(kind="step_done", step="lay-out")
    assert aside(hands)[0] == 204
    assert [list(of.objects.order_by("pk").values()) for of in (Fitting, StockItem, FollowUp, PitchRecord)] == before
    bench = hands.api("GET", f"/bench/jobs/{hands.job}")[1]["bench"]
    assert (bench["state"], bench["aside"]["because"]) == ("aside", "Another drum was meant")
    entry = LogEntry.objects.first()
    assert entry is not None
    assert (entry.text, entry.outcome) == ("Put aside, nothing of it counts: New batter head", "Another drum was meant")
    assert all(item["job_id"] != hands.job for item in hands.api("GET", "/today")[1]["items"])


def test_the_drum_is_free_for_another_job(hands: Hands, house: House) -> None:
    aside(hands)
    assert hands.api("POST", "/bench/jobs", start_body(house.drum))[0] == 201
    status, answer = hands.api("DELETE", f"/bench/jobs/{hands.job}/aside")
    assert (status, answer["code"]) == (409, "in_hand")
    assert Job.objects.get(pk=hands.job).state == "aside"


def test_it_is_taken_up_where_it_was_left(hands: Hands) -> None:
    hands.do(kind="step_done", step="lay-out")
    where = Job.objects.get(pk=hands.job).where
    aside(hands)
    assert hands.api("DELETE", f"/bench/jobs/{hands.job}/aside")[0] == 204
    job = Job.objects.get(pk=hands.job)
    assert (job.state, job.closed_at, job.where, job.aside_because) == ("open", None, where, "")
    assert hands.do(kind="step_done", step="mark")["standing"] == "applied"


def test_what_a_device_still_sends_waits_there(hands: Hands) -> None:
    late = hands.event(kind="note", text="made without network")
    early = hands.event(kind="note", text="before")
    hands.api("POST", f"/bench/jobs/{hands.job}/events", {"events": [early]})
    aside(hands)
    receipts = hands.api("POST", f"/bench/jobs/{hands.job}/events", {"events": [early, late]})[1]["receipts"]
    assert [each["standing"] for each in receipts] == ["applied", "refused"]
    assert "Take it up again" in receipts[1]["message"]
    hands.api("DELETE", f"/bench/jobs/{hands.job}/aside")
    receipts = hands.api("POST", f"/bench/jobs/{hands.job}/events", {"events": [late]})[1]["receipts"]
    assert [each["standing"] for each in receipts] == ["applied"]


def test_asked_twice_it_is_done_once(hands: Hands) -> None:
    assert [aside(hands)[0], aside(hands, "Not now")[0]] == [204, 204]
    assert Job.objects.get(pk=hands.job).aside_because == "Another drum was meant"
    assert LogEntry.objects.filter(text__startswith="Put aside").count() == 1
    for _ in range(2):
        assert hands.api("DELETE", f"/bench/jobs/{hands.job}/aside")[0] == 204


@pytest.mark.parametrize("because", ["", "   ", "x" * 201, "a\nb"])
def test_a_reason_is_asked_for(hands: Hands, because: str) -> None:
    assert aside(hands, because)[0] == 422


def test_a_viewer_and_a_stranger_cannot(hands: Hands, house: House, other: House) -> None:
    for member, status in ((house.viewer, 403), (other.technician, 404)):
        assert Api(member)("POST", f"/bench/jobs/{hands.job}/aside", {"because": "Not now"})[0] == status


def test_a_closed_job_cannot_be_put_aside(hands: Hands) -> None:
    from django.utils import timezone

    Job.objects.filter(pk=hands.job).update(state="closed", closed_at=timezone.now())
    assert aside(hands)[0] == 409
