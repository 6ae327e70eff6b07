"""Use cases of a drum's sound."""

from __future__ import annotations

from django.db import transaction
from django.utils import timezone

from apps.heads.limits import refuse_beyond
from apps.history.models import LogEntry
from apps.register.models import Drum
from apps.sound.schemas import WantedIn
from apps.workshops.models import Membership
from drumwork.quantities import parse_pitch

__all__ = ["set_wanted"]


@transaction.atomic
def set_wanted(drum: Drum, body: WantedIn, member: Membership, because: str = "") -> Drum:
    """The drum's usual targets, with what they are for. A pitch the fitted film or the rods should not carry is refused."""
    said = []
    for side, typed in (("batter", body.batter), ("resonant", body.resonant)):
        pitch = parse_pitch(typed, member.workshop.a4_hz) if typed.strip() else None
        if pitch is not None:
            refuse_beyond(drum, side, pitch)
        setattr(drum, f"wanted_{side}_hz", pitch.hz if pitch else None)
        said.append(f"{side} {pitch.hz:.1f} Hz" if pitch else f"{side} not set")
    drum.save(update_fields=["wanted_batter_hz", "wanted_resonant_hz"])
    LogEntry.objects.create(
        workshop=member.workshop,
        drum=drum,
        at=timezone.now(),
        kind="targets",
        text=f"Usual targets{f' {because}' if because else ''}: {', '.join(said)}",
        by_name=member.shown_name,
    )
    return drum
