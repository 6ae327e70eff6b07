"""People, invitations and first runs, in and out."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ninja import Schema
from pydantic import Field

from apps.workshops.typed import Email, Line, Name

Role = Literal["owner", "technician", "viewer"]


class PersonOut(Schema):
    """`second_step`: signs in with a passkey or codes beside the password."""

    id: int
    shown_name: str
    username: str
    role: str
    second_step: bool
    last_in: datetime | None
    you: bool


class InvitationOut(Schema):
    id: int
    shown_name: str
    email: str
    role: str
    made_by: str
    made_at: datetime
    until: datetime
    state: str


class PeopleOut(Schema):
    """`demo`: the demo’s people stay as they are. `demo_here`: there is a demo workshop that may be removed."""

    people: list[PersonOut]
    invitations: list[InvitationOut]
    mail: bool
    demo: bool
    demo_here: bool


class InviteIn(Schema):
    role: Role
    shown_name: Line = Field("", max_length=60)
    email: Email = Field("", max_length=254)


class PersonIn(Schema):
    role: Role
    shown_name: Name = Field(max_length=60)


class LinkOut(Schema):
    """The address to copy, which is shown this once; `mail` says why mail did not go, or that it did."""

    address: str
    until: datetime
    mailed: bool
    mail: str


class TokenIn(Schema):
    token: str = Field(min_length=10, max_length=100)


class LinkSeen(Schema):
    """What a link leads to."""

    kind: str
    workshop: str
    role: str
    shown_name: str
    username: str
    made_by: str
    until: datetime


class _NewAccount(Schema):
    username: Name = Field(max_length=150)
    shown_name: Name = Field(max_length=60)
    password: str = Field(min_length=1, max_length=200)


class JoinIn(_NewAccount):
    token: str = Field(min_length=10, max_length=100)


class NewPasswordIn(TokenIn):
    new: str = Field(min_length=1, max_length=200)


class FirstIn(_NewAccount):
    word: Line = Field(max_length=60)
    workshop: Name = Field(max_length=120)
    length_unit: Literal["in", "mm"] = "in"


class WorkshopIn(Schema):
    workshop: Name = Field(max_length=120)
    length_unit: Literal["in", "mm"] = "in"


class WorkshopNameIn(Schema):
    name: Name = Field(max_length=120)
