"""Commands of the server, and answers when something is wrong underneath."""

from __future__ import annotations

from typing import Any

import pytest
from django.core.management import CommandError, call_command
from django.db.utils import InterfaceError, OperationalError
from django.test import Client
from house import Api, House

from apps.register.models import Drum, Place
from apps.workshops.models import Membership, Workshop
from apps.workshops.scope import enter_workshop, inside

SHAPE = {"code", "message", "fields", "kept"}


class TestAddWorkshop:
    """A workshop without the demo."""

    def make(self, monkeypatch: pytest.MonkeyPatch, password: str = "neap-tide-at-nine", **more: Any) -> None:
        monkeypatch.setenv("RT_NEW_PASSWORD", password)
        call_command(
            "add_workshop", more.pop("name", "Lock Keepers"), user=more.pop("user", "wim"), shown="Wim Daal", **more
        )

    def test_it_has_a_first_owner_who_can_sign_in(self, db: None, monkeypatch: pytest.MonkeyPatch) -> None:
        self.make(monkeypatch)
        status, answer = Api(None)("POST", "/session", {"username": "wim", "password": "neap-tide-at-nine"})
        assert (status, answer["workshop"]["name"]) == (200, "Lock Keepers")
        assert Membership.objects.get().role == "owner"

    def test_it_is_empty_and_apart(self, house: House, monkeypatch: pytest.MonkeyPatch) -> None:
        self.make(monkeypatch)
        member = Membership.objects.get(user__username="wim")
        assert Api(member)("GET", "/register/drums")[1]["total"] == 0
        assert Api(member)("GET", "/today")[1]["items"] == []

    def test_more_people_can_join_it(self, db: None, monkeypatch: pytest.MonkeyPatch) -> None:
        self.make(monkeypatch)
        self.make(monkeypatch, user="ada", role="viewer", join=True)
        assert Workshop.objects.count() == 1
        assert set(Membership.objects.values_list("role", flat=True)) == {"owner", "viewer"}

    def test_two_workshops_never_become_one(self, db: None, monkeypatch: pytest.MonkeyPatch) -> None:
        """Names in other scripts once had an empty address all alike, and the second shop was the first one's."""
        names = [
            "太鼓の店",
            "鼓楼",
            "Барабаны",
            "طبول",
            "Lock Keepers",
            "Lock-Keepers",
            "!a",
            "?b",
            "x" * 110,
            "x" * 109,
        ]
        for n, name in enumerate(names):
            self.make(monkeypatch, name=name, user=f"u{n}")
        assert set(Workshop.objects.values_list("name", flat=True)) == set(names)
        assert Membership.objects.values("workshop").distinct().count() == len(names)
        slugs = set(Workshop.objects.values_list("slug", flat=True))
        assert len(slugs) == len(names)
        assert all(slugs)

    @pytest.mark.parametrize("same", ["lock keepers", "LOCK  KEEPERS", "Ｌock Keepers", "Lock Keepers\u00a0"])
    def test_a_name_that_reads_the_same_is_refused(self, db: None, monkeypatch: pytest.MonkeyPatch, same: str) -> None:
        self.make(monkeypatch)
        with pytest.raises(CommandError, match=r"already.*--join"):
            self.make(monkeypatch, name=same, user="eve")
        assert (Workshop.objects.count(), Membership.objects.count()) == (1, 1)

    @pytest.mark.parametrize("name", ["", "  ", "···", "x" * 121])
    def test_a_name_that_is_none_is_refused(self, db: None, monkeypatch: pytest.MonkeyPatch, name: str) -> None:
        with pytest.raises(CommandError):
            self.make(monkeypatch, name=name)
        with pytest.raises(CommandError, match="to join"):
            self.make(monkeypatch, name="Nobody Here", join=True)

    def test_a_taken_name_or_a_weak_password_is_refused(self, db: None, monkeypatch: pytest.MonkeyPatch) -> None:
        with pytest.raises(CommandError, match="at least 10"):
            self.make(monkeypatch, password="short")
        self.make(monkeypatch)
        with pytest.raises(CommandError, match="already"):
            self.make(monkeypatch)

    def test_its_first_drum_can_be_entered(self, db: None, monkeypatch: pytest.MonkeyPatch) -> None:
        self.make(monkeypatch)
        member = Membership.objects.get()
        body = {
            "tag": "LK-1",
            "name": "Sluice",
            "kind": "snare",
            "diameter": "14",
            "depth": "6",
            "rods_batter": 10,
            "rods_resonant": 10,
            "place": "workshop",
            "owner": "Lock Keepers",
        }
        assert Api(member)("POST", "/register/drums", body)[0] == 201


def test_work_inside_a_workshop_sees_it_and_ends_with_it(house: House) -> None:
    enter_workshop(0)
    with inside(house.workshop.pk):
        assert Drum.objects.count() == 1
        Place.objects.create(workshop=house.workshop, name="attic")


@pytest.mark.parametrize("error", [OperationalError, InterfaceError])
def test_a_database_that_fails_in_the_middle_is_told_in_the_one_shape(
    house: House, monkeypatch: pytest.MonkeyPatch, error: type[Exception]
) -> None:
    def fail(*_: object) -> None:
        raise error("server closed the connection unexpectedly")

    monkeypatch.setattr("apps.today.api.facts_of", fail)
    status, answer = Api(house.technician)("GET", "/today")
    assert (status, answer["code"]) == (503, "database_down")
    assert set(answer) == SHAPE


def test_whatever_nobody_thought_of_is_told_in_the_one_shape_too(house: House, monkeypatch: pytest.MonkeyPatch) -> None:
    def fail(*_: object) -> None:
        raise RuntimeError("surprise")

    monkeypatch.setattr("apps.today.api.facts_of", fail)
    api = Api(house.technician)
    api.client.raise_request_exception = False
    status, answer = api("GET", "/today")
    assert (status, answer["code"]) == (500, "unexpected")
    assert set(answer) == SHAPE
    assert "surprise" not in answer["message"]


def test_a_body_that_is_no_json_is_refused(house: House) -> None:
    api = Api(house.technician)
    answer = api.client.post("/api/bench/jobs", "{no", content_type="application/json")
    assert answer.status_code in (400, 422)
    assert set(answer.json()) == SHAPE


def test_an_address_that_is_no_job_is_refused(house: House) -> None:
    status, answer = Api(house.technician)("GET", "/bench/jobs/not-a-job")
    assert status == 422
    assert set(answer) == SHAPE


def test_someone_without_a_workshop_sees_nothing(db: None) -> None:
    from django.contrib.auth.models import User

    client = Client()
    client.force_login(User.objects.create(username="stranger"), backend="apps.accounts.backends.MemberBackend")
    assert client.get("/api/today").status_code == 401
    assert client.get("/api/session").json()["username"] is None


def test_signing_out_ends_the_session(house: House) -> None:
    api = Api(house.technician)
    assert api("GET", "/session")[1]["username"] == "wharf-technician"
    assert api("DELETE", "/session")[0] == 204
    assert api("GET", "/today")[0] == 401


def test_the_app_answers_any_address_of_its_own_with_its_page(db: None) -> None:
    pages = [Client().get(path).content.split(b"nonce")[0] for path in ("/", "/drums/MQ-041", "/bench/anything")]
    assert pages[0] == pages[1] == pages[2]
    assert Client().get("/").headers["Cache-Control"].startswith("max-age=0")
