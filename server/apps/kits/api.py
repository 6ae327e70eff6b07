"""Kits over HTTP."""

from __future__ import annotations

import io

from ninja import File, Form, Query, Router, Schema, Status
from ninja.files import UploadedFile
from pydantic import Field

from apps.accounts.auth import Request, technician
from apps.kits import flows, selectors, singing
from apps.kits.donors import donors_for
from apps.kits.schemas import DonorsOut, KitIn, KitJobsIn, KitJobsOut, KitLine, KitOut, KitPlanOut, KitWishes, SangOut
from apps.register.lookup import drum_by_tag
from apps.register.models import Kit
from apps.workshops.errors import Refused
from drumwork.commands.sound_files import read_sound
from drumwork.drums import Side

router = Router(tags=["kits"])
MOST_FILE_BYTES = 16 * 1024 * 1024


class StruckIn(Schema):
    """The drum that is struck, by its tag."""

    struck: str = Field(min_length=1, max_length=20)


class StruckLive(StruckIn):
    """The same with the samples a second of the body."""

    rate: int


@router.get("", response=list[KitLine], operation_id="kits")
def kits(request: Request) -> list[KitLine]:
    """Every kit, those with a day first."""
    return selectors.kits()


@router.post("", response={201: KitOut}, auth=technician, operation_id="start_kit")
def start_kit(request: Request, body: KitIn) -> Status[KitOut]:
    kit = flows.save_kit(None, body, request.member)
    return Status(201, selectors.kit_of(kit, request.member.workshop))


@router.get("/donors", response=DonorsOut, operation_id="donors")
def donors(request: Request, tag: str, side: Side = Side.BATTER, rod: int = 1) -> DonorsOut:
    """Which drum gives a rod to this one, and which rod of it."""
    return donors_for(drum_by_tag(tag), side, rod, request.member.workshop)


@router.get("/{kit_id}", response=KitOut, operation_id="kit")
def kit(request: Request, kit_id: int) -> KitOut:
    """Its drums in their row, as they stand."""
    return selectors.kit_of(Kit.objects.get(pk=kit_id), request.member.workshop)


@router.put("/{kit_id}", response=KitOut, auth=technician, operation_id="save_kit")
def save_kit(request: Request, kit_id: int, body: KitIn) -> KitOut:
    kit = flows.save_kit(Kit.objects.get(pk=kit_id), body, request.member)
    return selectors.kit_of(kit, request.member.workshop)


@router.put("/{kit_id}/wish", response={204: None}, auth=technician, operation_id="keep_kit_wish")
def keep_wish(request: Request, kit_id: int, body: KitWishes) -> Status[None]:
    """How it should sound, kept for the next time and for others."""
    flows.keep_wish(Kit.objects.get(pk=kit_id), body)
    return Status(204, None)


@router.post("/{kit_id}/plan", response=KitPlanOut, operation_id="plan_kit")
def plan_kit(request: Request, kit_id: int, body: KitWishes) -> KitPlanOut:
    """What would have to be turned for such a wish. Nothing is changed."""
    return selectors.plan_of(Kit.objects.get(pk=kit_id), body, request.member.workshop)


@router.post("/{kit_id}/jobs", response=KitJobsOut, auth=technician, operation_id="make_kit_jobs")
def make_jobs(request: Request, kit_id: int, body: KitJobsIn) -> KitJobsOut:
    """The jobs of the plan on the screen, with their targets."""
    return flows.make_jobs(Kit.objects.get(pk=kit_id), body, request.member)


@router.get("/{kit_id}/sing", response=list[SangOut], operation_id="sung")
def sung(request: Request, kit_id: int) -> list[SangOut]:
    """What was heard when each of its drums was struck last."""
    return singing.last_sung(Kit.objects.get(pk=kit_id))


@router.post("/{kit_id}/sing", response=SangOut, auth=technician, operation_id="sing")
def sing(request: Request, kit_id: int, of: Query[StruckLive]) -> SangOut:
    """The body is one stroke and the hand after it: 16-bit little-endian samples of one channel, three seconds or so."""
    return singing.sing_pcm(Kit.objects.get(pk=kit_id), of.struck, request.body, of.rate, request.member)


@router.post("/{kit_id}/sing/file", response=SangOut, auth=technician, operation_id="sing_file")
def sing_file(request: Request, kit_id: int, sound: File[UploadedFile], of: Form[StruckIn]) -> SangOut:
    """A recording of the same: WAV, FLAC, AIFF or OGG."""
    if (sound.size or 0) > MOST_FILE_BYTES:
        raise Refused("too_big", "Recordings of up to 16 MB are taken. Cut this one down to one stroke.", 413)
    samples, rate = read_sound(io.BytesIO(sound.read()), sound.name or "the recording")
    return singing.sing(Kit.objects.get(pk=kit_id), of.struck, samples, rate, request.member)


@router.post("/{kit_id}/sing/simulated", response=SangOut, auth=technician, operation_id="sing_simulated")
def sing_simulated(request: Request, kit_id: int, body: StruckIn) -> SangOut:
    """Demo only: strike a simulated kit that stands as it was read."""
    return singing.sing_simulated(Kit.objects.get(pk=kit_id), body.struck, request.member)
