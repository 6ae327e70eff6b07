"""Names of places, owners and kits: renamed, merged where the new name is one already, taken away where nothing bears it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final, Literal

from django.db import transaction
from django.db.models import Count
from ninja import Schema

from apps.drums.flows import search_text
from apps.register.models import Drum, Kit, KitDrum, Owner, Place
from apps.workshops.errors import Refused

__all__ = ["NameOut", "NamesOut", "Sort", "all_names", "rename", "take_away"]

Sort = Literal["place", "owner", "kit"]
_MODELS: Final[Mapping[str, type[Place] | type[Owner] | type[Kit]]] = {"place": Place, "owner": Owner, "kit": Kit}
_OF_DRUMS: Final = {"place": "place", "owner": "owner", "kit": "kits"}


class NameOut(Schema):
    """A name and how many drums bear it."""

    name: str
    drums: int


class NamesOut(Schema):
    place: list[NameOut]
    owner: list[NameOut]
    kit: list[NameOut]


def _named(sort: Sort) -> list[NameOut]:
    rows = _MODELS[sort].objects.annotate(n=Count("drums")).order_by("name").values_list("name", "n")
    return [NameOut(name=name, drums=count) for name, count in rows]


def all_names() -> NamesOut:
    """Every name there is."""
    return NamesOut(place=_named("place"), owner=_named("owner"), kit=_named("kit"))


def _write_search(drums: list[int]) -> None:
    """What drums are found by says the new name."""
    rows = list(Drum.objects.filter(pk__in=drums).select_related("place", "owner").prefetch_related("kits"))
    for drum in rows:
        drum.search = search_text(drum, [kit.name for kit in drum.kits.all()])
    Drum.objects.bulk_update(rows, ["search"], batch_size=500)


@transaction.atomic
def rename(sort: Sort, old: str, new: str) -> bool:
    """Rename; True where it was merged into one that bears the name already.

    Raises
    ------
    Refused
        where nothing bears the old name.
    """
    of = _MODELS[sort]
    row = of.objects.select_for_update().filter(name=old).first()
    if row is None:
        raise Refused("no_such_name", f"There is no {sort} “{old}” any more. Reload the page.", 404)
    drums = list(Drum.objects.filter(**{_OF_DRUMS[sort]: row}).values_list("pk", flat=True))
    other = of.objects.select_for_update().filter(name__iexact=new).exclude(pk=row.pk).first()
    if other is None:
        row.name = new
        row.save(update_fields=["name"])
    elif sort == "kit":
        there = KitDrum.objects.filter(kit_id=other.pk).values("drum_id")
        KitDrum.objects.filter(kit_id=row.pk).exclude(drum_id__in=there).update(kit_id=other.pk)
        row.delete()
    else:
        Drum.objects.filter(pk__in=drums).update(**{f"{sort}_id": other.pk})
        row.delete()
    _write_search(drums)
    return other is not None


@transaction.atomic
def take_away(sort: Sort, name: str) -> None:
    """A name nothing bears; asked twice, it is gone once.

    Raises
    ------
    Refused
        while drums bear it.
    """
    row = _MODELS[sort].objects.select_for_update().filter(name=name).first()
    if row is None:
        return
    if count := Drum.objects.filter(**{_OF_DRUMS[sort]: row}).count():
        raise Refused(
            "in_use", f"{count} {'drum bears' if count == 1 else 'drums bear'} it. Rename it, or move them first.", 409
        )
    row.delete()
