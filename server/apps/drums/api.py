"""The register over HTTP."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.utils import timezone
from ninja import Query, Router, Schema, Status
from pydantic import Field

from apps.accounts.auth import Request, technician
from apps.drums import flows, leaving, selectors
from apps.drums.names import NamesOut, Sort, all_names, rename, take_away
from apps.drums.sheet import sheet_of
from apps.drums.sheet_schemas import Sheet
from apps.drums.stands import say_what_stands
from apps.drums.stands_schemas import StandsIn, StandsOut
from apps.register.lookup import drum_by_tag
from apps.register.models import Kit, Owner, Place
from apps.register.schemas import KIND_WORDS, Choices, DrumEdit, DrumIn, DrumPage, rods_words, shape_form, size_words
from apps.workshops.typed import Line, Name
from drumwork.drums import traits_of

router = Router(tags=["register"])
THREADS = ["7/32-24", "12-24", "M6", "M5", "M8"]
HOOPS = ["triple-flanged", "single-flanged", "die-cast", "wood", "claw hoop", "rope"]


class FilterIn(Schema):
    text: Line = Field("", max_length=200)
    kind: Line = Field("", max_length=80)
    place: Line = Field("", max_length=80)
    owner: Line = Field("", max_length=80)
    kit: Line = Field("", max_length=80)
    state: Line = Field("", max_length=80)
    offset: int = Field(0, ge=0, le=10_000_000)


class CorrectionIn(Schema):
    text: Name = Field(max_length=280)


class RenameIn(Schema):
    name: Name = Field(max_length=80)
    to: Name = Field(max_length=80)


class Renamed(Schema):
    merged: bool


class NoteIn(Schema):
    """`id` is made by the device, so that asking twice writes it once."""

    id: UUID
    text: Name = Field(max_length=300)


def _standing(row: dict[str, Any]) -> str:
    if row["in_hand"]:
        return "on the bench"
    if row["overdue"]:
        return "check owed"
    return {"in": "", "out": "out", "repair": "in repair", "retired": "retired"}[row["state"]]


def _row(row: dict[str, Any], unit: str) -> dict[str, Any]:
    return {
        "tag": row["tag"],
        "name": row["name"],
        "kind": row["kind"],
        "kind_words": KIND_WORDS[row["kind"]],
        "size": size_words(row["diameter_m"], row["depth_m"], unit),
        "rods": rods_words(row["kind"], row["rods_batter"], row["rods_resonant"]),
        "place": row["in_place"],
        "owner": row["of_owner"],
        "kits": row["in_kits"],
        "state": row["state"],
        "standing": _standing(row),
        "owed": row["overdue"] and not row["in_hand"],
    }


@router.get("/drums", response=DrumPage, operation_id="drums")
def drums(request: Request, chosen: Query[FilterIn]) -> dict[str, Any]:
    narrowed = selectors.Filter(**chosen.dict(exclude={"offset"}))
    total, page = selectors.register_page(narrowed, timezone.now(), chosen.offset)
    unit = request.member.workshop.length_unit
    return {"total": total, "drums": [_row(row, unit) for row in page]}


@router.get("/choices", response=Choices, operation_id="choices")
def choices(request: Request) -> Choices:
    return Choices(
        places=selectors.names(Place),
        owners=selectors.names(Owner),
        kits=selectors.names(Kit),
        threads=THREADS,
        hoops=HOOPS,
        kinds=KIND_WORDS,
        next_tag=selectors.next_tag(),
    )


@router.get("/names", response=NamesOut, operation_id="names")
def names(request: Request) -> NamesOut:
    """Places, owners and kits, with how many drums bear each."""
    return all_names()


@router.post("/names/{sort}", response=Renamed, auth=technician, operation_id="rename")
def rename_one(request: Request, sort: Sort, body: RenameIn) -> Renamed:
    """Another name; where it is one already, the two are merged."""
    return Renamed(merged=rename(sort, body.name, body.to))


@router.delete("/names/{sort}", response={204: None}, auth=technician, operation_id="take_name_away")
def take_name_away(request: Request, sort: Sort, name: str) -> Status[None]:
    """A name no drum bears."""
    take_away(sort, name)
    return Status(204, None)


@router.post("/drums", response={201: DrumIn}, auth=technician, operation_id="add_drum")
def add_drum(request: Request, body: DrumIn) -> Status[DrumIn]:
    drum = flows.add_drum(body, request.member)
    return Status(201, shape_form(drum, request.member.workshop.length_unit))


@router.get("/drums/{tag}", response=DrumIn, operation_id="drum")
def drum(request: Request, tag: str) -> DrumIn:
    return shape_form(drum_by_tag(tag), request.member.workshop.length_unit)


@router.put("/drums/{tag}", response=DrumIn, auth=technician, operation_id="edit_drum")
def edit_drum(request: Request, tag: str, body: DrumEdit) -> DrumIn:
    """Where two people wrote different things in the same field, neither is lost: the second is told what stands there now."""
    drum = flows.edit_drum(tag, body, request.member)
    return shape_form(drum, request.member.workshop.length_unit)


@router.delete("/drums/{tag}", response={204: None}, auth=technician, operation_id="delete_drum")
def delete_drum(request: Request, tag: str) -> Status[None]:
    """A drum entered by mistake; one with a history is refused."""
    leaving.delete(tag)
    return Status(204, None)


@router.put("/drums/{tag}/retired", response={204: None}, auth=technician, operation_id="retire_drum")
def retire_drum(request: Request, tag: str) -> Status[None]:
    """It is worked on no more; its record stays, and what was planned for it is dropped."""
    leaving.retire(tag, request.member)
    return Status(204, None)


@router.delete("/drums/{tag}/retired", response={204: None}, auth=technician, operation_id="bring_drum_back")
def bring_drum_back(request: Request, tag: str) -> Status[None]:
    leaving.bring_back(tag, request.member)
    return Status(204, None)


@router.post(
    "/drums/{tag}/log/{entry_id}/correction", response={204: None}, auth=technician, operation_id="correct_log"
)
def correct_log(request: Request, tag: str, entry_id: int, body: CorrectionIn) -> Status[None]:
    """What a line of the history should say. The line stays; both are shown."""
    flows.correct(tag, entry_id, body.text, request.member)
    return Status(204, None)


@router.post("/drums/{tag}/notes", response={204: None}, auth=technician, operation_id="add_note")
def add_note(request: Request, tag: str, body: NoteIn) -> Status[None]:
    """A line in the history without a job."""
    flows.add_note(tag, body.id, body.text, request.member)
    return Status(204, None)


@router.get("/drums/{tag}/stands", response=StandsOut, operation_id="may_be_on")
def may_be_on(request: Request, tag: str) -> StandsOut:
    """The workshop’s lines that may be on this drum."""
    drum = drum_by_tag(tag)
    return StandsOut(
        batter=selectors.head_lines("batter"),
        resonant=selectors.head_lines("resonant"),
        wires=selectors.wire_lines() if traits_of(drum.kind).wires else [],
    )


@router.post("/drums/{tag}/stands", response=Sheet, auth=technician, operation_id="say_what_stands")
def stands(request: Request, tag: str, body: StandsIn) -> Sheet:
    """What is on a drum now, without a job."""
    say_what_stands(tag, body, request.member)
    return sheet_of(drum_by_tag(tag), request.member.workshop, timezone.now())


@router.get("/drums/{tag}/sheet", response=Sheet, operation_id="sheet")
def sheet(request: Request, tag: str) -> Sheet:
    return sheet_of(drum_by_tag(tag), request.member.workshop, timezone.now())
