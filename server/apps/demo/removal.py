"""Remove a whole workshop, children first."""

from __future__ import annotations

from django.contrib.auth.models import User

from apps.bench.models import DrumFinding, Job, JobEvent, JobHead, KeptAnswer
from apps.followups.models import FollowUp
from apps.heads.models import Fitting, HeadLine, Promise, ShelfThing, StockItem, WireLine
from apps.history.models import LogEntry, PitchRecord
from apps.inspecting.models import Overrule, Verdict, Walk, WalkDrum, WalkEvent
from apps.photos.models import Photo
from apps.planned.models import PlannedJob
from apps.register.models import Drum, Kit, KitDrum, Owner, Place
from apps.stock.models import BareNote, GoesBack, Heap, Loan, Movement, ShelfCode
from apps.workshops.models import Membership, Workshop
from apps.workshops.scope import enter_workshop, without_trail

__all__ = ["remove_workshop"]


def remove_workshop(workshop: Workshop) -> None:
    """Delete every row of a workshop, and the accounts of those who work nowhere else."""
    enter_workshop(workshop.pk)
    without_trail()
    for model in (
        Photo,
        ShelfCode,
        BareNote,
        Loan,
        GoesBack,
        Movement,
        Heap,
        Overrule,
        Verdict,
        WalkEvent,
        WalkDrum,
        Walk,
        PlannedJob,
        Promise,
        JobEvent,
        JobHead,
        DrumFinding,
        KeptAnswer,
        Job,
        FollowUp,
        LogEntry,
        PitchRecord,
        Fitting,
        StockItem,
        HeadLine,
        WireLine,
        ShelfThing,
        KitDrum,
        Kit,
        Drum,
        Place,
        Owner,
    ):
        model.objects.filter(workshop=workshop).delete()
    User.objects.filter(memberships__workshop=workshop).exclude(
        memberships__in=Membership.objects.exclude(workshop=workshop)
    ).delete()
    workshop.delete()
