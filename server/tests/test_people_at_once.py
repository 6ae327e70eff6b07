"""Links and owners under real concurrency, each in its own connection."""

from __future__ import annotations

import threading
from collections.abc import Callable

import pytest
from django.contrib.auth.models import User
from django.db import connection, transaction
from house import House, make_house

from apps.people import first, flows
from apps.workshops.errors import Refused
from apps.workshops.models import Membership, Workshop


def at_once(acts: list[Callable[[], object]]) -> list[str]:
    """All at the same moment; what each came to."""
    gate, came = threading.Barrier(len(acts)), list[str]()

    def run(act: Callable[[], object]) -> None:
        gate.wait()
        try:
            with transaction.atomic():
                act()
            came.append("done")
        except Refused as error:
            came.append(error.code)
        finally:
            connection.close()

    threads = [threading.Thread(target=run, args=(act,)) for act in acts]
    for each in threads:
        each.start()
    for each in threads:
        each.join()
    return sorted(came)


def owner_of(house: House, name: str) -> Membership:
    user = User.objects.create_user(name)
    return Membership.objects.create(user=user, workshop=house.workshop, role="owner", shown_name=name)


@pytest.mark.django_db(transaction=True)
def test_of_eight_who_use_one_invitation_one_comes_in() -> None:
    with transaction.atomic():
        house = make_house("wharf")
        _, token = flows.invite(owner_of(house, "ora"), "viewer", "", "")
    came = at_once([lambda n=n: flows.join_new(token, f"kit{n}", "Kit", "low-tide-by-noon") for n in range(8)])  # type: ignore[misc]
    assert came == ["done"] + ["link_used"] * 7
    assert User.objects.filter(username__startswith="kit").count() == 1


@pytest.mark.django_db(transaction=True)
def test_two_owners_who_remove_each_other_leave_one() -> None:
    with transaction.atomic():
        house = make_house("wharf")
        one, two = owner_of(house, "ora"), owner_of(house, "oll")
    came = at_once([lambda: flows.remove(one, two.pk), lambda: flows.remove(two, one.pk)])
    assert "done" in came
    assert Membership.objects.filter(workshop=house.workshop, role="owner").count() == 1


@pytest.mark.django_db(transaction=True)
def test_one_word_begins_one_workshop() -> None:
    word = first.new_word()
    assert word is not None
    acts = [
        lambda n=n: first.begin_first(word, f"Loft {n}", "in", f"petra{n}", "Petra", "low-tide-by-noon")
        for n in range(6)
    ]  # type: ignore[misc]
    assert at_once(acts) == ["begun"] * 5 + ["done"]
    assert Workshop.objects.filter(demo=False).count() == 1
