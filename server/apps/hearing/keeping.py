"""Keep what was heard. The sound itself only of those who agreed, within bounds, until they delete it; it never leaves the server but to its workshop."""

from __future__ import annotations

import io
import json
import uuid
import zipfile
from dataclasses import asdict

import numpy as np
import soundfile  # type: ignore[import-untyped]  # it ships no types
from django.db import transaction
from django.db.models import QuerySet, Sum
from django.utils import timezone
from numpy.typing import NDArray

from apps.bench.models import Job
from apps.hearing.models import HeardTap
from apps.hearing.schemas import KeptOut, Place, TapOut, partials_of
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.listening import TapReading, picture_of

__all__ = ["delete_sounds", "export", "keep_tap", "kept_of", "set_consent", "sound_of"]

MOST_BYTES = 200 * 1024 * 1024
"""Of all sound of a workshop: about three thousand taps. The oldest goes first."""
LONGEST_S = 2.0
LOUDEST = 0.5
"""Play-back never comes louder than this share of full scale."""


def _as_file(samples: NDArray[np.floating], rate: int, kind: str) -> bytes:
    file = io.BytesIO()
    soundfile.write(file, samples, rate, format=kind, subtype="PCM_16")
    return file.getvalue()


def _one_channel(samples: NDArray[np.floating]) -> NDArray[np.floating]:
    return samples if samples.ndim == 1 else np.asarray(samples.mean(axis=1))


def keep_tap(
    job: Job, place: Place, member: Membership, found: TapReading, samples: NDArray[np.floating], rate: int
) -> HeardTap:
    """Store what a tap said and looked like; and its sound, where the person who tapped agreed. A simulated drum's is nobody's."""
    one = _one_channel(samples)[: int(LONGEST_S * rate)]
    sound = _as_file(np.clip(one, -1, 1), rate, "FLAC") if member.keeps_sound or place.simulated else None
    picture = picture_of(one, rate, found.onset_s, found.hz)
    tap = HeardTap.objects.create(
        id=uuid.uuid4(),
        workshop_id=job.workshop_id,
        job=job,
        step=place.step,
        lap=place.lap,
        rod=place.rod,
        by=member.user,
        by_name=member.shown_name,
        heard_at=timezone.now(),
        other_muted=place.other_muted,
        simulated=place.simulated,
        status=found.status.value,
        reason=found.reason,
        hz=found.hz,
        cents_sigma=found.cents_sigma,
        second_hz=found.second.hz if found.second else None,
        second_chance=round(found.second.chance, 3) if found.second else None,
        strength_db=round(found.strength_db, 1),
        glide_cents=round(found.glide_cents, 1),
        partials=[each.model_dump() for each in partials_of(found)],
        picture=asdict(picture),
        seconds=round(len(one) / rate, 3),
        rate=rate,
        sound=sound,
        sound_bytes=len(sound) if sound else 0,
    )
    if sound:
        _keep_within_bounds()
    return tap


def _with_sound() -> QuerySet[HeardTap]:
    return HeardTap.objects.filter(sound_bytes__gt=0)


def _forget(taps: QuerySet[HeardTap]) -> int:
    return taps.update(sound=None, sound_bytes=0)


def _keep_within_bounds() -> None:
    """Let the oldest sounds go until the workshop is within its bound."""
    over = (_with_sound().aggregate(total=Sum("sound_bytes"))["total"] or 0) - MOST_BYTES
    oldest: list[uuid.UUID] = []
    if over > 0:
        for key, size in _with_sound().order_by("heard_at").values_list("id", "sound_bytes").iterator():
            if over <= 0:
                break
            oldest.append(key)
            over -= size
    if oldest:
        _forget(HeardTap.objects.filter(id__in=oldest))


def _samples(tap: HeardTap) -> tuple[NDArray[np.float64], int]:
    samples, rate = soundfile.read(io.BytesIO(bytes(tap.sound or b"")), dtype="float64")
    return samples, rate


def sound_of(tap_id: uuid.UUID) -> bytes:
    """A tap to play back, as WAV; its level capped."""
    tap = HeardTap.objects.get(pk=tap_id)
    if not tap.sound:
        raise Refused("no_sound", "The sound of this tap was not kept.", 404)
    samples, rate = _samples(tap)
    peak = float(np.abs(samples).max(initial=0.0))
    return _as_file(samples * min(1.0, LOUDEST / peak) if peak else samples, rate, "WAV")


def delete_sounds(member: Membership, job_id: uuid.UUID | None = None, tap_id: uuid.UUID | None = None) -> int:
    """Forget the member's own sounds: of one tap, of a job, or all. What the taps said stays in the record."""
    mine = _with_sound().filter(by=member.user)
    if not (job_id or tap_id):
        mine = mine.filter(simulated=False)
    if job_id:
        mine = mine.filter(job_id=job_id)
    if tap_id:
        if not mine.filter(pk=tap_id).exists():
            HeardTap.objects.only("id").get(pk=tap_id)
            raise Refused("not_yours", "That is another person’s sound, or it is gone already.", 403)
        mine = mine.filter(pk=tap_id)
    return _forget(mine)


@transaction.atomic
def set_consent(member: Membership, keeps: bool) -> None:
    """Whether the sound of this person's taps is kept from here on. What was kept before stays until deleted."""
    member.keeps_sound = keeps
    member.save(update_fields=["keeps_sound"])


def kept_of(member: Membership) -> KeptOut:
    mine = _with_sound().filter(by=member.user, simulated=False)
    total = mine.aggregate(total=Sum("sound_bytes"))["total"] or 0
    return KeptOut(keeps_sound=member.keeps_sound, taps=mine.count(), bytes=total, most_bytes=MOST_BYTES)


def export(job: Job) -> bytes:
    """A ZIP: every kept sound of a job as WAV, and beside them one JSON with all that was heard."""
    file, said = io.BytesIO(), []
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as packed:
        for number, tap in enumerate(HeardTap.objects.filter(job=job).order_by("heard_at"), 1):
            name = f"{number:03}-{f'rod-{tap.rod}' if tap.rod else 'middle'}.wav" if tap.sound else None
            if name:
                packed.writestr(name, _as_file(*_samples(tap), "WAV"))
            said.append(TapOut.of(tap).model_dump(mode="json") | {"file": name})
        about = {"drum": job.drum.tag, "part": job.part, "job": str(job.id), "opened_at": job.opened_at.isoformat()}
        packed.writestr("taps.json", json.dumps(about | {"taps": said}, ensure_ascii=False, indent=1) + "\n")
    return file.getvalue()
