"""Use cases of kits: put one together, keep its wish, make the jobs of a plan."""

from __future__ import annotations

import uuid

from django.db import transaction
from django.utils import timezone

from apps.bench.models import Job
from apps.drums.flows import search_text
from apps.kits.schemas import KitIn, KitJobsIn, KitJobsOut, KitWishes
from apps.planned.flows import Wanted, plan_work
from apps.planned.schemas import shape_planned
from apps.register.lookup import drums_by_tag
from apps.register.models import Drum, Kit, KitDrum
from apps.register.sides import SideOf
from apps.sound.flows import set_wanted
from apps.sound.schemas import WantedIn
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.drums import Side
from drumwork.procedures.catalogue import RETUNES
from drumwork.quantities.intervals import parse_interval
from drumwork.work.plan import Part

SAME_HZ = 0.005
__all__ = ["keep_wish", "make_jobs", "save_kit"]


def _drums(tags: list[str]) -> dict[str, Drum]:
    folded = [tag.strip().casefold() for tag in tags]
    if len(set(folded)) != len(folded):
        twice = next(tag for tag in tags if folded.count(tag.strip().casefold()) > 1)
        raise Refused("twice", f"{twice} is in this kit twice. Take one of them out.", 422)
    found = drums_by_tag(tags, Drum.objects.select_related("place", "owner"))
    for tag in tags:
        if tag not in found:
            raise Refused("no_drum", f"There is no drum {tag}. It was renamed or taken away: choose another.", 422)
    return found


@transaction.atomic
def save_kit(kit: Kit | None, body: KitIn, member: Membership) -> Kit:
    """A kit begun, or as it is now; drums in the order given. Its wish is not touched."""
    taken = Kit.objects.filter(name__iexact=body.name).exclude(pk=kit.pk if kit else 0)
    if taken.exists():
        raise Refused(
            "kit_taken",
            f"There is a kit “{body.name}” already. Open that one, or choose another name.",
            422,
            name="Taken by another kit.",
        )
    drums = _drums([each.tag for each in body.drums])
    kit = Kit.objects.select_for_update().get(pk=kit.pk) if kit else Kit(workshop=member.workshop)
    kit.name, kit.occasion, kit.at, kit.day = body.name, body.occasion, body.at, body.day
    kit.save()
    before = {row.drum_id: row for row in KitDrum.objects.filter(kit=kit)}
    for number, each in enumerate(body.drums):
        row = before.pop(drums[each.tag].pk, None) or KitDrum(workshop=member.workshop, kit=kit, drum=drums[each.tag])
        row.role, row.row = each.role or "", number
        row.save()
    gone = list(before)
    KitDrum.objects.filter(kit=kit, drum__in=gone).delete()
    touched = Drum.objects.filter(pk__in=[*gone, *(each.pk for each in drums.values())])
    for drum in touched.select_related("place", "owner").prefetch_related("kits"):
        drum.search = search_text(drum, [other.name for other in drum.kits.all()])
        drum.save(update_fields=["search"])
    return kit  # fmt: skip


def keep_wish(kit: Kit, wish: KitWishes) -> None:
    """Kept as it was typed; only how two heads stand must be readable, as the kit is shown by it.

    Raises
    ------
    BadQuantity
        for an interval that is none.
    """
    for way in wish.above.values():
        if way.strip():
            parse_interval(way)
    kit.wish = wish.model_dump(mode="json")
    kit.save(update_fields=["wish"])


def _typed(hz: float | None) -> str:
    return f"{hz:.3f} Hz" if hz else ""


@transaction.atomic
def make_jobs(kit: Kit, body: KitJobsIn, member: Membership) -> KitJobsOut:
    """Targets and planned jobs as the plan on the screen has them; all of them, or, where a film cannot carry one, none.

    Raises
    ------
    Refused
        where a drum left the kit meanwhile, or a pitch is beyond film or rods by now.
    """
    there = {row.drum.tag: row.drum for row in KitDrum.objects.filter(kit=kit).select_related("drum")}
    wanted: dict[str, dict[Side, float]] = {}
    for head in body.heads:
        if head.tag not in there:
            raise Refused("left_kit", f"{head.tag} is no drum of this kit any more. Plan again.", 409)
        wanted.setdefault(head.tag, {})[head.side] = head.hz
    for tag, sides in wanted.items():
        drum = Drum.objects.select_for_update().get(pk=there[tag].pk)
        usual = {side: SideOf(drum, side).wanted_hz for side in Side}
        asked = {side: sides.get(side, usual[side]) for side in Side}
        if any(abs((usual[side] or 0.0) - hz) > SAME_HZ for side, hz in sides.items()):
            targets = WantedIn(batter=_typed(asked[Side.BATTER]), resonant=_typed(asked[Side.RESONANT]))
            set_wanted(drum, targets, member, f"for {kit.name}")
    made = []
    for number, head in enumerate(each for each in body.heads if each.job):
        key = uuid.uuid5(body.id, f"{head.tag} {head.side.value} {number}")
        why = f"{kit.name}: {head.why}" if head.why else kit.name
        due = kit.day if kit.day and kit.day >= timezone.localdate() else timezone.localdate()
        row = plan_work(Wanted(key, there[head.tag], RETUNES.id, Part(head.side.value), due, why[:200], {}), member)
        made.append(shape_planned(row, timezone.localdate()))
    busy = Job.objects.filter(drum__in=[there[tag].pk for tag in wanted], state="open").values_list(
        "drum__name", flat=True
    )
    notes = [f"{name} is on the bench: close that job first, then its new pitch." for name in sorted(set(busy))]
    return KitJobsOut(planned=made, notes=notes)  # fmt: skip
