"""What the database itself will not hold."""

import uuid

import pytest
from django.db import IntegrityError, transaction
from django.db.backends.postgresql.psycopg_any import NumericRange
from django.utils import timezone
from house import House, make_drum

from apps.bench.models import PARTS, Job
from apps.heads.models import Fitting, StockItem
from apps.register.models import Drum

DAY = timezone.timedelta(days=1)


def test_two_heads_cannot_be_fitted_on_one_side_at_one_time(house: House) -> None:
    with pytest.raises(IntegrityError, match="fitting_one_head_a_side"), transaction.atomic():
        Fitting.objects.create(
            workshop=house.workshop, drum=house.drum, side="batter", head="x", fitted_at=timezone.now()
        )


def test_the_other_side_and_a_later_time_are_free(house: House) -> None:
    now = timezone.now()
    Fitting.objects.create(workshop=house.workshop, drum=house.drum, side="resonant", head="x", fitted_at=now)
    Fitting.objects.filter(drum=house.drum, side="batter").update(retired_at=now)
    Fitting.objects.create(workshop=house.workshop, drum=house.drum, side="batter", head="x", fitted_at=now)


def test_a_head_is_not_retired_before_it_was_fitted(house: House) -> None:
    # The range itself is refused by PostgreSQL before the check constraint is reached.
    with pytest.raises(Exception, match=r"fitting_order|range lower bound"), transaction.atomic():
        Fitting.objects.filter(drum=house.drum).update(retired_at=timezone.now() - 900 * DAY)


def test_the_shelf_does_not_go_below_nought(house: House) -> None:
    with pytest.raises(IntegrityError), transaction.atomic():
        StockItem.objects.filter(pk=house.stock.pk).update(count=-1)


@pytest.mark.parametrize(
    ("facts", "name"),
    [
        ({"diameter_m": 9.0}, "drum_diameter"),
        ({"depth_m": 0.0}, "drum_depth"),
        ({"rods_batter": 3}, "drum_rods"),
        ({"port_m": 0.5}, "drum_port"),
        ({"wanted_batter_hz": 10_000.0}, "drum_wanted"),
        ({"kind": "gong"}, "drum_kind_known"),
        ({"state": "eaten"}, "drum_state"),
        ({"tag": "WR-001"}, "drum_tag_unique"),
    ],
)
def test_impossible_drums_do_not_get_past_the_tables(house: House, facts: dict, name: str) -> None:
    with pytest.raises(IntegrityError, match=name), transaction.atomic():
        make_drum(house.workshop, **{"tag": "WR-002", **facts})
    assert Drum.objects.count() == 1


@pytest.mark.parametrize(
    ("one", "other", "together"),
    [
        ("batter", "batter", False),
        ("batter", "resonant", True),
        ("heads", "batter", False),
        ("resonant", "heads", False),
        ("wires", "heads", True),
        ("drum", "hardware", False),
        ("wires", "hardware", True),
    ],
)
def test_open_jobs_about_the_same_part_exclude_each_other(house: House, one: str, other: str, together: bool) -> None:
    facts = {"workshop": house.workshop, "drum": house.drum, "work": "x", "plan": {}, "plan_shape": 1}
    facts |= dict.fromkeys(("opened_at", "touched_at"), timezone.now())

    def job(part: str) -> dict[str, object]:
        return {**facts, "id": uuid.uuid4(), "part": part, "takes": NumericRange(*PARTS[part], "[)")}

    Job.objects.create(**job(one))
    if together:
        Job.objects.create(**job(other))
        return
    with pytest.raises(IntegrityError, match="job_one_open_a_part"), transaction.atomic():
        Job.objects.create(**job(other))


def test_a_job_takes_up_what_its_part_says(house: House) -> None:
    now = timezone.now()
    with pytest.raises(IntegrityError, match="job_part"), transaction.atomic():
        Job.objects.create(
            id=uuid.uuid4(), workshop=house.workshop, drum=house.drum, work="x", plan={}, plan_shape=1, part="heads",
            takes=NumericRange(0, 1, "[)"), opened_at=now, touched_at=now,
        )  # fmt: skip
