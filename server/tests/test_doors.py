"""Doors and edges: names and codes as keyboards write them, who stands behind a proxy, full disks, memory at an end, waits that end."""

from __future__ import annotations

import errno
import subprocess
import sys
import uuid
from collections.abc import Callable
from typing import Any

import psycopg
import pyotp
import pytest
from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.db.utils import OperationalError
from django.test import Client
from house import GOOD, Api, House, make_drum, make_house, start_body
from photographed import picture, send
from test_people_at_once import at_once

from apps.accounts.second_step import in_plain_digits
from apps.heads.promises import promise
from apps.photos.flows import MOST_A_JOB
from apps.photos.models import Photo
from apps.workshops.models import Membership
from config.settings import _limits


class TestNames:
    def test_who_signs_in_writes_their_name_large_or_small(self, owner: Membership) -> None:
        for name in ("wharf-owner", "Wharf-Owner", "WHARF-OWNER"):
            status, answer = Api(None)("POST", "/session", {"username": name, "password": GOOD})
            assert (status, answer["username"]) == (200, "wharf-owner")

    def test_tries_count_however_the_name_is_written(self, owner: Membership) -> None:
        api = Api(None)
        came = [
            api("POST", "/session", {"username": name, "password": "not-it-at-all"})[0]
            for name in (
                "wharf-owner",
                "Wharf-owner",
                "WHARF-owner",
                "wharf-OWNER",
                "wHarf-owner",
                "whArf-owner",
                "whaRf-owner",
            )
        ]
        assert came[0] == 401
        assert came[-1] == 429

    def test_of_two_that_differ_by_it_each_has_their_own(self, owner: Membership, house: House) -> None:
        other = User.objects.create_user("WHARF-OWNER", password="another-tide-77")  # of an earlier version
        Membership.objects.create(user=other, workshop=house.workshop, role="viewer", shown_name="Other")
        answer = Api(None)("POST", "/session", {"username": "WHARF-OWNER", "password": "another-tide-77"})[1]
        assert answer["username"] == "WHARF-OWNER"


class TestCodes:
    @pytest.mark.parametrize("typed", ["١٢٣٤٥٦", "１２３４５６", "123 456", " १२३४५६ ", "123-456"])
    def test_any_digits(self, typed: str) -> None:
        assert in_plain_digits(typed) == "123456"

    @pytest.mark.parametrize("typed", ["²³¹", "éàü", "", "½"])
    def test_what_is_none_is_a_wrong_code_and_no_failure(self, own: Api, owner: Membership, typed: str) -> None:
        begun = own("POST", "/session/codes/begin", {"password": GOOD})
        secret = begun[1]["secret"]
        assert own("POST", "/session/codes", {"code": typed or " "})[0] == 422
        code = pyotp.TOTP(secret).now().translate(str.maketrans("0123456789", "٠١٢٣٤٥٦٧٨٩"))
        assert own("POST", "/session/codes", {"code": code})[0] == 200


@pytest.mark.parametrize("said", ["unknown", "_hidden", "", "not an address, 10.0.0.1"])
def test_a_proxy_that_does_not_know_whom_it_speaks_for(owner: Membership, said: str) -> None:
    client = Client(REMOTE_ADDR=said)
    for _ in range(2):
        body = {"username": "wharf-owner", "password": "not-it-at-all"}
        assert client.post("/api/session", body, content_type="application/json").status_code == 401


def test_nothing_of_the_api_is_kept_on_the_way(api: Api) -> None:
    for path in ("/api/today", "/api/session", "/api/register/drums/WR-001", "/api/nothing-here"):
        assert "no-store" in api.client.get(path)["Cache-Control"]


class TestMachine:
    @pytest.mark.parametrize(
        ("error", "status", "code"),
        [
            (OSError(errno.ENOSPC, "No space left on device"), 507, "disk_full"),
            (OSError(errno.EDQUOT, "Disk quota exceeded"), 507, "disk_full"),
            (MemoryError(), 503, "too_much"),
            (OperationalError("server closed the connection"), 503, "database_down"),
        ],
    )
    def test_what_is_lacking_is_named(
        self,
        api: Api,
        monkeypatch: pytest.MonkeyPatch,
        caplog: pytest.LogCaptureFixture,
        error: Exception,
        status: int,
        code: str,
    ) -> None:
        def fail(*_: object) -> None:
            raise error

        monkeypatch.setattr("apps.today.api.facts_of", fail)
        answer = api("GET", "/today")
        assert (answer[0], answer[1]["code"]) == (status, code)
        assert code == "database_down" or any(each.levelname == "ERROR" for each in caplog.records)

    def test_a_database_whose_disk_is_full(self, api: Api, monkeypatch: pytest.MonkeyPatch) -> None:
        def fail(*_: object) -> None:
            raise OperationalError("could not extend file") from psycopg.errors.DiskFull("could not extend file")

        monkeypatch.setattr("apps.today.api.facts_of", fail)
        status, answer = api("GET", "/today")
        assert (status, answer["code"], "is full" in answer["message"]) == (507, "disk_full", True)

    def test_a_process_has_no_more_memory_than_it_may(self) -> None:
        code = """
import os; os.environ["RT_WORKER_MB"] = "200"
from config import serving
serving.post_fork(None, None)
try:
    held = bytearray(400 * 1024**2)
except MemoryError:
    print("refused")
"""
        done = subprocess.run([sys.executable, "-c", code], cwd=settings.BASE_DIR, capture_output=True, text=True)
        assert done.stdout.strip() == "refused", done.stderr

    def test_no_statement_and_no_lock_is_waited_for_without_end(
        self, monkeypatch: pytest.MonkeyPatch, db: None
    ) -> None:
        monkeypatch.setenv("RT_STATEMENT_S", "1")
        from django.db import connection

        where: dict[str, Any] = {**connection.get_connection_params(), **_limits()}
        for own in ("cursor_factory", "context", "prepare_threshold", "client_encoding"):
            where.pop(own, None)
        with psycopg.connect(**where) as one, psycopg.connect(**where) as other:
            with pytest.raises(psycopg.errors.QueryCanceled):
                one.execute("select pg_sleep(20)")
            one.rollback()
            other.execute("select pg_advisory_xact_lock(4711)")
            with pytest.raises((psycopg.errors.LockNotAvailable, psycopg.errors.QueryCanceled)):
                one.execute("select pg_advisory_xact_lock(4711)")


class TestPromised:
    def moved(self, api: Api, item: int, why: str, number: int, **more: Any) -> tuple[int, Any]:
        body = {"id": str(uuid.uuid4()), "why": why, "number": number, **more}
        return api("POST", f"/shelf/lines/{item}/moves", body)

    def test_the_last_one_leaves_by_no_other_door(self, api: Api, house: House) -> None:
        other = make_drum(house.workshop, "WR-002", name="Finch")
        for drum in (house.drum, other):
            promise(house.stock.pk, drum, uuid.uuid4(), "batter", house.technician)
        lent = {"id": str(uuid.uuid4()), "line": house.stock.pk, "number": 1, "to_words": "the hall", "what": "head"}
        for status, answer in (self.moved(api, house.stock.pk, "fitted", 1), api("POST", "/shelf/loans", lent)):
            assert (status, answer["code"]) == (409, "promised")
            assert "is promised to" in answer["message"]
        assert self.moved(api, house.stock.pk, "fitted", 1, drum="WR-002")[0] == 200, "one of them is Finch’s"
        assert self.moved(api, house.stock.pk, "written-off", 1)[0] == 200, "what is broken is broken"
        house.enter()
        house.stock.refresh_from_db()
        assert house.stock.count == 0

    def test_one_that_is_free_leaves(self, api: Api, house: House) -> None:
        promise(house.stock.pk, house.drum, uuid.uuid4(), "batter", house.technician)
        assert self.moved(api, house.stock.pk, "fitted", 1)[0] == 200
        assert self.moved(api, house.stock.pk, "fitted", 1)[0] == 409
        assert self.moved(api, house.stock.pk, "fitted", 1, drum="WR-001")[0] == 200, "the drum it is promised to"


@pytest.mark.django_db(transaction=True)
def test_a_job_keeps_so_many_photos_whoever_sends_at_once() -> None:
    with transaction.atomic():
        house = make_house("wharf")
    api = Api(house.technician)
    job = api("POST", "/bench/jobs", start_body(house.drum, "settling-check"))[1]["id"]
    photo = picture()
    for _ in range(2):
        assert send(api, "WR-001", photo, job)[0] == 200
    with transaction.atomic():
        house.enter()
        there = Photo.objects.first()
        assert there is not None
        Photo.objects.bulk_create(
            Photo(
                **{field.attname: getattr(there, field.attname) for field in Photo._meta.concrete_fields}
                | {"id": uuid.uuid4()}
            )
            for _ in range(MOST_A_JOB - 3)
        )
    came: list[int] = []

    def sends() -> Callable[[], None]:
        return lambda: came.append(send(Api(house.technician), "WR-001", photo, job)[0])

    at_once([sends() for _ in range(4)])
    assert sorted(came) == [200, 409, 409, 409]
    with transaction.atomic():
        house.enter()
        assert Photo.objects.count() == MOST_A_JOB
