"""Places, owners and kits are renamed and merged; drums keep their history and are found by the new name."""

import pytest
from house import Api, House, make_drum, make_house

from apps.register.models import Drum, Kit, KitDrum, Place


def rename(api: Api, sort: str, name: str, to: str) -> tuple[int, dict[str, object]]:
    return api("POST", f"/register/names/{sort}", {"name": name, "to": to})


def test_a_place_is_renamed_and_its_drums_are_found_by_it(api: Api, house: House) -> None:
    assert rename(api, "place", "net loft", "sail loft") == (200, {"merged": False})
    assert api("GET", "/register/drums?text=sail")[1]["total"] == 1
    assert api("GET", "/register/drums?text=net%20loft")[1]["total"] == 0
    assert api("GET", "/register/names")[1]["place"] == [{"name": "sail loft", "drums": 1}]


def test_a_name_that_is_there_already_takes_the_drums_of_both(api: Api, house: House) -> None:
    quay = Place.objects.create(workshop=house.workshop, name="Quay")
    make_drum(house.workshop, "WR-002", place=quay)
    assert rename(api, "place", "net loft", "quay") == (200, {"merged": True})
    assert api("GET", "/register/names")[1]["place"] == [{"name": "Quay", "drums": 2}]
    assert {drum.place_id for drum in Drum.objects.all()} == {quay.pk}


def test_two_kits_that_share_a_drum_are_merged_once(api: Api, house: House) -> None:
    kits = [Kit.objects.create(workshop=house.workshop, name=name) for name in ("barge", "pit")]
    other = make_drum(house.workshop, "WR-002")
    for kit, drum in ((kits[0], house.drum), (kits[0], other), (kits[1], house.drum)):
        KitDrum.objects.create(workshop=house.workshop, kit=kit, drum=drum)
    assert rename(api, "kit", "barge", "pit") == (200, {"merged": True})
    assert api("GET", "/register/names")[1]["kit"] == [{"name": "pit", "drums": 2}]


def test_only_a_name_nothing_bears_is_taken_away(api: Api, house: House) -> None:
    Place.objects.create(workshop=house.workshop, name="cellar")
    assert api("DELETE", "/register/names/place?name=cellar")[0] == 204
    status, answer = api("DELETE", "/register/names/place?name=net%20loft")
    assert (status, answer["code"]) == (409, "in_use")


@pytest.mark.parametrize(
    ("name", "to", "status"), [("nowhere", "x", 404), ("net loft", "  ", 422), ("net loft", "y" * 81, 422)]
)
def test_what_cannot_be_renamed_says_why(name: str, to: str, status: int, api: Api) -> None:
    assert rename(api, "place", name, to)[0] == status


def test_another_workshops_names_are_its_own(house: House) -> None:
    other = Api(make_house("bell").technician)
    assert rename(other, "place", "net loft", "bell tower")[0] == 200
    house.enter()
    assert Place.objects.get().name == "net loft"
    assert rename(Api(house.viewer), "place", "net loft", "x")[0] == 403
