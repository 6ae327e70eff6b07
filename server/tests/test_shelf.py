"""Where tools lie and what is short: said once, told at every lay-out of the workshop, and of no other."""

import pytest
from house import Api, Hands, House, make_house, start_body


def thing(name: str = "thread oil", place: str = "drawer 3", short: bool = False) -> dict[str, object]:
    return {"name": name, "place": place, "short": short}


def test_where_a_thing_lies_is_said_once_and_known_by_everyone_here(api: Api, house: House) -> None:
    assert api("GET", "/shelf/things") == (200, [])
    assert api("PUT", "/shelf/things", thing())[0] == 200
    assert api("PUT", "/shelf/things", thing(place=" drawer 4 ", short=True))[0] == 200
    status, (one,) = Api(house.viewer)("GET", "/shelf/things")
    assert status == 200
    assert {name: one[name] for name in ("name", "place", "short", "said_by")} == {
        **thing(place="drawer 4", short=True),
        "said_by": "technician of wharf",
    }


def test_another_workshop_has_its_own_shelf(api: Api) -> None:
    api("PUT", "/shelf/things", thing())
    stranger = Api(make_house("bell").technician)
    assert stranger("GET", "/shelf/things") == (200, [])
    assert stranger("PUT", "/shelf/things", thing(place="elsewhere"))[0] == 200
    assert api("GET", "/shelf/things")[1][0]["place"] == "drawer 3"


def test_a_viewer_may_not_move_things(house: House) -> None:
    assert Api(house.viewer)("PUT", "/shelf/things", thing())[0] == 403


@pytest.mark.parametrize("bad", [thing(name="  "), thing(name="x" * 81), thing(place="y" * 61)])
def test_what_cannot_be_kept_is_refused(bad: dict[str, object], api: Api) -> None:
    assert api("PUT", "/shelf/things", bad)[0] == 422


def test_the_bench_says_where_the_new_head_lies_and_how_many_are_left(api: Api, house: House) -> None:
    _, bench = api("POST", "/bench/jobs", start_body(house.drum, stock_item=house.stock.pk))
    assert (bench["heads"][0]["shelf"], bench["heads"][0]["left"]) == ("A1", 2)
    assert [step["id"] for step in bench["plan"] if step["lays_out"]] == ["lay-out"]
    hands = Hands(api, bench["id"])
    house.stock.shelf = "B7"
    house.stock.save()
    assert hands.look()["heads"][0]["shelf"] == "B7"
