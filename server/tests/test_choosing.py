"""What head goes on, matched with what lies on the shelf. Rules C1 to C10 are common practice, no source."""

from __future__ import annotations

import uuid
from typing import Any
from urllib.parse import urlencode

import pytest
from django.utils import timezone
from house import INCH, Api, House, make_drum

from apps.heads import lives
from apps.heads.models import Fitting, HeadLine, StockItem, WireLine
from apps.heads.promises import promise


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


class TestWires:
    def snare(self, house: House) -> Any:
        return make_drum(house.workshop, "WR-020", name="Knot", kind="snare", diameter_m=14 * INCH, snare_bed=True, rods_batter=8, rods_resonant=8)  # fmt: skip

    def set_of(self, house: House, inches: float, name: str = "20 strands, cord", **facts: Any) -> StockItem:
        line, _ = WireLine.objects.get_or_create(workshop=house.workshop, name=name, defaults=facts)
        return StockItem.objects.create(workshop=house.workshop, sort="wires", wires=line, diameter_m=inches * INCH, count=1)  # fmt: skip

    def test_sets_that_go_under_it_are_offered_and_what_is_longer_than_the_bed_never(
        self, api: Api, house: House
    ) -> None:
        drum = self.snare(house)
        fits, long = self.set_of(house, 14), self.set_of(house, 15)
        found = api("GET", f"/heads/choose-wires/{drum.tag}")[1]
        offered = [line["stock_item"] for each in found["answers"] for line in each["lines"]]
        assert offered == [fits.pk]
        assert long.pk not in offered + [line["stock_item"] for line in found["others"]]
        assert [each["rule"] for each in found["excluded"]] == ["WX-long"]

    def test_what_the_strainer_cannot_clamp_is_told(self, api: Api, house: House) -> None:
        drum = self.snare(house)
        self.set_of(house, 14, "16 strands, strap", strands=16, tie="strap")
        found = api("GET", f"/heads/choose-wires/{drum.tag}?clamps=cord")[1]
        assert "16 strands, strap, 14 in" in found["excluded"][0]["words"]

    def test_a_set_promised_to_this_drum_is_free_for_it_and_for_no_other(self, api: Api, house: House) -> None:
        drum, other = self.snare(house), make_drum(house.workshop, "WR-022", name="Pintail", kind="snare", diameter_m=14 * INCH, snare_bed=True)  # fmt: skip
        promise(self.set_of(house, 14).pk, drum, uuid.uuid4(), "wires", house.technician)
        free = [
            [line["free"] for each in api("GET", f"/heads/choose-wires/{tag}")[1]["answers"] for line in each["lines"]]
            for tag in (drum.tag, other.tag)
        ]
        assert free == [[1], [0]]

    def test_a_tom_has_no_wires_and_no_beater(self, api: Api, house: House) -> None:
        assert api("GET", f"/heads/choose-wires/{house.drum.tag}")[0] == 422
        assert api("GET", f"/heads/choose-beater/{house.drum.tag}")[0] == 422

    def test_a_bass_drum_with_a_coated_ply_wants_a_patch_under_wood(self, api: Api, house: House) -> None:
        bass = make_drum(house.workshop, "WR-021", name="Hulk", kind="bass", diameter_m=22 * INCH)
        Fitting.objects.create(workshop=house.workshop, drum=bass, side="batter", head="single 10 coated", fitted_at=timezone.now())  # fmt: skip
        found = api("GET", f"/heads/choose-beater/{bass.tag}?sound=articulate")[1]
        assert found["now"] == "single 10 coated"
        assert found["answers"][0]["words"] in ("wood, film patch", "plastic, film patch")
        assert "wood, no patch" in [each["words"] for each in found["excluded"]]


def test_how_long_a_head_lasts_here_is_said_beside_it(api: Api, house: House) -> None:
    for n in range(3):
        Fitting.objects.create(
            workshop=house.workshop, drum=make_drum(house.workshop, f"WR-03{n}"), side="batter", head="single 10 coated", retired_because="worn",
            fitted_at=timezone.now() - timezone.timedelta(days=300), retired_at=timezone.now() - timezone.timedelta(days=60),
        )  # fmt: skip
    lives.known_of(house.workshop, fresh=True)
    found = api("GET", f"/heads/choose/{house.drum.tag}/batter?months=36&budget=low")[1]
    line = next(line for each in found["answers"] for line in each["lines"] if line["stock_item"] == house.stock.pk)
    assert line["lasts"].startswith("lasts about ")
    assert line["too_short"]
