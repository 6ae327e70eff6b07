"""The last head, wanted by many at the same moment: exactly one gets it. Under real concurrency, each in its own connection."""

from __future__ import annotations

import threading
import uuid

import pytest
from django.db import connection, transaction
from house import make_drum, make_house

from apps.heads.models import Promise, StockItem
from apps.heads.promises import promise
from apps.workshops.errors import Refused
from apps.workshops.scope import enter_workshop


@pytest.mark.django_db(transaction=True)
def test_of_twelve_who_want_the_last_two_heads_exactly_two_get_one() -> None:
    with transaction.atomic():
        house = make_house("wharf")
        drums = [make_drum(house.workshop, f"WR-{n:03d}") for n in range(100, 112)]
        StockItem.objects.filter(pk=house.stock.pk).update(count=2)
    gate, got, refused = threading.Barrier(len(drums)), list[str](), list[str]()

    def want(n: int) -> None:
        gate.wait()
        try:
            with transaction.atomic():
                enter_workshop(house.workshop.pk)
                promise(house.stock.pk, drums[n], uuid.uuid4(), "batter", house.technician)
            got.append(drums[n].tag)
        except Refused as error:
            refused.append(error.code)
        finally:
            connection.close()

    threads = [threading.Thread(target=want, args=(n,)) for n in range(len(drums))]
    for each in threads:
        each.start()
    for each in threads:
        each.join()
    assert (len(got), refused) == (2, ["none_left"] * 10)
    with transaction.atomic():
        house.enter()
        assert sorted(Promise.objects.values_list("drum__tag", flat=True)) == sorted(got)
