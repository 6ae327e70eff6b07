"""A drum leaves: retired and back again, or, entered by mistake, deleted."""

from __future__ import annotations

from typing import Final

from django.db import transaction
from django.db.models import Model, Q
from django.utils import timezone

from apps.bench.models import DrumFinding, Job
from apps.followups.models import FollowUp
from apps.heads.models import Fitting
from apps.history.models import LogEntry, PitchRecord
from apps.inspecting.models import Verdict, WalkDrum
from apps.photos.models import Photo
from apps.planned.flows import drop
from apps.planned.models import PlannedJob
from apps.register.lookup import one_of
from apps.register.models import Drum
from apps.stock.models import Loan, Movement
from apps.workshops.errors import Refused
from apps.workshops.models import Membership

__all__ = ["bring_back", "delete", "may_be_deleted", "retire", "take_out_of_work"]

_TOLD_BY: Final[tuple[type[Model], ...]] = (
    Job, DrumFinding, FollowUp, Fitting, PitchRecord, Verdict, WalkDrum, Photo, PlannedJob, Movement,
)  # fmt: skip


def _locked(tag: str) -> Drum:
    return one_of(Drum.objects.select_for_update(), tag)


def take_out_of_work(drum: Drum) -> None:
    """What was planned for it is dropped, and what was promised to it is free.

    Raises
    ------
    Refused
        while a job on it is in hand.
    """
    if Job.objects.filter(drum=drum, state="open").exists():
        raise Refused("job_in_hand", "A job on it is in hand. Close it or put it aside first.")
    for key in PlannedJob.objects.filter(drum=drum, state=PlannedJob.State.OPEN).values_list("pk", flat=True):
        drop(key, "the drum was retired")


def _write(drum: Drum, state: str, text: str, member: Membership) -> None:
    drum.state = state
    drum.save(update_fields=["state"])
    LogEntry.objects.create(
        workshop=member.workshop, drum=drum, at=timezone.now(), kind="register", text=text, by_name=member.shown_name
    )


@transaction.atomic
def retire(tag: str, member: Membership) -> None:
    """It is worked on no more; its record stays. Asked twice, done once."""
    drum = _locked(tag)
    if drum.state != Drum.State.RETIRED:
        take_out_of_work(drum)
        _write(drum, Drum.State.RETIRED, "Retired", member)


@transaction.atomic
def bring_back(tag: str, member: Membership) -> None:
    drum = _locked(tag)
    if drum.state == Drum.State.RETIRED:
        _write(drum, Drum.State.IN, "Brought back", member)


def may_be_deleted(drum: Drum) -> bool:
    """Whether nothing but its entry is known of it."""
    told = any(model._default_manager.filter(drum=drum).exists() for model in _TOLD_BY)
    lent = Loan.objects.filter(Q(from_drum=drum) | Q(to_drum=drum)).exists()
    return not (told or lent or LogEntry.objects.filter(drum=drum).exclude(kind="register").exists())


@transaction.atomic
def delete(tag: str) -> None:
    """Gone as if it had never been entered.

    Raises
    ------
    Refused
        where it has a history.
    """
    drum = _locked(tag)
    if not may_be_deleted(drum):
        raise Refused("has_history", f"{drum.name} has a history, which stays. Retire it instead.")
    drum.delete()
