"""How long heads last here, and how sure Today is of an old head. Lives are common practice, no source; the mathematics is the core's, tested there."""

from __future__ import annotations

import uuid
from datetime import timedelta

import pytest
from django.utils import timezone
from house import Api, House, make_drum

from apps.heads import lives
from apps.heads.models import Fitting
from apps.inspecting.models import Walk, WalkDrum
from apps.inspecting.record import known_of
from drumwork.deciding import Drum, decide
from drumwork.drums import DrumKind


@pytest.fixture
def shop(house: House) -> House:
    """Ten toms whose batters came off after six months, all alike, and one taken off for another sound."""
    lives._KNOWN.clear()
    now = timezone.now()
    Fitting.objects.all().delete()
    for n in range(11):
        drum = make_drum(house.workshop, f"WR-{200 + n}", name=f"Tern {n}")
        for months, retired, because in ((20, 14, "dents or craters" if n else "another sound wanted"), (14, None, "")):
            Fitting.objects.create(
                workshop=house.workshop, drum=drum, side="batter", head="single 10 clear", fitted_at=now - timedelta(days=30.44 * months),
                retired_at=now - timedelta(days=30.44 * retired) if retired else None, retired_because=because,
            )  # fmt: skip
    return house


def test_a_shop_learns_from_its_own_heads(shop: House, api: Api) -> None:
    status, found = api("GET", "/heads/lives")
    (life,) = found["groups"]
    assert (status, life["words"], life["heads"], life["ended"]) == (
        200,
        "single 10 clear as rack tom batter",
        22,
        10,
    )
    assert [round(each["months"]) for each in life["curve"]] == [6]
    assert life["curve"][0]["share"] == pytest.approx(
        1 - 10 / 22, abs=0.03
    )  # one of the eleven was on no longer, and counts as far as it came
    assert 0.5 < life["own"] < 1
    assert len(found["likely"]) == 11
    assert found["ahead"][0]["what"] == "single 10 clear, 12 in"


def test_today_says_how_sure_it_is_of_an_old_head(shop: House, api: Api) -> None:
    lines = [each for each in api("GET", "/today")[1]["items"] if each["kind"] == "aged-head"]
    assert len(lines) == 11
    assert all(" of 10 like it are changed by then" in each["reason"] for each in lines)


def test_while_few_came_off_today_says_only_the_age(house: House, api: Api) -> None:
    lives._KNOWN.clear()
    (line,) = [each for each in api("GET", "/today")[1]["items"] if each["kind"] == "aged-head"]
    assert line["reason"] == "batter single 10 clear, 13 months old"


def test_another_workshops_heads_teach_nothing(shop: House, other: House) -> None:
    lives._KNOWN.clear()
    other.enter()
    groups = Api(other.technician)("GET", "/heads/lives")[1]["groups"]
    assert [each["heads"] for each in groups] == [1]


def test_hours_of_playing_say_that_a_batter_is_old_before_its_months_do(house: House) -> None:
    """Played six hours a week for about 57 weeks; the workshop gives a batter 250 hours, and 24 months."""
    house.workshop.batter_life_hours, house.workshop.batter_life_months = 250, 24
    house.workshop.save()
    walk = Walk.objects.create(id=uuid.uuid4(), workshop=house.workshop, started_at=timezone.now(), touched_at=timezone.now())  # fmt: skip
    of = WalkDrum(workshop=house.workshop, walk=walk, drum=house.drum)
    for hours, verdict in ((None, "nothing"), (2.0, "nothing"), (6.0, "replace-next")):
        house.drum.hours_week = hours
        known = known_of(of, house.workshop, timezone.now())
        decision = decide(Drum(DrumKind.RACK_TOM, 6, known.heads, lives=known.lives))
        assert decision.verdicts["batter"].value == verdict
