"""One workshop to work in, and a second one that must never be seen."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.db import connection
from house import GOOD, Api, Hands, House, make_house, start_body

from apps.workshops.models import Membership


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup: None, django_db_blocker: Any) -> None:
    """What is written here is thrown away: nobody waits for the disk."""
    with django_db_blocker.unblock():
        with connection.cursor() as cursor:
            cursor.execute(f'alter database "{connection.settings_dict["NAME"]}" set synchronous_commit = off')
        connection.close()


@pytest.fixture
def house(db: None) -> House:
    return make_house("wharf")


@pytest.fixture
def in_demo(house: House) -> Iterator[None]:
    with house.as_demo():
        yield


@pytest.fixture
def other(db: None, house: House) -> House:
    built = make_house("mill")
    house.enter()
    return built


@pytest.fixture
def api(house: House) -> Api:
    return Api(house.technician)


@pytest.fixture
def owner(house: House) -> Membership:
    user = User.objects.create_user("wharf-owner", password=GOOD)
    return Membership.objects.create(user=user, workshop=house.workshop, role="owner", shown_name="Owner of Wharf")


@pytest.fixture
def own(owner: Membership) -> Api:
    return Api(owner)


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
def uploads(settings: Any, tmp_path: Path) -> Path:
    """What a test sends in lies in a folder of its own."""
    settings.UPLOADS = tmp_path / "uploads"
    return tmp_path / "uploads"


@pytest.fixture(autouse=True)
def no_static_files(settings: Any) -> None:
    """Every test client would read through the folder of static files, which is no matter of these tests, and which others may be filling."""
    settings.STATIC_ROOT = None
