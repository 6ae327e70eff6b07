"""Use cases of the register."""

from __future__ import annotations

import uuid

from django.db import transaction
from django.utils import timezone

from apps.bench.models import Job
from apps.drums.leaving import take_out_of_work
from apps.drums.merging import changes_words, merged
from apps.history.models import LogEntry
from apps.register.lookup import drum_by_tag, one_of
from apps.register.models import Drum, Kit, KitDrum, Owner, Place
from apps.register.schemas import KIND_WORDS, DrumEdit, DrumIn, shape_form, to_fields
from apps.register.sides import SideOf
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.drums import Side
from drumwork.work.plan import Part

__all__ = ["add_drum", "add_note", "correct", "edit_drum", "search_text"]


def search_text(drum: Drum, kits: list[str]) -> str:
    """What the register finds a drum by."""
    words = [drum.tag, drum.name, KIND_WORDS[drum.kind], drum.shell, drum.place.name, drum.owner.name, *kits]
    return " ".join(words).lower()[:400]


def _set_kits(drum: Drum, kits: list[str]) -> None:
    """The kits it belongs to; those it stays in are not touched."""
    stays = set(KitDrum.objects.filter(drum=drum).values_list("kit__name", flat=True))
    KitDrum.objects.filter(drum=drum).exclude(kit__name__in=kits).delete()
    for name in sorted(set(kits) - stays):
        kit, _ = Kit.objects.get_or_create(workshop_id=drum.workshop_id, name=name)
        KitDrum.objects.create(workshop_id=drum.workshop_id, kit=kit, drum=drum)


def _write(drum: Drum, body: DrumIn, member: Membership) -> Drum:
    for name, value in to_fields(body, member.workshop).items():
        setattr(drum, name, value)
    drum.workshop = member.workshop
    drum.place, _ = Place.objects.get_or_create(workshop=member.workshop, name=body.place.strip())
    drum.owner, _ = Owner.objects.get_or_create(workshop=member.workshop, name=body.owner.strip())
    drum.search = search_text(drum, body.kits)
    drum.save()
    _set_kits(drum, body.kits)
    return drum


def _refuse_taken(tag: str, but: int | None) -> None:
    if Drum.objects.filter(tag__iexact=tag.strip()).exclude(pk=but or 0).exists():
        raise Refused(
            "tag_taken",
            f"{tag} is another drum's tag already. Choose the next free one.",
            422,
            tag="Taken by another drum.",
        )


@transaction.atomic
def add_drum(body: DrumIn, member: Membership) -> Drum:
    _refuse_taken(body.tag, None)
    drum = _write(Drum(), body, member)
    LogEntry.objects.create(
        workshop=member.workshop,
        drum=drum,
        at=timezone.now(),
        kind="register",
        text="Entered in the register",
        by_name=member.shown_name,
    )
    return drum


@transaction.atomic
def edit_drum(tag: str, asked: DrumEdit, member: Membership) -> Drum:
    """Rods cannot change under a job in hand: its count would no longer fit the drum."""
    drum = one_of(Drum.objects.select_for_update(of=("self",)).select_related("place", "owner"), tag)
    unit = member.workshop.length_unit
    before = shape_form(drum, unit)
    body = merged(asked, before, drum)
    _refuse_taken(body.tag, drum.pk)
    parts = Job.objects.filter(drum=drum, state="open").values_list("part", flat=True)
    busy = {side.value for part in parts for side in Part(part).sides}
    for side, rods in (("batter", body.rods_batter), ("resonant", body.rods_resonant)):
        if side in busy and rods != SideOf(drum, Side(side)).rods:
            raise Refused(
                "job_in_hand",
                f"A job on the {side} head is in hand; its rods are being counted. Close it first.",
                409,
                **{f"rods_{side}": "In hand."},
            )
    if body.state == "retired" and drum.state != body.state:
        take_out_of_work(drum)
    _write(drum, body, member)
    drum = drum_by_tag(drum.tag)
    text, changed = changes_words(before, shape_form(drum, unit))
    if changed:
        LogEntry.objects.create(
            workshop=member.workshop,
            drum=drum,
            at=timezone.now(),
            kind="register",
            text=text,
            by_name=member.shown_name,
            record={"changed": changed},
        )
    return drum


@transaction.atomic
def add_note(tag: str, key: uuid.UUID, text: str, member: Membership) -> None:
    """A line in the history without a job; sent twice, it stands once."""
    drum = one_of(Drum.objects.select_for_update(of=("self",)), tag)
    if LogEntry.objects.filter(drum=drum, kind="note", record__id=str(key)).exists():
        return
    LogEntry.objects.create(
        workshop=member.workshop,
        drum=drum,
        at=timezone.now(),
        kind="note",
        text=text,
        by_name=member.shown_name,
        record={"id": str(key)},
    )


@transaction.atomic
def correct(tag: str, entry_id: int, text: str, member: Membership) -> None:
    """A line of the history is never rewritten: the correction stands beside it, with what it corrects."""
    entry = LogEntry.objects.select_related("drum").get(pk=entry_id, drum__tag__iexact=tag)
    LogEntry.objects.create(
        workshop=member.workshop,
        drum=entry.drum,
        at=timezone.now(),
        kind="correction",
        side=entry.side,
        text=f"Correction: {text}",
        by_name=member.shown_name,
        job_id=entry.job_id,
        record={"corrects": {"entry": entry.pk, "text": entry.text, "at": entry.at.isoformat(), "by": entry.by_name}},
    )
