"""Photos over HTTP: seen by the workshop's people alone."""

from __future__ import annotations

import io
from datetime import datetime
from typing import Annotated
from uuid import UUID

from django.http import HttpResponse
from ninja import File, Form, Router, Schema, Status
from ninja.files import UploadedFile
from pydantic import AwareDatetime, Field

from apps.accounts.auth import Request, member, technician
from apps.photos import flows
from apps.photos.models import Photo
from apps.photos.pictures import MOST_BYTES_IN
from apps.workshops.typed import Line, Name

router = Router(tags=["photos"], auth=member)

FOR_EVER = "private, max-age=31536000, immutable"


class PhotoIn(Schema):
    """`id` is the device's own, so that a photo sent twice is kept once. `about`: the step or the place it shows."""

    id: UUID
    tag: Name = Field(max_length=40)
    job_id: UUID | None = None
    about: Line = Field("", max_length=40)
    taken_at: AwareDatetime


class PhotoOut(Schema):
    id: UUID
    job_id: UUID | None
    about: str
    by_name: str
    taken_at: datetime
    width: int
    height: int


@router.post("", response=PhotoOut, auth=technician, operation_id="add_photo")
def add_photo(request: Request, photo: File[UploadedFile], of: Form[PhotoIn]) -> Photo:
    """JPEG, PNG or WebP, up to 15 MB. It is kept smaller, upright, and without the place it was taken at."""
    return flows.add_photo(
        of.id,
        io.BytesIO(photo.read(MOST_BYTES_IN + 1)),
        photo.size or 0,
        request.member,
        tag=of.tag,
        job_id=of.job_id,
        about=of.about,
        taken_at=of.taken_at,
    )


@router.get("/job/{job_id}", response=list[PhotoOut], operation_id="photos_of_job")
def photos_of_job(request: Request, job_id: UUID) -> list[Photo]:
    return list(Photo.objects.defer("jpeg").filter(job_id=job_id).order_by("taken_at", "id"))


@router.get("/drum/{tag}", response=list[PhotoOut], operation_id="photos_of_drum")
def photos_of_drum(request: Request, tag: str, most: Annotated[int, Field(ge=1, le=200)] = 60) -> list[Photo]:
    """The newest first."""
    return list(Photo.objects.defer("jpeg").filter(drum__tag__iexact=tag).order_by("-taken_at", "id")[:most])


@router.get("/{photo_id}", operation_id="photo", response={200: None})
def photo(request: Request, photo_id: UUID) -> HttpResponse:
    """The JPEG."""
    found = Photo.objects.only("jpeg").get(pk=photo_id)
    return HttpResponse(bytes(found.jpeg), content_type="image/jpeg", headers={"Cache-Control": FOR_EVER})


@router.delete("/{photo_id}", response={204: None}, auth=technician, operation_id="delete_photo")
def delete_photo(request: Request, photo_id: UUID) -> Status[None]:
    flows.delete_photo(photo_id)
    return Status(204, None)
