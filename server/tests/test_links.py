"""Links are checked when they are used, against what was so when they were made."""

from __future__ import annotations

from typing import Any

import pytest
from django.contrib.auth.models import User
from house import GOOD, Api, House, join, token_of

from apps.people.links import make_password_link
from apps.workshops.models import Membership

NEW = "another-tide-77"


def reset(own: Api, member: Membership) -> str:
    status, made = own("POST", f"/people/members/{member.pk}/reset")
    assert status == 200, made
    return token_of(made)


def invitation(own: Api, role: str = "viewer") -> str:
    return token_of(own("POST", "/people/invitations", {"role": role})[1])


def use(token: str) -> tuple[int, Any]:
    return Api(None)("POST", "/people/links/password", {"token": token, "new": NEW})


def code_of(answer: tuple[int, Any]) -> tuple[int, str]:
    return answer[0], (answer[1] or {}).get("code", "")


@pytest.fixture
def second(house: House) -> Membership:
    user = User.objects.create_user("wharf-second", password=GOOD)
    return Membership.objects.create(user=user, workshop=house.workshop, role="owner", shown_name="Second of Wharf")


class TestWaysToAPassword:
    def test_who_joined_elsewhere_meanwhile_keeps_their_password_and_their_second_step(
        self, own: Api, house: House, other: House
    ) -> None:
        user = house.technician.user
        token = reset(own, house.technician)
        Membership.objects.create(user=user, workshop=other.workshop, role="owner", shown_name="Tam")
        assert code_of(use(token)) == (410, "link_overtaken")
        assert Api(None)("POST", "/people/links/look", {"token": token})[0] == 410
        user.refresh_from_db()
        assert not user.check_password(NEW)

    def test_good_while_all_their_workshops_are_the_makers(
        self, own: Api, owner: Membership, house: House, other: House
    ) -> None:
        Membership.objects.create(user=house.technician.user, workshop=other.workshop, role="viewer", shown_name="Tam")
        mine = Membership.objects.create(user=owner.user, workshop=other.workshop, role="owner", shown_name="Both")
        token = reset(own, house.technician)
        later = reset(own, house.technician)
        mine.delete()
        assert code_of(use(later)) == (410, "link_overtaken"), "no owner of the other workshop any more"
        assert code_of(use(token)) == (410, "link_withdrawn")

    def test_an_owner_no_more_leaves_no_way_in(
        self, own: Api, owner: Membership, second: Membership, house: House
    ) -> None:
        token, invited = reset(own, house.technician), invitation(own, "owner")
        by_second = Api(second)
        assert by_second("PUT", f"/people/members/{owner.pk}", {"role": "viewer", "shown_name": "Less"})[0] == 204
        assert code_of(use(token)) == (410, "link_withdrawn")
        assert code_of(join(invited)) == (410, "link_withdrawn")
        (shown,) = by_second("GET", "/people")[1]["invitations"]
        assert shown["state"] == "withdrawn"

    def test_whichever_way_the_maker_went(self, own: Api, owner: Membership, second: Membership, house: House) -> None:
        token, invited = reset(own, house.technician), invitation(own)
        Membership.objects.filter(pk=owner.pk).delete()  # past the page: an account deleted by hand, a restored copy
        assert code_of(use(token)) == (410, "link_overtaken")
        assert code_of(join(invited)) == (410, "link_overtaken")

    def test_who_works_here_no_more(self, own: Api, house: House) -> None:
        token = reset(own, house.technician)
        Membership.objects.filter(pk=house.technician.pk).delete()
        assert code_of(use(token)) == (410, "link_overtaken")

    def test_the_newest_alone_is_good(self, own: Api, house: House) -> None:
        first, newest = reset(own, house.technician), reset(own, house.technician)
        assert code_of(use(first)) == (410, "link_withdrawn")
        assert use(newest)[0] == 204

    def test_the_newest_of_two_owners_too(self, own: Api, second: Membership, house: House) -> None:
        first, newest = reset(own, house.technician), reset(Api(second), house.technician)
        assert code_of(use(first)) == (410, "link_withdrawn")
        assert use(newest)[0] == 204

    def test_older_than_a_change_of_the_password_is_good_for_nothing(self, own: Api, house: House) -> None:
        user = house.technician.user
        token = reset(own, house.technician)
        _, by_mail = make_password_link(user)
        user.set_password("set-by-themselves-9")
        user.save()
        assert code_of(use(token)) == code_of(use(by_mail)) == (410, "link_overtaken")

    def test_one_used_ends_those_of_other_doors(self, own: Api, house: House) -> None:
        _, by_mail = make_password_link(house.technician.user)
        assert use(reset(own, house.technician))[0] == 204
        assert code_of(use(by_mail)) == (410, "link_overtaken")

    def test_mailed_to_an_address_that_is_theirs_no_more(self, house: House) -> None:
        user = house.technician.user
        user.email = "old@example.test"
        user.save()
        _, token = make_password_link(user, email=user.email)
        user.email = "new@example.test"
        user.save()
        assert code_of(use(token)) == (410, "link_overtaken")

    def test_asking_by_mail_takes_no_owners_link_back(self, own: Api, house: House) -> None:
        token = reset(own, house.technician)
        make_password_link(house.technician.user)
        assert use(token)[0] == 204


class TestInvitations:
    def test_two_invited_by_one_owner_both_come(self, own: Api) -> None:
        first, later = invitation(own), invitation(own)
        assert join(first, "one")[0] == join(later, "two")[0] == 200

    def test_who_joins_by_one_is_out_of_reach_of_an_older_way_to_a_password(
        self, own: Api, house: House, other: House
    ) -> None:
        token = reset(own, house.technician)
        Membership.objects.filter(pk=other.technician.pk).update(role="owner")
        to_mill = invitation(Api(other.technician))
        assert Api(house.technician)("POST", "/people/links/join-as-you", {"token": to_mill})[0] == 200
        assert code_of(use(token)) == (410, "link_overtaken")


def test_a_new_password_lifts_the_lock_of_its_person_on_that_device(own: Api, house: House) -> None:
    api, named = Api(None), {"username": "wharf-technician"}
    for _ in range(7):
        locked, _ = api("POST", "/session", {**named, "password": "not-it-at-all"})
    assert locked == 429
    token = reset(own, house.technician)
    assert api("POST", "/people/links/password", {"token": token, "new": NEW})[0] == 204
    assert api("POST", "/session", {**named, "password": NEW})[0] == 200
