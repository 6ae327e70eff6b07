"""One workshop to work in, and a second one that must never be seen."""

from __future__ import annotations

from typing import Any

import pytest
from house import Api, Hands, House, make_house, start_body


@pytest.fixture
def house(db: None) -> House:
    return make_house("wharf")


@pytest.fixture
def other(db: None, house: House) -> House:
    built = make_house("mill")
    house.enter()
    return built


@pytest.fixture
def api(house: House) -> Api:
    return Api(house.technician)


@pytest.fixture
def hands(api: Api, house: House) -> Hands:
    status, bench = api(
        "POST", "/bench/jobs", start_body(house.drum, stock_item=house.stock.pk, reason="dents or craters")
    )
    assert status == 201, bench
    return Hands(api, bench["id"])


@pytest.fixture(autouse=True)
def quick_hashing(settings: Any) -> None:
    """Passwords made in tests are hashed by what costs nothing; how they are hashed in truth is a setting of its own."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher", *settings.PASSWORD_HASHERS]


@pytest.fixture(autouse=True)
def no_static_files(settings: Any) -> None:
    """Every test client would read through the folder of static files, which is no matter of these tests, and which others may be filling."""
    settings.STATIC_ROOT = None
