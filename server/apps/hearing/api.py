"""Hearing over HTTP: taps from the microphone, recordings, in the demo a simulated drum; and what was heard, to look at and to play back."""

from __future__ import annotations

import io
import threading
from typing import Annotated
from uuid import UUID

from django.http import HttpResponse
from django.utils.http import content_disposition_header
from ninja import File, Form, Query, Router, Schema, Status
from ninja.files import UploadedFile
from pydantic import Field

from apps.accounts.auth import Request, member, technician
from apps.bench.models import Job
from apps.hearing import flows, keeping
from apps.hearing.schemas import HeardFileOut, HeardOut, KeptOut, Place, TapsOut
from apps.hearing.selectors import heard_on
from apps.workshops.errors import Refused
from apps.workshops.typed import printed
from drumwork.commands.sound_files import read_sound

router = Router(tags=["hearing"], auth=technician)

MOST_FILE_BYTES = 64 * 1024 * 1024
WAIT_S = 20
_ONE_RECORDING = threading.Semaphore(1)
"""A whole recording needs some hundreds of megabytes while it is read: one at a time in a process."""

Lap = Annotated[int, Field(ge=0, le=60)]
Rod = Annotated[int, Field(ge=1, le=16)]


class SimulatedTapIn(Schema):
    """The round, and the rod; no rod is the middle of the head. `other_muted`: the other head lies on a cloth. `turns_32`: turned so far and then tapped,
    as turn and tap does."""

    step: str = Field(min_length=1, max_length=40)
    lap: Lap
    rod: Rod | None = None
    other_muted: bool = True
    turns_32: int = Field(0, ge=-256, le=256)


class PlaceIn(SimulatedTapIn):
    """The same for a tap of the room, with its samples a second."""

    rate: int
    lap: Lap = 0


class RoundIn(Schema):
    """The round, and the rods still to be read, in the order they are tapped; comma separated."""

    step: str = Field(min_length=1, max_length=40)
    lap: Lap = 0
    other_muted: bool = True
    rods: str = Field("", max_length=60)


class ConsentIn(Schema):
    keeps_sound: bool


def _place(of: SimulatedTapIn) -> Place:
    return Place(of.step, of.lap, of.rod, of.other_muted, turns_32=of.turns_32)


@router.post("/jobs/{job_id}/tap", response=HeardOut, operation_id="hear_tap")
def hear_tap(request: Request, job_id: UUID, place: Query[PlaceIn]) -> HeardOut:
    """The body is one tap: 16-bit little-endian samples of one channel, silence before the stroke and all."""
    return flows.hear_tap(job_id, request.body, place.rate, _place(place), request.member)


@router.post("/jobs/{job_id}/file", response=HeardFileOut, operation_id="hear_file")
def hear_file(request: Request, job_id: UUID, sound: File[UploadedFile], of: Form[RoundIn]) -> HeardFileOut:
    """A recording of one or more taps: WAV, FLAC, AIFF or OGG, up to 64 MB and five minutes."""
    if (sound.size or 0) > MOST_FILE_BYTES:
        raise Refused("too_big", "Recordings of up to 64 MB are taken. Cut this one down to the taps.", 413)
    rods = [int(each) for each in of.rods.split(",") if each.isascii() and each.isdigit()]
    first = Place(of.step, of.lap, next(iter(rods), 1), of.other_muted)
    if not _ONE_RECORDING.acquire(timeout=WAIT_S):
        raise Refused("busy", "Another recording is being read just now. Send this one again in a moment.", 503)
    try:
        samples, rate = read_sound(io.BytesIO(sound.read()), sound.name or "the recording")
        return flows.hear_file(job_id, samples, rate, first, rods, request.member)
    finally:
        _ONE_RECORDING.release()


@router.post("/jobs/{job_id}/simulated", response=HeardOut, operation_id="hear_simulated")
def hear_simulated(request: Request, job_id: UUID, body: SimulatedTapIn) -> HeardOut:
    """Demo only: tap the job's simulated drum, whose rods answer to the turns recorded on the job."""
    return flows.hear_simulated(job_id, _place(body), request.member)


@router.get("/jobs/{job_id}/taps", response=TapsOut, auth=member, operation_id="heard_taps")
def heard_taps(request: Request, job_id: UUID) -> TapsOut:
    """Everything heard on a job, in order."""
    return heard_on(job_id)


@router.get("/taps/{tap_id}/sound", auth=member, operation_id="tap_sound", response={200: None})
def tap_sound(request: Request, tap_id: UUID) -> HttpResponse:
    """One kept tap as WAV, its level capped."""
    return HttpResponse(keeping.sound_of(tap_id), content_type="audio/wav")


@router.get("/jobs/{job_id}/export", auth=member, operation_id="export_taps", response={200: None})
def export_taps(request: Request, job_id: UUID) -> HttpResponse:
    """A ZIP with the kept sounds as WAV and everything heard as JSON."""
    job = Job.objects.select_related("drum").get(pk=job_id)
    header = content_disposition_header(as_attachment=True, filename=printed(f"{job.drum.tag}-{job.part}-taps.zip"))
    headers = {"Content-Disposition": header or "attachment"}
    return HttpResponse(keeping.export(job), content_type="application/zip", headers=headers)


@router.delete("/taps/{tap_id}/sound", response={204: None}, operation_id="delete_tap_sound")
def delete_tap_sound(request: Request, tap_id: UUID) -> Status[None]:
    keeping.delete_sounds(request.member, tap_id=tap_id)
    return Status(204, None)


@router.delete("/jobs/{job_id}/sounds", response=KeptOut, operation_id="delete_job_sounds")
def delete_job_sounds(request: Request, job_id: UUID) -> KeptOut:
    """One's own sounds of a job."""
    keeping.delete_sounds(request.member, job_id=job_id)
    return keeping.kept_of(request.member)


@router.get("/kept", response=KeptOut, auth=member, operation_id="kept_sound")
def kept_sound(request: Request) -> KeptOut:
    """How much of one's own sound is kept."""
    return keeping.kept_of(request.member)


@router.put("/kept", response=KeptOut, operation_id="set_keeps_sound")
def set_keeps_sound(request: Request, body: ConsentIn) -> KeptOut:
    """Agree, or no longer, to the sound of one's taps being kept."""
    keeping.set_consent(request.member, body.keeps_sound)
    return keeping.kept_of(request.member)


@router.delete("/kept", response=KeptOut, operation_id="delete_my_sounds")
def delete_my_sounds(request: Request) -> KeptOut:
    """Delete all of one's own kept sound."""
    keeping.delete_sounds(request.member)
    return keeping.kept_of(request.member)
