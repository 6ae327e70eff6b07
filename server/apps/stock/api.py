"""The shelf over HTTP."""

from __future__ import annotations

from typing import BinaryIO, cast
from uuid import UUID

from django.http import StreamingHttpResponse
from django.http.response import HttpResponseBase
from ninja import File, Query, Router, Status
from ninja.files import UploadedFile

from apps.accounts.auth import Request, technician
from apps.sheets.saving import saved
from apps.sheets.steps import told
from apps.sheets.tally import ListSeen
from apps.stock import bare, flows, loans, selectors, sheets
from apps.stock.schemas import (
    BareHeard,
    BareIn,
    BuyOut,
    CodeIn,
    CountIn,
    CountOut,
    FoundCode,
    GoesBackEnd,
    GoesBackIn,
    GoesBackOut,
    LineEdit,
    LineIn,
    LineOut,
    LoanEnd,
    LoanIn,
    LoanOut,
    PlaceOut,
    ShelfOut,
    StockMoveIn,
)

router = Router(tags=["shelf"])


@router.get("", response=ShelfOut, operation_id="shelf")
def shelf(request: Request) -> ShelfOut:
    """What there is to fit, what is promised, what is short, and whether the next jobs can start."""
    return selectors.shelf_of(request.member.workshop)


@router.get("/buying", response=list[BuyOut], operation_id="buying_list")
def buying(request: Request) -> list[BuyOut]:
    """What to buy, each with the reason for every piece."""
    return selectors.buying(request.member.workshop)


@router.get("/back", response=list[GoesBackOut], operation_id="going_back")
def going_back(request: Request) -> list[GoesBackOut]:
    """What was found wanting on arrival and is still here."""
    return selectors.going_back(request.member.workshop)


@router.post("/back/{key}", response={204: None}, auth=technician, operation_id="end_going_back")
def end_going_back(request: Request, key: UUID, body: GoesBackEnd) -> Status[None]:
    flows.end_going_back(key, body.ended, request.member)
    return Status(204, None)


@router.get("/places", response=list[PlaceOut], operation_id="shelf_places")
def places(request: Request) -> list[PlaceOut]:
    """What should lie where, for counting; the place counted longest ago first."""
    return selectors.places(request.member.workshop)


@router.post("/counts", response=CountOut, auth=technician, operation_id="count_place")
def count_place(request: Request, body: CountIn) -> CountOut:
    """One place as it was counted."""
    return flows.count_place(body, request.member)


@router.get("/codes/{code}", response=FoundCode, operation_id="find_code")
def find_code(request: Request, code: str) -> FoundCode:
    """What a scanned label is of."""
    return selectors.found_code(code, request.member.workshop)


@router.get("/loans", response=list[LoanOut], operation_id="loans")
def open_loans(request: Request, tag: str = "") -> list[LoanOut]:
    """What is lent and not back; of one drum, if its tag is given."""
    return selectors.loans(request.member.workshop, tag)


@router.post("/loans", response={204: None}, auth=technician, operation_id="lend")
def lend(request: Request, body: LoanIn) -> Status[None]:
    loans.lend(body, request.member)
    return Status(204, None)


@router.post("/loans/{key}/end", response={204: None}, auth=technician, operation_id="end_loan")
def end_loan(request: Request, key: UUID, body: LoanEnd) -> Status[None]:
    loans.end_loan(key, body.ended, request.member)
    return Status(204, None)


@router.get("/sheet.csv", operation_id="shelf_sheet", include_in_schema=False)
def sheet(request: Request) -> StreamingHttpResponse:
    """The whole shelf as comma-separated values."""
    return saved(sheets.written_rows(request.member.workshop.length_unit), "shelf")


@router.post("/sheet/look", response=ListSeen, auth=technician, operation_id="look_at_sheet")
def look_at_sheet(request: Request, sheet: File[UploadedFile]) -> ListSeen | HttpResponseBase:
    """What a file would do; nothing is changed."""
    return told(request, sheets.reading_sheet(cast(BinaryIO, sheet), False, request.member))


@router.post("/sheet", response=ListSeen, auth=technician, operation_id="take_sheet")
def take_sheet(request: Request, sheet: File[UploadedFile]) -> ListSeen | HttpResponseBase:
    """The good rows of a file are taken; the bad ones told."""
    return told(request, sheets.reading_sheet(cast(BinaryIO, sheet), True, request.member))


@router.post("/lines", response={201: LineOut}, auth=technician, operation_id="begin_line")
def begin_line(request: Request, body: LineIn) -> Status[LineOut]:
    item = flows.begin_line(body, request.member)
    return Status(201, selectors.line_of(item.pk, request.member.workshop))


@router.get("/lines/{line}", response=LineOut, operation_id="shelf_line")
def line(request: Request, line: int) -> LineOut:
    """A line with its movements, promises and loans."""
    return selectors.line_of(line, request.member.workshop)


@router.put("/lines/{line}", response=LineOut, auth=technician, operation_id="change_line")
def change_line(request: Request, line: int, body: LineEdit) -> LineOut:
    flows.change_line(line, body)
    return selectors.line_of(line, request.member.workshop)


@router.post("/lines/{line}/moves", response=LineOut, auth=technician, operation_id="move_stock")
def move_stock(request: Request, line: int, body: StockMoveIn) -> LineOut:
    """Bought, brought back, fitted, written off, counted, or put elsewhere."""
    flows.take_up(line, body, request.member)
    return selectors.line_of(line, request.member.workshop)


@router.post("/lines/{line}/moves/{act}/take-back", response=LineOut, auth=technician, operation_id="take_back_move")
def take_back_move(request: Request, line: int, act: UUID) -> LineOut:
    """It did not happen: the count goes back by as much."""
    flows.take_back(line, act, request.member)
    return selectors.line_of(line, request.member.workshop)


@router.post("/lines/{line}/back", response=LineOut, auth=technician, operation_id="put_apart")
def put_apart(request: Request, line: int, body: GoesBackIn) -> LineOut:
    """Pieces found wanting on arrival."""
    flows.put_apart(line, body, request.member)
    return selectors.line_of(line, request.member.workshop)


@router.post("/lines/{line}/codes", response=LineOut, auth=technician, operation_id="know_code")
def know_code(request: Request, line: int, body: CodeIn) -> LineOut:
    """From now on this label is of this line."""
    flows.know_code(line, body.code, request.member)
    return selectors.line_of(line, request.member.workshop)


@router.post("/lines/{line}/bare", response=LineOut, auth=technician, operation_id="keep_bare_note")
def keep_bare_note(request: Request, line: int, body: BareIn) -> LineOut:
    """The note of a bare head, as it was typed."""
    bare.keep_bare(line, body.id, body.typed, request.member)
    return selectors.line_of(line, request.member.workshop)


@router.post("/lines/{line}/heard", response=LineOut, auth=technician, operation_id="hear_bare_head")
def hear_bare_head(request: Request, line: int, of: Query[BareHeard]) -> LineOut:
    """The note of a bare head by the Bench's ear; the body is one tap: 16-bit little-endian samples of one channel."""
    bare.hear_bare(line, of.id, request.body, of.rate, request.member)
    return selectors.line_of(line, request.member.workshop)


@router.post("/jobs/{planned}/promise", response=ShelfOut, auth=technician, operation_id="promise_pieces")
def promise_pieces(request: Request, planned: UUID) -> ShelfOut:
    """Everything a planned job needs that is free is its own."""
    flows.take_promises(planned, request.member)
    return selectors.shelf_of(request.member.workshop)
