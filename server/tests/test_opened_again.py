"""A job closed too soon: within a day it is opened again by who closed it, and all that followed from closing is taken back exactly."""

from __future__ import annotations

import json
from datetime import timedelta
from typing import Any

import pytest
from django.core.serializers.json import DjangoJSONEncoder
from django.utils import timezone
from house import Api, Hands, House, start_body

from apps.bench.models import DrumFinding, Job, KeptAnswer
from apps.followups.models import FollowUp
from apps.heads.models import Fitting, StockItem
from apps.history.models import LogEntry, PitchRecord
from apps.register.models import Drum

TOUCHED = (Fitting, FollowUp, StockItem, PitchRecord, KeptAnswer, DrumFinding, Drum)


def stands() -> str:
    """Every row of every table that closing a job may touch."""
    return json.dumps(
        {of.__name__: list(of.objects.order_by("pk").values()) for of in TOUCHED}, cls=DjangoJSONEncoder, sort_keys=True
    )


@pytest.fixture
def closed(hands: Hands, house: House) -> str:
    """A new head fitted, cleared, a rod found missing, closed; what stood before it was."""
    FollowUp.objects.create(workshop=house.workshop, drum=house.drum, side="batter", due_at=timezone.now(), why="check")
    for step in ("lay-out", "mark", "slacken", "lift-off", "clean", "set-head", "fingers", "seat", "tension"):
        hands.do(kind="step_done", step=step)
    hands.read_round(0, *["209.8", "210.1", "210.2", "209.9", "210.0", "210.1"])
    before = stands()
    receipt = hands.do(kind="close", reason="dents or craters", check=True)
    assert receipt["standing"] == "applied", receipt
    return before


def again(hands: Hands) -> tuple[int, Any]:
    return hands.api("POST", f"/bench/jobs/{hands.job}/open-again")


def test_everything_is_taken_back_exactly(hands: Hands, house: House, closed: str) -> None:
    assert stands() != closed
    assert StockItem.objects.get().count == 1
    assert again(hands)[0] == 204
    assert stands() == closed
    job = Job.objects.get(pk=hands.job)
    assert (job.state, job.closed_at, job.changed) == ("open", None, {})
    bench = hands.look()
    assert bench["state"] == "open"
    assert [entry.outcome for entry in LogEntry.objects.filter(job_id=job.pk, kind="new-batter-head")] == [
        "opened again"
    ]


def test_it_is_closed_again_with_the_same_effects(hands: Hands, house: House, closed: str) -> None:
    again(hands)
    hands.seen = Job.objects.get(pk=hands.job).last_seq
    assert hands.do(kind="close", reason="dents or craters", check=True)["standing"] == "applied"
    assert StockItem.objects.get().count == 1
    assert Fitting.objects.get(retired_at__isnull=True).head == "single 10 coated"
    assert FollowUp.objects.filter(done_at__isnull=True).count() == 1


def test_what_others_took_from_the_shelf_meanwhile_stays_taken(hands: Hands, closed: str) -> None:
    StockItem.objects.update(count=0)
    assert again(hands)[0] == 204
    assert StockItem.objects.get().count == 1


def test_where_something_was_built_on_it_it_stays_closed_and_says_what(hands: Hands, closed: str) -> None:
    Fitting.objects.filter(retired_at__isnull=True).update(head="another head")
    was = stands()
    status, answer = again(hands)
    assert (status, answer["code"]) == (409, "moved_on")
    assert "what is fitted" in answer["message"]
    assert stands() == was


def test_after_a_day_and_by_others_it_stays_closed_but_an_owner_may(hands: Hands, house: House, closed: str) -> None:
    from django.contrib.auth.models import User

    from apps.workshops.models import Membership

    bo = Membership.objects.create(
        user=User.objects.create(username="bo"), workshop=house.workshop, role="technician", shown_name="Bo"
    )
    status, answer = Api(bo)("POST", f"/bench/jobs/{hands.job}/open-again")
    assert (status, answer["code"]) == (403, "not_yours")
    assert "technician of wharf closed this job" in answer["message"]
    bo.role = "owner"
    bo.save()
    Job.objects.filter(pk=hands.job).update(closed_at=timezone.now() - timedelta(hours=25))
    assert again(hands)[1]["code"] == "too_late"
    assert Api(bo)("POST", f"/bench/jobs/{hands.job}/open-again")[1]["code"] == "too_late"
    Job.objects.filter(pk=hands.job).update(closed_at=timezone.now() - timedelta(hours=23))
    assert Api(bo)("POST", f"/bench/jobs/{hands.job}/open-again")[0] == 204


def test_while_another_job_is_in_hand_it_stays_closed(hands: Hands, house: House, closed: str) -> None:
    hands.api("POST", "/bench/jobs", start_body(house.drum, work="settling-check"))
    was = stands()
    assert again(hands)[1]["code"] == "in_hand"
    assert stands() == was


def test_a_line_of_the_history_is_corrected_beside_it(hands: Hands, house: House, closed: str) -> None:
    line = LogEntry.objects.get(kind="new-batter-head")
    path = f"/register/drums/{house.drum.tag}/log"
    assert hands.api("POST", f"{path}/{line.pk}/correction", {"text": "It was a single 7."})[0] == 204
    log = hands.api("GET", f"/register/drums/{house.drum.tag}/sheet")[1]["log"]
    assert (log[0]["kind"], log[0]["text"]) == ("correction", "Correction: It was a single 7.")
    assert log[0]["record"]["corrects"]["text"] == line.text
    assert line.text in [each["text"] for each in log]
    assert hands.api("POST", f"{path}/{line.pk}/correction", {"text": " "})[0] == 422
    assert hands.api("POST", f"{path}/999999/correction", {"text": "x"})[0] == 404
