"""Sign in, sign out, who am I."""

from __future__ import annotations

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from ninja.utils import check_csrf
from pydantic import Field

from apps.accounts import own
from apps.accounts.auth import Request
from apps.accounts.demo_accounts import ACCOUNTS, PASSWORD
from apps.accounts.guard import TOO_MANY, remember_device, require_no_spraying
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from apps.workshops.schemas import WorkshopOut, shape_workshop
from apps.workshops.typed import Name

router = Router(tags=["session"])


class SignIn(Schema):
    username: Name = Field(max_length=150)
    password: str = Field(min_length=1, max_length=200)


class DemoAccount(Schema):
    username: str
    password: str
    shown_name: str
    role: str


class SessionOut(Schema):
    """`username` is null while signed out; demo accounts are named in demo mode only."""

    username: str | None
    shown_name: str = ""
    role: str = ""
    workshop: WorkshopOut | None = None
    demo_accounts: list[DemoAccount] = []


class PasswordIn(Schema):
    old: str = Field(min_length=1, max_length=200)
    new: str = Field(min_length=1, max_length=200)


class EndedOut(Schema):
    """How many other sessions were ended."""

    ended: int


def _shape(found: Membership) -> SessionOut:
    return SessionOut(
        username=found.user.get_username(),
        shown_name=found.shown_name,
        role=found.role,
        workshop=shape_workshop(found.workshop),
    )


def _signed_out() -> SessionOut:
    named = [
        DemoAccount(username=a.username, password=PASSWORD, shown_name=a.shown_name, role=a.role) for a in ACCOUNTS
    ]
    return SessionOut(username=None, demo_accounts=named if settings.DEMO else [])


@router.get("", auth=None, response=SessionOut, operation_id="session")
def who(request: HttpRequest) -> SessionOut:
    if not request.user.is_authenticated:
        return _signed_out()
    found = Membership.objects.select_related("workshop", "user").filter(user_id=request.user.pk).first()
    return _shape(found) if found else _signed_out()


@router.post("", auth=None, response=SessionOut, operation_id="sign_in")
def sign_in(request: HttpRequest, response: HttpResponse, body: SignIn) -> SessionOut:
    """Limited for a name at an address, and for many names from one address: then a quarter of an hour's pause."""
    if check_csrf(request):
        raise Refused("csrf", "This page is stale. Reload it and sign in again.", status=403)
    require_no_spraying(request, body.username)
    user = authenticate(request, username=body.username, password=body.password)
    if getattr(request, "axes_locked_out", False):
        raise Refused("too_many_tries", TOO_MANY, status=429)
    found = Membership.objects.select_related("workshop", "user").filter(user=user).first() if user else None
    if user is None or found is None:
        raise Refused("wrong_sign_in", "That name and password do not belong together. Check both.", status=401)
    login(request, user)
    remember_device(request, response, body.username)
    return _shape(found)


@router.post("/password", response={204: None}, operation_id="change_password")
def change_password(request: Request, body: PasswordIn) -> Status[None]:
    """One’s own password; every other device is signed out by it."""
    own.change_password(request, body.old, body.new)
    return Status(204, None)


@router.post("/elsewhere", response=EndedOut, operation_id="sign_out_elsewhere")
def sign_out_elsewhere(request: Request) -> EndedOut:
    """End every other session of one’s own."""
    return EndedOut(ended=own.sign_out_elsewhere(request))


@router.delete("", response={204: None}, operation_id="sign_out")
def sign_out(request: Request) -> Status[None]:
    logout(request)
    return Status(204, None)
