"""Photos come in and go."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import BinaryIO, Final

from django.db import transaction
from django.db.models import Sum
from django.utils import timezone

from apps.bench.models import Job
from apps.photos.models import Photo
from apps.photos.pictures import take_in
from apps.register.lookup import drum_by_tag
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from apps.workshops.once import asked_alone

__all__ = ["MOST_A_JOB", "MOST_BYTES", "add_photo", "delete_photo"]

MOST_BYTES: Final = 2 * 1024**3
"""All photos of a workshop together."""
MOST_A_JOB: Final = 40


@transaction.atomic
def add_photo(
    key: uuid.UUID,
    sent: BinaryIO,
    size: int,
    member: Membership,
    *,
    tag: str,
    job_id: uuid.UUID | None,
    about: str,
    taken_at: datetime,
) -> Photo:
    """Keep a photo of a drum; one sent twice is kept once.

    Raises
    ------
    Refused
        a job of another drum, too many, too much, or what is no photo.
    """
    known = Photo.objects.defer("jpeg").filter(pk=key).first()
    if known:
        return known
    drum = drum_by_tag(tag)
    job = Job.objects.only("id", "drum_id").get(pk=job_id) if job_id else None
    kept = take_in(sent, size)
    asked_alone(uuid.uuid5(uuid.NAMESPACE_OID, f"photos of {member.workshop_id}"))  # counted one after the other
    if job and job.drum_id != drum.pk:
        raise Refused("other_drum", "That job is about another drum. Open the job again and take the photo there.", 422)
    if job and Photo.objects.filter(job=job).count() >= MOST_A_JOB:
        raise Refused("photos_full", f"A job keeps up to {MOST_A_JOB} photos. Take one away first.")
    if (Photo.objects.aggregate(total=Sum("jpeg_bytes"))["total"] or 0) > MOST_BYTES:
        raise Refused("photos_full", "The workshop’s photos fill the room they have. Take some away first.")
    return Photo.objects.create(
        workshop=member.workshop,
        id=key,
        drum=drum,
        job=job,
        about=about,
        by=member.user,
        by_name=member.shown_name,
        taken_at=min(taken_at, timezone.now()),
        width=kept.width,
        height=kept.height,
        jpeg=kept.jpeg,
        jpeg_bytes=len(kept.jpeg),
    )


def delete_photo(key: uuid.UUID) -> None:
    Photo.objects.get(pk=key).delete()
