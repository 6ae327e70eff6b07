"""A job as the Bench opens it is written once; a change in anything it was made of, by whatever way, is seen at once."""

import json
from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from house import Api, Hands, House, make_house

from apps.bench.models import JobHead, KeptAnswer
from apps.bench.opening import opened_bench
from apps.bench.selectors import job_by_id, written_bench
from apps.heads.models import Fitting, HeadLine, StockItem
from apps.register.models import Drum
from apps.workshops.models import Workshop


def _learned(house: House) -> None:
    KeptAnswer.objects.create(
        workshop=house.workshop, drum=house.drum, side="batter", head="single 10 coated", rods=[1, 2, 3, 4, 5, 6], rounds=3,
        kinds=[{"name": "modal", "weight": 1.0, "mean": [0.5, 0.1, 0.1], "covariance": [[0.01, 0, 0], [0, 0.01, 0], [0, 0, 0.01]]}],
    )  # fmt: skip


def _fit(house: House) -> None:
    Fitting.objects.filter(drum=house.drum).update(retired_at=timezone.now())


CHANGES: dict[str, Callable[[House], Any]] = {
    "the drum": lambda house: Drum.objects.filter(pk=house.drum.pk).update(name="Renamed"),
    "the workshop": lambda house: Workshop.objects.filter(pk=house.workshop.pk).update(length_unit="cm"),
    "the job's head": lambda house: JobHead.objects.update(reason="torn"),
    "the stock": lambda house: StockItem.objects.filter(pk=house.stock.pk).update(diameter_m=0.33),
    "the line": lambda house: HeadLine.objects.update(film_mil=7.5),
    "what is fitted": _fit,
    "a line named like what is fitted": lambda house: HeadLine.objects.create(
        workshop=house.workshop, name="single 10 clear", finish="clear"
    ),
    "what was learned": _learned,
}


def _bench(answer: bytes) -> dict[str, Any]:
    bench: dict[str, Any] = json.loads(answer)["bench"]
    return bench


@pytest.mark.parametrize("changed", CHANGES)
def test_a_change_in_what_it_is_made_of_is_seen_at_once(changed: str, house: House, hands: Hands) -> None:
    job = job_by_id(hands.job)
    opened_bench(job.pk)
    with CaptureQueriesContext(connection) as asked:
        opened_bench(job.pk)
    assert len(asked) == 1  # as kept
    CHANGES[changed](house)
    with CaptureQueriesContext(connection) as asked:
        found = _bench(opened_bench(job.pk))
    assert len(asked) > 1  # written anew
    assert found == json.loads(written_bench(job_by_id(hands.job)))


def test_an_entry_and_a_new_month_are_seen_at_once(house: House, hands: Hands, monkeypatch: pytest.MonkeyPatch) -> None:
    job = job_by_id(hands.job)
    before = _bench(opened_bench(job.pk))
    hands.do(kind="note", text="a nick in the hoop")
    after = _bench(opened_bench(job.pk))
    assert after["last_seq"] == before["last_seq"] + 1
    assert after["log"][-1]["body"]["text"] == "a nick in the hoop"
    monkeypatch.setattr(timezone, "now", lambda: datetime(2031, 2, 3, tzinfo=UTC))
    assert _bench(opened_bench(job.pk))["write_on_head"] == "02 / 2031"


def test_what_one_workshop_opened_another_does_not_see(hands: Hands) -> None:
    assert hands.look()["id"] == hands.job
    stranger = Api(make_house("bell").technician)
    assert stranger("GET", f"/bench/jobs/{hands.job}")[0] == 404
