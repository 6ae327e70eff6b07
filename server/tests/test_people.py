"""People: the first run, invitations, roles, removal, new passwords by link, several workshops, the second step."""

from __future__ import annotations

import json
import socket
from collections.abc import Iterator
from datetime import timedelta
from typing import Any

import pyotp
import pytest
from aiosmtpd.controller import Controller
from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.core.management import CommandError, call_command
from django.test import Client, override_settings
from django.utils import timezone
from house import GOOD, Api, House, join, make_house, token_of

from apps.accounts import second_step
from apps.accounts.models import OneTimeCodes
from apps.demo.removal import remove_workshop
from apps.history.models import LogEntry
from apps.people import first
from apps.people.models import Installation, Link
from apps.register.models import Drum
from apps.workshops.models import Membership, Workshop

FIRST = {
    "workshop": "Drying Loft",
    "length_unit": "mm",
    "username": "petra",
    "shown_name": "Petra Lind",
    "password": GOOD,
}


class TestFirstRun:
    def test_the_word_begins_one_workshop_with_its_owner(self, db: None) -> None:
        word = first.new_word()
        assert word is not None
        api = Api(None)
        assert api("GET", "/session")[1]["first_run"] is True
        status, answer = api("POST", "/people/first", {**FIRST, "word": word.upper().replace("-", " ")})
        assert status == 200, answer
        assert (answer["role"], answer["workshop"]["name"], answer["workshop"]["length_unit"]) == (
            "owner",
            "Drying Loft",
            "mm",
        )
        assert api("GET", "/today")[0] == 200
        drum = {
            "tag": "DL-1",
            "name": "Reed",
            "kind": "snare",
            "diameter": "356 mm",
            "depth": "140 mm",
            "rods_batter": 8,
            "rods_resonant": 8,
        }
        assert api("POST", "/register/drums", {**drum, "place": "workshop", "owner": "Drying Loft"})[0] == 201
        assert Api(None)("GET", "/session")[1]["first_run"] is False

    def test_it_is_good_once_and_only_while_there_is_no_workshop(self, db: None) -> None:
        word = first.new_word()
        assert Api(None)("POST", "/people/first", {**FIRST, "word": word})[0] == 200
        status, answer = Api(None)(
            "POST", "/people/first", {**FIRST, "word": word, "workshop": "Other", "username": "x"}
        )
        assert (status, answer["code"]) == (410, "begun")
        assert first.new_word() is None
        assert Workshop.objects.count() == 1

    def test_wrong_words_are_counted_and_wear_it_out(self, db: None) -> None:
        word = first.new_word()
        for left in range(9, -1, -1):
            status, answer = Api(None)("POST", "/people/first", {**FIRST, "word": "not-the-word"})
            assert (status, answer["code"]) == (422, "wrong_word")
            assert (f"{left} more tries" in answer["fields"]["word"]) is (left > 0)
        assert Api(None)("POST", "/people/first", {**FIRST, "word": word})[1]["code"] == "no_word"
        again = first.new_word()
        assert again != word
        assert Api(None)("POST", "/people/first", {**FIRST, "word": again})[0] == 200

    @pytest.mark.parametrize(
        ("field", "value"), [("password", "short"), ("password", "password12"), ("workshop", "---"), ("username", "")]
    )
    def test_what_does_not_do_is_refused_and_the_word_stays_good(self, db: None, field: str, value: str) -> None:
        word = first.new_word()
        assert Api(None)("POST", "/people/first", {**FIRST, "word": word, field: value})[0] == 422
        assert not User.objects.exists()
        assert not Workshop.objects.exists()
        assert Api(None)("POST", "/people/first", {**FIRST, "word": word})[0] == 200

    def test_the_demo_is_no_workshop_of_ones_own(self, db: None) -> None:
        Workshop.objects.create(name="Demo", slug="demo", demo=True)
        assert first.new_word() is not None


class TestDemo:
    @pytest.fixture
    def demo(self, house: House) -> House:
        demo = make_house("pier")
        Workshop.objects.filter(pk=demo.workshop.pk).update(demo=True)
        return demo

    def test_its_people_do_not_sign_in_while_it_is_off(self, demo: House) -> None:
        demo.technician.user.set_password(GOOD)
        demo.technician.user.save()
        body = {"username": "pier-technician", "password": GOOD}
        with override_settings(DEMO=True):
            api = Api(None)
            assert api("POST", "/session", body)[0] == 200
            assert api("GET", "/register/drums")[0] == 200
        with override_settings(DEMO=False):
            assert Api(None)("POST", "/session", body)[1]["code"] == "demo_off"
            assert api("GET", "/register/drums")[0] == 401

    def test_an_owner_sends_it_away_and_no_start_brings_it_back_unasked(
        self, demo: House, own: Api, house: House
    ) -> None:
        assert own("GET", "/people")[1]["demo_here"] is True
        assert Api(house.technician)("DELETE", "/demo")[0] == 403
        assert own("DELETE", "/demo")[0] == 204
        assert list(Workshop.objects.values_list("slug", flat=True)) == ["wharf"]
        assert not User.objects.filter(username__startswith="pier").exists()
        house.enter()
        assert Drum.objects.count() == 1
        remove_workshop(Workshop.objects.get(slug="wharf"))
        call_command("load_demo", "--unasked", verbosity=0)
        assert not Workshop.objects.exists()
        assert Installation.objects.get().demo_removed_at

    def test_into_a_database_with_a_workshop_it_is_not_loaded_unasked(self, house: House) -> None:
        call_command("load_demo", "--unasked", verbosity=0)
        assert Workshop.objects.count() == 1

    def test_its_people_stay_as_they_are(self, demo: House) -> None:
        Membership.objects.filter(pk=demo.technician.pk).update(role="owner")
        with override_settings(DEMO=True):
            api = Api(demo.technician)
            assert api("POST", "/people/invitations", {"role": "viewer"})[0] == 403
            assert api("DELETE", f"/people/members/{demo.viewer.pk}")[0] == 403


class TestInvitations:
    def test_invited_joined_and_good_once(self, own: Api, house: House) -> None:
        status, made = own("POST", "/people/invitations", {"role": "technician", "shown_name": "Kit Rowe"})
        assert (status, made["mailed"], made["mail"]) == (200, False, "")
        token = token_of(made)
        assert Link.objects.get().digest != token
        seen = Api(None)("POST", "/people/links/look", {"token": token})[1]
        assert (seen["kind"], seen["workshop"], seen["role"], seen["made_by"]) == (
            "join",
            "Wharf",
            "technician",
            "Owner of Wharf",
        )
        kit = Api(None)
        status, session = join(token, api=kit)
        assert (status, session["role"], session["workshop"]["name"]) == (200, "technician", "Wharf")
        assert kit("GET", "/register/drums")[1]["total"] == 1
        status, answer = join(token, "kit-again")
        assert (status, answer["code"]) == (410, "link_used")
        people = own("GET", "/people")[1]
        assert [each["username"] for each in people["people"]] == [
            "kit",
            "wharf-owner",
            "wharf-technician",
            "wharf-viewer",
        ]
        assert people["invitations"][0]["state"] == "used"

    def test_late_taken_back_and_none_such(self, own: Api) -> None:
        late, back = (token_of(own("POST", "/people/invitations", {"role": "viewer"})[1]) for _ in range(2))
        first_made, second_made = Link.objects.order_by("pk")
        Link.objects.filter(pk=first_made.pk).update(until=timezone.now() - timedelta(seconds=1))
        assert own("DELETE", f"/people/invitations/{second_made.pk}")[0] == 204
        assert join(late)[1]["code"] == "link_late"
        assert join(back)[1]["code"] == "link_withdrawn"
        assert join("x" * 32)[0] == 404
        assert not User.objects.filter(username="kit").exists()

    def test_a_taken_name_or_a_weak_password_leaves_the_link_good(self, own: Api) -> None:
        token = token_of(own("POST", "/people/invitations", {"role": "viewer"})[1])
        assert "username" in join(token, "WHARF-viewer")[1]["fields"]
        assert "password" in join(token, password="1234567890")[1]["fields"]
        assert join(token)[0] == 200

    def test_only_an_owner_invites(self, house: House) -> None:
        for each in (house.technician, house.viewer):
            assert Api(each)("POST", "/people/invitations", {"role": "owner"})[0] == 403
            assert Api(each)("GET", "/people")[0] == 403

    def test_another_workshops_link_and_people_are_not_ones_own(self, own: Api, other: House) -> None:
        Membership.objects.filter(pk=other.technician.pk).update(role="owner")
        stranger = Api(other.technician)
        own("POST", "/people/invitations", {"role": "viewer"})
        assert stranger("DELETE", f"/people/invitations/{Link.objects.get().pk}")[0] == 409
        assert Link.objects.get().withdrawn_at is None
        for method, path, body in (
            ("DELETE", "", None), ("PUT", "", {"role": "viewer", "shown_name": "x"}), ("POST", "/reset", None),
        ):  # fmt: skip
            victim = Membership.objects.get(user__username="wharf-technician")
            assert stranger(method, f"/people/members/{victim.pk}{path}", body)[0] == 404


class TestRoles:
    def test_a_role_counts_at_once(self, own: Api, house: House) -> None:
        viewer = Api(house.viewer)
        assert viewer("GET", "/people")[0] == 403
        assert own("PUT", f"/people/members/{house.viewer.pk}", {"role": "owner", "shown_name": "Vera Moss"})[0] == 204
        assert viewer("GET", "/people")[0] == 200
        assert viewer("GET", "/session")[1]["shown_name"] == "Vera Moss"

    def test_the_last_owner_stays_one(self, own: Api, owner: Membership, house: House) -> None:
        path = f"/people/members/{owner.pk}"
        assert own("DELETE", path)[1]["code"] == "last_owner"
        assert own("PUT", path, {"role": "viewer", "shown_name": "x"})[1]["code"] == "last_owner"
        own("PUT", f"/people/members/{house.technician.pk}", {"role": "owner", "shown_name": "Tam"})
        assert own("DELETE", path)[0] == 204
        assert own("GET", "/people")[0] == 401

    def test_who_is_removed_is_out_and_history_keeps_the_name(self, own: Api, house: House) -> None:
        tech = Api(house.technician)
        house.enter()
        LogEntry.objects.create(
            workshop=house.workshop,
            drum=house.drum,
            at=timezone.now(),
            kind="note",
            text="x",
            by_name=house.technician.shown_name,
        )
        assert tech("GET", "/today")[0] == 200
        assert own("DELETE", f"/people/members/{house.technician.pk}")[0] == 204
        assert tech("GET", "/today")[0] == 401
        house.technician.user.set_password(GOOD)
        house.technician.user.save()
        status, answer = Api(None)("POST", "/session", {"username": "wharf-technician", "password": GOOD})
        assert (status, answer["code"]) == (403, "no_workshop")
        sheet = own("GET", f"/register/drums/{house.drum.tag}/sheet")[1]
        assert "technician of wharf" in json.dumps(sheet)

    def test_a_workshop_is_renamed_by_its_owner(self, own: Api, house: House, other: House) -> None:
        assert Api(house.technician)("PUT", "/people/workshop", {"name": "Mine"})[0] == 403
        assert own("PUT", "/people/workshop", {"name": "Wharf & Sons"})[0] == 204
        assert own("PUT", "/people/workshop", {"name": "wharf & sons"})[0] == 204
        assert own("PUT", "/people/workshop", {"name": other.workshop.name.upper()})[1]["code"] == "name_taken"


class TestNewPassword:
    def test_an_owner_makes_a_link_that_sets_it_once(self, own: Api, house: House) -> None:
        tech = Api(house.technician)
        assert tech("GET", "/today")[0] == 200
        token = token_of(own("POST", f"/people/members/{house.technician.pk}/reset")[1])
        assert Api(None)("POST", "/people/links/look", {"token": token})[1]["username"] == "wharf-technician"
        assert Api(None)("POST", "/people/links/password", {"token": token, "new": "short"})[0] == 422
        assert Api(None)("POST", "/people/links/password", {"token": token, "new": GOOD})[0] == 204
        assert tech("GET", "/today")[0] == 401
        assert Api(None)("POST", "/session", {"username": "wharf-technician", "password": GOOD})[0] == 200
        assert Api(None)("POST", "/people/links/password", {"token": token, "new": GOOD})[1]["code"] == "link_used"

    def test_one_workshops_owner_does_not_get_into_another(self, own: Api, house: House, other: House) -> None:
        Membership.objects.create(user=house.technician.user, workshop=other.workshop, role="viewer", shown_name="Tam")
        status, answer = own("POST", f"/people/members/{house.technician.pk}/reset")
        assert (status, answer["code"]) == (403, "also_elsewhere")

    def test_whoever_runs_the_machine_prints_one(self, house: House, capsys: pytest.CaptureFixture[str]) -> None:
        call_command("password_link", "WHARF-technician")
        token = capsys.readouterr().out.strip().split("#")[1]
        assert Api(None)("POST", "/people/links/password", {"token": token, "new": GOOD})[0] == 204
        with pytest.raises(CommandError, match="Check the spelling"):
            call_command("password_link", "nobody")

    def test_an_invitation_is_no_way_to_a_password(self, own: Api) -> None:
        token = token_of(own("POST", "/people/invitations", {"role": "viewer"})[1])
        assert Api(None)("POST", "/people/links/password", {"token": token, "new": GOOD})[0] == 404


class _Kept:
    """A mail server's stand-in: keeps what it is given, or refuses it."""

    def __init__(self) -> None:
        self.mails: list[tuple[list[str], str]] = []
        self.answer = "250 kept"

    async def handle_DATA(self, server: Any, session: Any, envelope: Any) -> str:  # noqa: N802  the library's name
        if self.answer.startswith("250"):
            self.mails.append((envelope.rcpt_tos, envelope.content.decode()))
        return self.answer


class TestMail:
    @pytest.fixture
    def post(self) -> Iterator[_Kept]:
        """Over real SMTP on loopback."""
        kept = _Kept()
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            port = probe.getsockname()[1]
        controller = Controller(kept, hostname="127.0.0.1", port=port)
        controller.start()
        with override_settings(
            EMAIL_BACKEND="django.core.mail.backends.smtp.EmailBackend",
            EMAIL_HOST="127.0.0.1",
            EMAIL_PORT=port,
            EMAIL_USE_TLS=False,
        ):
            yield kept
        controller.stop()

    @pytest.fixture
    def asked(self, post: _Kept, own: Api) -> dict[str, Any]:
        return {"role": "viewer", "email": "kit@harbour.example"}

    def test_an_invitation_goes_by_mail_and_its_link_works(self, post: _Kept, own: Api, asked: dict[str, Any]) -> None:
        made = own("POST", "/people/invitations", asked)[1]
        assert (made["mailed"], made["mail"]) == (True, "")
        ((to, text),) = post.mails
        assert to == ["kit@harbour.example"]
        sent = text.replace("=\r\n", "").replace("=3D", "=")
        assert made["address"] in sent
        assert join(token_of(made))[0] == 200
        assert User.objects.get(username="kit").email == "kit@harbour.example"

    def test_a_mail_that_does_not_go_is_said_and_the_link_is_there(
        self, post: _Kept, own: Api, asked: dict[str, Any]
    ) -> None:
        post.answer = "554 no"
        made = own("POST", "/people/invitations", asked)[1]
        assert (made["mailed"], "Copy the link" in made["mail"]) == (False, True)
        assert join(token_of(made))[0] == 200

    def test_a_forgotten_password_is_mailed_to_who_has_an_address_and_the_answer_tells_nobody(
        self, post: _Kept, owner: Membership
    ) -> None:
        OneTimeCodes.objects.create(user=owner.user, secret=pyotp.random_base32(), on_since=timezone.now())
        owner.user.email = "owner@harbour.example"
        owner.user.save()
        for name in ("wharf-owner", "wharf-viewer", "nobody"):
            assert Api(None)("POST", "/people/forgot", {"username": name}) == (204, None)
        ((to, text),) = post.mails
        assert to == ["owner@harbour.example"]
        token = text.replace("=\r\n", "").split("#")[1].split()[0]
        assert Api(None)("POST", "/people/links/password", {"token": token, "new": "another-tide-77"})[0] == 204
        assert second_step.is_on(owner.user), "mail alone takes no second step off"
        for _ in range(9):
            Api(None)("POST", "/people/forgot", {"username": "wharf-owner"})
        assert len(post.mails) == 3


class TestSeveralWorkshops:
    def test_one_person_in_two_switches_and_sees_each_alone(self, own: Api, house: House, other: House) -> None:
        Membership.objects.filter(pk=other.technician.pk).update(role="owner")
        token = token_of(Api(other.technician)("POST", "/people/invitations", {"role": "viewer"})[1])
        tech = Api(house.technician)
        status, session = tech("POST", "/people/links/join-as-you", {"token": token})
        assert (status, session["workshop"]["name"], session["role"]) == (200, other.workshop.name, "viewer")
        assert [each["name"] for each in session["workshops"]] == ["Wharf", other.workshop.name]
        assert session["kept_for"] == f"wharf-technician@{other.workshop.slug}"
        assert tech("PUT", f"/register/drums/{other.drum.tag}", {})[0] == 403
        assert tech("PUT", "/session/workshop", {"workshop": house.workshop.pk})[1]["role"] == "technician"
        assert tech("GET", "/session")[1]["workshop"]["name"] == "Wharf"
        assert tech("POST", "/people/links/join-as-you", {"token": token})[0] == 410
        own("DELETE", f"/people/members/{house.technician.pk}")
        assert tech("GET", "/session")[1]["workshop"]["name"] == other.workshop.name

    def test_a_workshop_one_does_not_work_in_is_not_there(self, house: House, other: House) -> None:
        assert Api(house.technician)("PUT", "/session/workshop", {"workshop": other.workshop.pk})[0] == 404

    def test_an_owner_begins_another(self, own: Api, house: House) -> None:
        status, session = own("POST", "/people/workshops", {"workshop": "Second Wharf", "length_unit": "mm"})
        assert (status, session["workshop"]["name"], session["role"]) == (200, "Second Wharf", "owner")
        assert own("GET", "/register/drums")[1]["total"] == 0
        assert Api(house.technician)("POST", "/people/workshops", {"workshop": "Third"})[0] == 403

    def test_what_a_page_of_the_other_workshop_sends_is_refused(self, house: House, other: House) -> None:
        tech = Api(house.technician)
        for shown, status in ((house.workshop.pk, 200), (other.workshop.pk, 409)):
            answer = tech.client.get("/api/today", headers={"X-Workshop": str(shown)})
            assert answer.status_code == status
        assert answer.json()["code"] == "other_workshop"


class TestSecondStep:
    @pytest.fixture
    def now(self, monkeypatch: pytest.MonkeyPatch) -> list[float]:
        clock = [1_800_000_000.0]
        monkeypatch.setattr("apps.accounts.second_step.time.time", lambda: clock[0])
        return clock

    @pytest.fixture
    def secret(self, own: Api, now: list[float]) -> str:
        begun = own("POST", "/session/codes/begin", {"password": GOOD})[1]
        assert set("".join(begun["modules"])) == {"0", "1"}
        assert f"secret={begun['secret']}" in begun["address"]
        return str(begun["secret"])

    def half(self) -> Api:
        api = Api(None)
        status, answer = api("POST", "/session", {"username": "wharf-owner", "password": GOOD})
        assert (status, answer["username"], answer["second_step"]) == (200, None, True)
        assert api("GET", "/today")[0] == 401
        return api

    def test_codes_are_those_of_the_standard(self) -> None:
        """RFC 6238, appendix B, its last six digits at 59 s, 1111111109 s and 20000000000 s for the SHA-1 secret."""
        totp = pyotp.TOTP("GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ")  # "12345678901234567890" in base 32
        assert [totp.at(at) for at in (59, 1111111109, 20000000000)] == ["287082", "081804", "353130"]
        assert second_step._step_of(totp.secret, "081 804", 0) is None

    def test_signing_in_asks_for_a_code_and_takes_each_once(self, own: Api, secret: str, now: list[float]) -> None:
        code = pyotp.TOTP(secret).at(now[0])
        assert own("POST", "/session/codes", {"code": "000000"})[1]["code"] == "wrong_code"
        spare = own("POST", "/session/codes", {"code": code})[1]["spare"]
        assert len(set(spare)) == 8
        assert self.half()("POST", "/session/code", {"code": code})[1]["code"] == "wrong_code", "it was taken already"
        now[0] += 30
        api = self.half()
        assert api("POST", "/session/code", {"code": pyotp.TOTP(secret).at(now[0])})[1]["username"] == "wharf-owner"
        assert api("GET", "/today")[0] == 200
        assert self.half()("POST", "/session/code", {"code": spare[0].upper()})[0] == 200
        assert self.half()("POST", "/session/code", {"code": spare[0]})[0] == 422
        assert api("GET", "/session/ways")[1] == {"passkeys": [], "codes": True, "spare_left": 7}
        assert api("POST", "/session/codes/off", {"password": "wrong-one-77"})[0] == 422
        assert api("POST", "/session/codes/off", {"password": GOOD})[1]["codes"] is False
        assert (
            Api(None)("POST", "/session", {"username": "wharf-owner", "password": GOOD})[1]["username"] == "wharf-owner"
        )

    def test_guessing_is_paused_however_many_sessions_it_comes_from(
        self, own: Api, secret: str, now: list[float]
    ) -> None:
        own("POST", "/session/codes", {"code": pyotp.TOTP(secret).at(now[0])})
        now[0] += 30
        for _ in range(6):
            assert self.half()("POST", "/session/code", {"code": "000000"})[0] == 422
        right = pyotp.TOTP(secret).at(now[0])
        assert self.half()("POST", "/session/code", {"code": right})[0] == 429
        OneTimeCodes.objects.update(wrong_at=timezone.now() - timedelta(minutes=16))
        assert self.half()("POST", "/session/code", {"code": right})[0] == 200

    def test_a_code_without_the_password_before_it_is_nothing(self, own: Api, secret: str, now: list[float]) -> None:
        own("POST", "/session/codes", {"code": pyotp.TOTP(secret).at(now[0])})
        assert Api(None)("POST", "/session/code", {"code": "123456"})[1]["code"] == "half_stale"
        half = self.half()
        now[0] += 30
        User.objects.get(username="wharf-owner").set_password("x")
        user = User.objects.get(username="wharf-owner")
        user.set_password("another-tide-77")
        user.save()
        assert half("POST", "/session/code", {"code": pyotp.TOTP(secret).at(now[0])})[1]["code"] == "half_stale"

    def test_an_owners_link_takes_off_a_step_that_was_lost(
        self, own: Api, secret: str, now: list[float], owner: Membership, house: House
    ) -> None:
        own("POST", "/session/codes", {"code": pyotp.TOTP(secret).at(now[0])})
        own("PUT", f"/people/members/{house.technician.pk}", {"role": "owner", "shown_name": "Tam"})
        token = token_of(Api(house.technician)("POST", f"/people/members/{owner.pk}/reset")[1])
        assert Api(None)("POST", "/people/links/password", {"token": token, "new": "another-tide-77"})[0] == 204
        assert not second_step.is_on(owner.user)
        assert not Session.objects.filter(session_key=own.client.session.session_key).exists()


class TestPasskeys:
    def test_adding_one_needs_the_password_and_an_answer_to_what_was_asked(self, own: Api) -> None:
        assert own("POST", "/session/passkeys/ask", {"password": "wrong-one-77"})[0] == 422
        status, asked = own("POST", "/session/passkeys/ask", {"password": GOOD})
        assert (
            status,
            asked["options"]["rp"]["name"],
            asked["options"]["authenticatorSelection"]["userVerification"],
        ) == (200, "Red Tally", "required")
        made = {"name": "bench tablet", "credential": {"id": "eA", "rawId": "eA", "response": {}, "type": "public-key"}}
        assert own("POST", "/session/passkeys", made)[1]["code"] == "bad_passkey"
        assert own("POST", "/session/passkeys", made)[1]["code"] == "passkey_stale", (
            "what was asked is good for one answer"
        )

    def test_a_key_nobody_has_gets_nobody_in(self, house: House) -> None:
        api = Api(None)
        assert api("POST", "/session/passkey", {"credential": {"id": "eA"}})[1]["code"] == "passkey_stale"
        assert api("POST", "/session/passkey/ask")[1]["options"]["userVerification"] == "required"
        status, answer = api("POST", "/session/passkey", {"credential": {"id": "eA"}})
        assert (status, answer["code"]) == (401, "unknown_passkey")


@pytest.mark.parametrize("path", ["/session/code", "/session/passkey/ask", "/people/first", "/people/links/look", "/people/links/join", "/people/links/password", "/people/forgot"])  # fmt: skip
def test_without_the_pages_token_nothing_is_taken_from_who_is_signed_out(db: None, path: str) -> None:
    token = "x" * 30
    full = {**FIRST, "word": "x", "token": token, "code": "123456", "new": GOOD}
    answer = Client(enforce_csrf_checks=True).post(f"/api{path}", json.dumps(full), content_type="application/json")
    assert (answer.status_code, answer.json()["code"]) == (403, "csrf")
