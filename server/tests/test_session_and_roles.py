"""Who gets in, who may change things; everything else is refused."""

import json

import pytest
from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.test import Client, override_settings
from house import Api, House, schema

from apps.workshops.models import Membership, Workshop

SHAPE = {"code", "message", "fields", "kept"}
OPEN_TO_ALL = {
    "session", "sign_in", "sign_in_code", "ask_passkey", "sign_in_passkey", "first_run", "look_at_link", "join", "new_password", "forgot_password",
}  # fmt: skip
OWN = {
    "sign_out", "change_password", "sign_out_elsewhere", "switch_workshop", "write_email", "ask_new_passkey", "add_passkey", "take_passkey",
    "begin_codes", "turn_codes_on", "turn_codes_off", "join_as_you",
}  # fmt: skip
"""What concerns oneself alone, whatever one may do in the workshop."""
ASKS = {"plan_kit"}
"""A question too long for an address: it changes nothing."""


def operations() -> list[tuple[str, str, str]]:
    fill = {"{tag}": "WR-001", "{side}": "batter", "{job_id}": "00000000-0000-4000-8000-000000000000"}
    found = []
    for path, methods in schema()["paths"].items():
        for name, value in fill.items():
            path = path.replace(name, value)
        path = path.removeprefix("/api")
        found += [(operation["operationId"], method.upper(), path) for method, operation in methods.items()]
    return found


@pytest.mark.parametrize(("name", "method", "path"), [o for o in operations() if o[0] not in OPEN_TO_ALL])
def test_signed_out_everything_is_refused_in_the_one_shape(db: None, name: str, method: str, path: str) -> None:
    status, answer = Api(None)(method, path, {} if method != "GET" else None)
    assert status == 401
    assert set(answer) == SHAPE
    assert answer["code"] == "signed_out"


@pytest.mark.parametrize(
    ("name", "method", "path"),
    [o for o in operations() if o[1] != "GET" and o[0] not in OPEN_TO_ALL | OWN | ASKS],
)
def test_a_viewer_changes_nothing(house: House, name: str, method: str, path: str) -> None:
    status, answer = Api(house.viewer)(method, path, {})
    assert status == 403
    assert "technician" in answer["message"] or answer["code"] == "owners_only"


def test_a_viewer_sees_the_register(house: House) -> None:
    status, answer = Api(house.viewer)("GET", "/register/drums")
    assert (status, answer["total"]) == (200, 1)


def sign_in(client: Client, password: str, token: str | None = None) -> tuple[int, dict]:
    headers = {"HTTP_X_CSRFTOKEN": token} if token else {}
    body = json.dumps({"username": "wharf-technician", "password": password})
    answer = client.post("/api/session", body, content_type="application/json", **headers)
    return answer.status_code, answer.json()


@pytest.fixture
def with_password(house: House) -> House:
    user = User.objects.get(username="wharf-technician")
    user.set_password("low-tide-by-noon")
    user.save()
    return house


def test_signing_in_gives_the_person_and_the_workshop(with_password: House) -> None:
    status, answer = sign_in(Client(), "low-tide-by-noon")
    assert status == 200
    assert answer["role"] == "technician"
    assert answer["workshop"]["name"] == "Wharf"


def test_six_wrong_passwords_close_the_door_for_a_while(with_password: House) -> None:
    client = Client()
    statuses = [sign_in(client, "wrong")[0] for _ in range(6)]
    assert statuses[0] == 401
    status, answer = sign_in(client, "low-tide-by-noon")
    assert (status, answer["code"]) == (429, "too_many_tries")
    assert set(answer) == SHAPE


def test_signing_in_needs_the_csrf_token(with_password: House) -> None:
    client = Client(enforce_csrf_checks=True)
    assert sign_in(client, "low-tide-by-noon")[0] == 403
    client.get("/")
    token = client.cookies["csrftoken"].value
    assert sign_in(client, "low-tide-by-noon", token)[0] == 200


def test_changes_need_the_csrf_token(house: House) -> None:
    client = Client(enforce_csrf_checks=True)
    client.force_login(house.technician.user, backend="apps.accounts.backends.MemberBackend")
    assert client.post("/api/bench/jobs", "{}", content_type="application/json").status_code == 403


def test_demo_accounts_are_named_in_demo_mode_only(db: None) -> None:
    with override_settings(DEMO=True):
        assert Api(None)("GET", "/session")[1]["demo_accounts"] == []  # there is no demo
    Workshop.objects.create(name="Demo", slug="demo", demo=True)
    with override_settings(DEMO=True):
        assert len(Api(None)("GET", "/session")[1]["demo_accounts"]) == 3
    with override_settings(DEMO=False):
        assert Api(None)("GET", "/session")[1]["demo_accounts"] == []


def test_the_page_carries_a_strict_policy_with_a_fresh_nonce(db: None) -> None:
    one, two = (Client().get("/") for _ in range(2))
    policies = [each.headers["Content-Security-Policy"] for each in (one, two)]
    assert policies[0] != policies[1]
    # What reads labels is WebAssembly that comes with the app; no text is ever run as script.
    assert all("unsafe-inline" not in policy and "'unsafe-eval'" not in policy for policy in policies)
    nonce = policies[0].split("'nonce-")[1].split("'")[0]
    assert nonce in one.content.decode()
    assert one.headers["X-Frame-Options"] == "DENY"
    assert one.headers["X-Content-Type-Options"] == "nosniff"


def test_health_answers_without_signing_in(db: None) -> None:
    assert Client().get("/healthz").json() == {"ok": True}
    assert Client().get("/readyz").json() == {"ok": True}


def test_an_unknown_address_in_the_api_has_the_one_shape(db: None) -> None:
    answer = Client().get("/api/nothing-here")
    assert answer.status_code == 404
    assert set(answer.json()) == SHAPE


def test_one_log_line_a_request_with_its_duration(house: House, caplog: pytest.LogCaptureFixture) -> None:
    import logging

    logging.getLogger("redtally.request").addHandler(caplog.handler)
    Api(house.technician)("GET", "/today")
    (line,) = [record for record in caplog.records if record.name == "redtally.request"]
    assert (line.method, line.path, line.status, line.user) == ("GET", "/api/today", 200, house.technician.user_id)
    assert line.ms >= 0


def test_whoever_is_known_by_their_session_is_asked_about_each_time(house: House) -> None:
    """A process keeps who is behind a session; any change to session, person, membership or workshop must count at once."""
    api = Api(house.viewer)
    assert api("GET", "/register/drums")[0] == 200
    assert api("GET", "/register/drums")[0] == 200
    member = Membership.objects.get(user__username="wharf-viewer")
    Membership.objects.filter(pk=member.pk).update(role=Membership.Role.TECHNICIAN)
    assert api("PUT", "/workshop/ways", {})[0] == 422
    Workshop.objects.filter(pk=member.workshop_id).update(length_unit="mm")
    assert "mm" in api("GET", "/register/drums")[1]["drums"][0]["size"]
    user = User.objects.get(pk=member.user_id)
    user.set_password("another-tide-77")
    user.save()
    assert api("GET", "/register/drums")[0] == 401


def test_a_session_that_ended_elsewhere_lets_nobody_in(house: House) -> None:
    api = Api(house.viewer)
    assert api("GET", "/register/drums")[0] == 200
    Session.objects.all().delete()
    assert api("GET", "/register/drums")[0] == 401


class TestSpraying:
    """Many names tried from one address, and colleagues who sit at the same one."""

    def spray(self, client: Client, names: int = 12, tries: int = 2) -> None:
        for n in range(names):
            for _ in range(tries):
                client.post(
                    "/api/session", {"username": f"guess{n}", "password": "wrong"}, content_type="application/json"
                )

    def sign_in(self, client: Client, **more: str) -> int:
        body = {"username": "wim", "password": "neap-tide-at-nine"}
        return client.post("/api/session", body, content_type="application/json", **more).status_code

    @pytest.fixture
    def wim(self, house: House) -> None:
        user = User.objects.create_user("wim", password="neap-tide-at-nine")
        Membership.objects.create(user=user, workshop=house.workshop, role="technician", shown_name="Wim")

    def test_many_names_from_one_address_are_stopped(self, wim: None) -> None:
        self.spray(Client())
        assert self.sign_in(Client()) == 429

    def test_a_device_that_signed_in_before_is_not_shut_out_by_it(self, wim: None) -> None:
        known = Client()
        assert self.sign_in(known) == 200
        assert known.cookies["rt_known"]["httponly"]
        known.delete("/api/session")
        self.spray(Client())
        assert self.sign_in(known) == 200

    def test_another_address_is_not_shut_out_and_none_can_be_made_up(self, wim: None) -> None:
        self.spray(Client())
        assert self.sign_in(Client(), REMOTE_ADDR="192.0.2.7") == 200
        assert self.sign_in(Client(headers={"x-forwarded-for": "192.0.2.8", "x-real-ip": "192.0.2.8"})) == 429

    def test_failing_with_one_name_shuts_out_no_colleague(self, wim: None) -> None:
        self.spray(Client(), names=1, tries=10)
        assert self.sign_in(Client()) == 200

    def test_a_cookie_somebody_wrote_is_no_known_device(self, wim: None) -> None:
        client = Client()
        client.cookies["rt_known"] = '["wim"]'
        self.spray(Client())
        assert self.sign_in(client) == 429


class TestOwnSignIn:
    OLD, NEW = "slack water at dusk", "ebb before the bridge"

    @pytest.fixture
    def person(self, house: House) -> House:
        house.viewer.user.set_password(self.OLD)
        house.viewer.user.save()
        return house

    def devices(self, house: House, count: int) -> list[Api]:
        return [Api(house.viewer) for _ in range(count)]

    def test_a_new_password_signs_out_every_other_device_and_this_one_stays(self, person: House) -> None:
        here, there = self.devices(person, 2)
        assert here("POST", "/session/password", {"old": self.OLD, "new": self.NEW})[0] == 204
        assert here("GET", "/register/drums")[0] == 200
        assert there("GET", "/register/drums")[0] == 401
        person.viewer.user.refresh_from_db()
        assert person.viewer.user.check_password(self.NEW)

    @pytest.mark.parametrize(
        ("old", "new", "code"), [("wrong", "ebb before the bridge", "wrong_password"), (OLD, "short", "weak_password")]
    )
    def test_a_wrong_old_or_an_easy_new_one_changes_nothing(self, old: str, new: str, code: str, person: House) -> None:
        (here,) = self.devices(person, 1)
        status, answer = here("POST", "/session/password", {"old": old, "new": new})
        assert (status, answer["code"]) == (422, code)
        person.viewer.user.refresh_from_db()
        assert person.viewer.user.check_password(self.OLD)

    def test_guessing_the_old_one_is_slowed_as_at_sign_in(self, person: House) -> None:
        (here,) = self.devices(person, 1)
        tries = [here("POST", "/session/password", {"old": f"guess {n}", "new": self.NEW})[0] for n in range(8)]
        assert tries[0] == 422
        assert tries[-1] == 429

    def test_signing_out_elsewhere_ends_ones_own_sessions_only(self, person: House) -> None:
        here, there, further = self.devices(person, 3)
        other = Api(person.technician)
        for each in (here, there, further, other):
            assert each("GET", "/register/drums")[0] == 200
        assert here("POST", "/session/elsewhere") == (200, {"ended": 2})
        assert [each("GET", "/register/drums")[0] for each in (here, there, further, other)] == [200, 401, 401, 200]

    @override_settings(DEMO=True)
    def test_the_demos_shared_passwords_stay(self, person: House) -> None:
        person.viewer.user.username = "ines"
        person.viewer.user.save()
        (here,) = self.devices(person, 1)
        assert here("POST", "/session/password", {"old": self.OLD, "new": self.NEW})[1]["code"] == "demo_account"
