"""What is said about who is signed in."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from ninja import Schema
from pydantic import Field

from apps.workshops.schemas import WorkshopOut
from apps.workshops.typed import Email, Name

Password = Field(min_length=1, max_length=200)


class SignIn(Schema):
    username: Name = Field(max_length=150)
    password: str = Password


class DemoAccount(Schema):
    username: str
    password: str
    shown_name: str
    role: str


class WorksIn(Schema):
    """A workshop one works in."""

    id: int
    name: str
    role: str


class SessionOut(Schema):
    """`username` is null while signed out. Then demo accounts are named where the demo is on, `second_step` says that the password was right and a
    code is asked for, and `first_run` that nobody has made a workshop here yet. `kept_for` is what entries on a device are kept for: this person in
    this workshop."""

    username: str | None
    kept_for: str = ""
    shown_name: str = ""
    role: str = ""
    email: str = ""
    workshop: WorkshopOut | None = None
    workshops: list[WorksIn] = []
    demo: bool = False
    demo_accounts: list[DemoAccount] = []
    second_step: bool = False
    first_run: bool = False
    mail: bool = False


class PasswordIn(Schema):
    old: str = Password
    new: str = Password


class KnownPassword(Schema):
    password: str = Password


class EndedOut(Schema):
    """How many other sessions were ended."""

    ended: int


class EmailIn(Schema):
    email: Email = Field(max_length=254)


class OneTimeCode(Schema):
    code: str = Field(min_length=4, max_length=40)


class CodesBegun(Schema):
    """`modules` are the rows of the square code an app reads, dark as 1."""

    secret: str
    address: str
    modules: list[str]


class SpareCodes(Schema):
    spare: list[str]


class PasskeyOut(Schema):
    id: int
    name: str
    made_at: datetime
    used_at: datetime | None


class SignInWays(Schema):
    """How one signs in beside the password."""

    passkeys: list[PasskeyOut]
    codes: bool
    spare_left: int


class DeviceAsked(Schema):
    """What the browser hands to the device, as the standard writes it in JSON."""

    options: dict[str, Any]


class DeviceAnswer(Schema):
    credential: dict[str, Any]


class NewPasskey(DeviceAnswer):
    name: Name = Field(max_length=60)


class ForgotIn(Schema):
    username: Name = Field(max_length=150)


class SwitchIn(Schema):
    workshop: int
