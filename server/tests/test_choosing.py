"""What head goes on, matched with what lies on the shelf. Rules C1 to C10 are common practice, no source."""

from __future__ import annotations

from typing import Any
from urllib.parse import urlencode

import pytest
from house import INCH, Api, House, make_drum

from apps.heads.models import Fitting, HeadLine, StockItem


def stocked(house: House, name: str, count: int = 1, **facts: Any) -> StockItem:
    line = HeadLine.objects.create(workshop=house.workshop, name=name, **facts)
    return StockItem.objects.create(workshop=house.workshop, line=line, diameter_m=12 * INCH, count=count, shelf="B2")


def choose(api: Api, side: str = "batter", tag: str = "WR-001", **asked: Any) -> dict[str, Any]:
    status, found = api("GET", f"/heads/choose/{tag}/{side}?{urlencode(asked, doseq=True)}")
    assert status == 200, found
    return dict(found)


def test_answers_first_as_specifications_then_as_what_lies_there(api: Api, house: House) -> None:
    """C4: low and short, a two-ply coated head."""
    double = stocked(house, "double 7+7 coated", plies=2, film_mil=14, finish="coated")
    found = choose(api, sound=["low", "short"], needs=["brushes"])
    assert 2 <= len(found["answers"]) <= 3
    lines = {line["stock_item"]: line for each in found["answers"] for line in each["lines"]}
    assert lines[double.pk]["free"] == 1
    assert all(each["speaks_for"] for each in found["answers"])


def test_what_changes_is_told_against_the_head_that_is_on(api: Api, house: House) -> None:
    HeadLine.objects.create(workshop=house.workshop, name="single 10 clear", finish="clear")
    first = choose(api, sound=["low", "short"])["answers"][0]
    told = {each["what"]: each for each in first["changes"]}
    assert told["pitch at the rods, at the same tension"]["computed"]
    assert "lower" in told["pitch at the rods, at the same tension"]["words"]  # more film, lower: f goes with 1/√(mass)
    assert not told["life"]["computed"]


def test_a_snare_side_film_is_never_offered_as_a_batter_and_says_why(api: Api, house: House) -> None:
    """C3."""
    thin = stocked(house, "snare side 3", film_mil=3, finish="clear")
    found = choose(api)
    offered = {line["stock_item"] for each in found["answers"] for line in each["lines"]} | {
        line["stock_item"] for line in found["others"]
    }
    assert thin.pk not in offered
    assert any("snare side 3" in each["words"] and "thin" in each["because"] for each in found["excluded"])


def test_heads_promised_to_other_drums_are_not_free(api: Api, house: House) -> None:
    other = make_drum(house.workshop, "WR-009", name="Swift")
    Api(house.technician)("POST", "/bench/jobs", {
        "id": "6f8e5a0e-6a1d-4a53-8b4e-0d4f5d9f1c11", "tag": other.tag, "work": "new-batter-head", "part": "batter",
        "heads": [{"side": "batter", "stock_item": house.stock.pk}],
    })  # fmt: skip
    found = choose(api, use="school")
    lines = [line for each in found["answers"] for line in each["lines"]] + found["others"]
    assert [line["free"] for line in lines if line["stock_item"] == house.stock.pk] == [1]


def test_skin_on_a_rope_drum_is_chosen_by_hand(api: Api, house: House) -> None:
    make_drum(house.workshop, "WR-050", name="Sloop", kind="rope-bass", rods_batter=0, rods_resonant=0)
    assert choose(api, tag="WR-050")["answers"] == []


@pytest.mark.parametrize("asked", [{"use": "ballet"}, {"sound": ["yellow"]}, {"needs": ["money"]}])
def test_a_word_nobody_knows_is_refused_in_words(api: Api, asked: dict[str, Any]) -> None:
    status, answer = api("GET", f"/heads/choose/WR-001/batter?{urlencode(asked, doseq=True)}")
    assert (status, bool(answer["message"])) == (422, True)


def test_an_unknown_present_head_leaves_out_what_changes(api: Api) -> None:
    Fitting.objects.all().delete()
    found = choose(api)
    assert (found["now"], found["answers"][0]["changes"]) == ("", [])
