"""What stands on a drum now, entered without a job: what is fitted, since when as far as anybody knows, and how it was found to sound."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from statistics import fmean
from typing import Final

from django.db import transaction
from django.utils import timezone

from apps.bench.models import Job
from apps.drums.stands_schemas import FoundOn, StandsIn
from apps.heads.models import Fitting
from apps.history.models import LogEntry, PitchRecord
from apps.register.lookup import one_of
from apps.register.models import Drum
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.drums import traits_of
from drumwork.errors import DrumworkError
from drumwork.quantities import Pitch, parse_pitch
from drumwork.work.plan import Part

__all__ = ["say_what_stands"]

MONTH: Final = timedelta(days=365.2425 / 12)
OLDEST: Final = date(1900, 1, 1)
_BECAUSE: Final = "another one was found on the drum"


@dataclass(frozen=True)
class _Day:
    """When something was fitted, as far as it is known."""

    at: datetime
    dated: str

    @property
    def words(self) -> str:
        day = timezone.localtime(self.at)
        return {
            "known": f"since {day.day} {day:%B %Y}",
            "guessed": f"since about {day:%B %Y}",
            "unknown": "since when is not known",
        }[self.dated]


def _day(said: FoundOn, place: str, now: datetime) -> _Day:
    if said.dated == "unknown":
        return _Day(now, "unknown")
    if said.dated == "guessed" and said.months is not None:
        return _Day(now - said.months * MONTH, "guessed")
    if said.on is None:
        raise Refused(
            "bad_date", "Say the day, or how many months ago about, or that nobody knows.", 422, **{place: "Say when."}
        )
    today = timezone.localdate(now)
    if not OLDEST <= said.on <= today:
        raise Refused(
            "bad_date", "The day it was fitted lies between 1900 and today.", 422, **{place: "Not after today."}
        )
    at = timezone.make_aware(datetime.combine(said.on, time(12))) if said.on < today else now
    return _Day(at, said.dated)


def _fit(drum: Drum, place: str, said: FoundOn, day: _Day, member: Membership) -> None:
    """The head or set that is on; the one the record had there goes, unless it is the same and only its day was not known."""
    there = Fitting.objects.filter(drum=drum, side=place, retired_at__isnull=True).first()
    if there is not None and there.head == said.what:
        earlier = (
            Fitting.objects.filter(drum=drum, side=place, retired_at__isnull=False).order_by("-retired_at").first()
        )
        if earlier is not None and earlier.retired_at is not None and day.at < earlier.retired_at:
            raise _overlaps(earlier, place)
        there.fitted_at, there.dated = day.at, day.dated
        there.save(update_fields=["fitted_at", "dated"])
        return
    if there is not None:
        if day.at <= there.fitted_at:
            raise _overlaps(there, place)
        there.retired_at, there.retired_because = day.at, _BECAUSE
        there.save(update_fields=["retired_at", "retired_because"])
    Fitting.objects.create(
        workshop_id=drum.workshop_id,
        drum=drum,
        side=place,
        head=said.what,
        fitted_at=day.at,
        dated=day.dated,
        fitted_by_name="",
    )


def _overlaps(there: Fitting, place: str) -> Refused:
    until = there.retired_at or there.fitted_at
    day = timezone.localtime(until)
    said = f"By the record {there.head} was on until {day.day} {day:%B %Y}; what is on now came later. Give a later day, or say that it is not known."
    return Refused("overlaps", said, 409, **{place: "Later than the record has it."})


def _readings(text: str, place: str, a4_hz: float) -> list[float]:
    """One pitch, or one for each rod, parted by blanks or semicolons."""
    try:
        return [parse_pitch(each, a4_hz).hz for each in text.replace(";", " ").split()]
    except DrumworkError as error:
        raise Refused("bad_pitch", error.message, 422, **{f"{place}_pitch": error.message}) from error


def _keep_pitch(drum: Drum, place: str, found: Iterable[float], now: datetime) -> str:
    read = list(found)
    mean, spread = fmean(read), max(read) - min(read)
    PitchRecord.objects.create(
        workshop_id=drum.workshop_id,
        drum=drum,
        side=place,
        at=now,
        mean_hz=round(mean, 2),
        spread_hz=round(spread, 2) if len(read) > 1 else None,
    )
    return f"{Pitch(mean).hz:.1f} Hz as found" + (f", spread {spread:.1f}" if len(read) > 1 else "")


def _refuse_busy(drum: Drum, places: Iterable[str]) -> None:
    """While a job is on it, its record is the job’s."""
    for part in Job.objects.filter(drum=drum, state="open").values_list("part", flat=True):
        taken = {*(side.value for side in Part(part).sides), *(("wires",) if part in ("wires", "drum") else ())}
        if busy := sorted(taken & set(places)):
            raise Refused(
                "in_hand",
                f"A job on the {busy[0]} is in hand. Close it or put it aside first.",
                409,
                **{busy[0]: "In hand."},
            )


@transaction.atomic
def say_what_stands(tag: str, asked: StandsIn, member: Membership) -> Drum:
    """Enter it, once: said again with the same id, nothing happens.

    Raises
    ------
    Refused
        where it cannot be so by the record, or a job on that part is in hand; nothing of it is kept then.
    """
    drum = one_of(Drum.objects.select_for_update(of=("self",)), tag)
    if LogEntry.objects.filter(drum=drum, kind="stands", record__id=str(asked.id)).exists():
        return drum
    now = timezone.now()
    found = {place: said for place in ("batter", "resonant", "wires") if (said := getattr(asked, place)) is not None}
    pitches = {side: text for side in ("batter", "resonant") if (text := getattr(asked, f"{side}_pitch"))}
    if not found and not pitches:
        raise Refused("nothing_said", "Say what is on it, or how it sounds.", 422)
    if "wires" in found and not traits_of(drum.kind).wires:
        raise Refused("no_wires", "No wires lie under this drum.", 422, wires="No wires lie under this drum.")
    _refuse_busy(drum, found)
    told = []
    for place, said in found.items():
        day = _day(said, place, now)
        _fit(drum, place, said, day, member)
        told.append(f"{place} {said.what}, {day.words}")
    for side, text in pitches.items():
        told.append(f"{side} {_keep_pitch(drum, side, _readings(text, side, member.workshop.a4_hz), now)}")
    LogEntry.objects.create(
        workshop_id=drum.workshop_id,
        drum=drum,
        at=now,
        kind="stands",
        text=f"What stands now: {'; '.join(told)}"[:300],
        by_name=member.shown_name,
        record={"id": str(asked.id)},
    )
    return drum
