"""Sign in, sign out, who am I, and how one signs in."""

from __future__ import annotations

from django.contrib.auth import logout
from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router, Status
from ninja.utils import check_csrf
from reportlab.graphics.barcode.qr import QrCodeWidget

from apps.accounts import own, passkeys, second_step
from apps.accounts.auth import Request
from apps.accounts.entry import admit, by_code, by_password, session_of, signed_out, switch
from apps.accounts.models import Passkey
from apps.accounts.schemas import (
    CodesBegun,
    DeviceAnswer,
    DeviceAsked,
    EmailIn,
    EndedOut,
    KnownPassword,
    NewPasskey,
    OneTimeCode,
    PasskeyOut,
    PasswordIn,
    SessionOut,
    SignIn,
    SignInWays,
    SpareCodes,
    SwitchIn,
)
from apps.accounts.signed_in import MEMBER
from apps.workshops.errors import Refused

__all__ = ["require_fresh_page", "router"]

router = Router(tags=["session"])


def require_fresh_page(request: HttpRequest) -> None:
    """What changes something without anybody being signed in needs the page's token all the same."""
    if check_csrf(request):
        raise Refused("csrf", "This page is stale. Reload it and try again.", status=403)


@router.get("", auth=None, response=SessionOut, operation_id="session")
def who(request: HttpRequest) -> SessionOut:
    """Who is in. The page is kept on the device and may be older than its token, so this gives one too."""
    get_token(request)
    if not isinstance(request.user, User):
        return signed_out()
    return session_of(request.user, request.session.get(MEMBER))


@router.post("", auth=None, response=SessionOut, operation_id="sign_in")
def sign_in(request: HttpRequest, response: HttpResponse, body: SignIn) -> SessionOut:
    """By name and password. Where a second step is on, nobody is in yet: `second_step` asks for the code."""
    require_fresh_page(request)
    return by_password(request, response, body.username, body.password)


@router.post("/code", auth=None, response=SessionOut, operation_id="sign_in_code")
def sign_in_code(request: HttpRequest, response: HttpResponse, body: OneTimeCode) -> SessionOut:
    """The second step: a code of the app, or a spare one."""
    require_fresh_page(request)
    return by_code(request, response, body.code)


@router.post("/passkey/ask", auth=None, response=DeviceAsked, operation_id="ask_passkey")
def ask_passkey(request: HttpRequest) -> DeviceAsked:
    """What any key of the person at this device is asked to sign."""
    require_fresh_page(request)
    return DeviceAsked(options=passkeys.ask_who(request))


@router.post("/passkey", auth=None, response=SessionOut, operation_id="sign_in_passkey")
def sign_in_passkey(request: HttpRequest, body: DeviceAnswer) -> SessionOut:
    """By a key of the device; it stands for both steps."""
    require_fresh_page(request)
    return admit(request, passkeys.who(request, body.credential))


@router.put("/workshop", response=SessionOut, operation_id="switch_workshop")
def switch_workshop(request: Request, body: SwitchIn) -> SessionOut:
    """Go on in another of one’s workshops."""
    return switch(request, own.own_user(request), body.workshop)


@router.post("/password", response={204: None}, operation_id="change_password")
def change_password(request: Request, body: PasswordIn) -> Status[None]:
    """One’s own password; every other device is signed out by it."""
    own.change_password(request, body.old, body.new)
    return Status(204, None)


@router.put("/email", response={204: None}, operation_id="write_email")
def write_email(request: Request, body: EmailIn) -> Status[None]:
    """Where a link to a new password is sent."""
    own.write_email(request, body.email)
    return Status(204, None)


@router.post("/elsewhere", response=EndedOut, operation_id="sign_out_elsewhere")
def sign_out_elsewhere(request: Request) -> EndedOut:
    """End every other session of one’s own."""
    return EndedOut(ended=own.sign_out_elsewhere(request))


@router.get("/ways", response=SignInWays, operation_id="sign_in_ways")
def sign_in_ways(request: Request) -> SignInWays:
    """Passkeys and codes of one’s own."""
    user = own.own_user(request)
    return SignInWays(
        passkeys=[PasskeyOut.model_validate(each, from_attributes=True) for each in Passkey.objects.filter(user=user)],
        codes=second_step.is_on(user),
        spare_left=second_step.spare_left(user),
    )


def _sure(request: Request, password: str) -> User:
    """Whoever adds or takes a way to sign in knows the password: a device left open is not enough."""
    user = own.own_user(request)
    own.require_own_account(user)
    own.require_password(request, user, password)
    return user


@router.post("/passkeys/ask", response=DeviceAsked, operation_id="ask_new_passkey")
def ask_new_passkey(request: Request, body: KnownPassword) -> DeviceAsked:
    """What the device is asked to make a key from."""
    return DeviceAsked(options=passkeys.ask_for_new(request, _sure(request, body.password)))


@router.post("/passkeys", response=SignInWays, operation_id="add_passkey")
def add_passkey(request: Request, body: NewPasskey) -> SignInWays:
    passkeys.add(request, own.own_user(request), body.name, body.credential)
    return sign_in_ways(request)


@router.delete("/passkeys/{key}", response=SignInWays, operation_id="take_passkey")
def take_passkey(request: Request, key: int) -> SignInWays:
    passkeys.take_away(own.own_user(request), key)
    return sign_in_ways(request)


@router.post("/codes/begin", response=CodesBegun, operation_id="begin_codes")
def begin_codes(request: Request, body: KnownPassword) -> CodesBegun:
    """A secret for an app, as words and as a square code; it counts once a code of it was given."""
    secret, address = second_step.begin(_sure(request, body.password))
    code = QrCodeWidget(address)
    code.qr.make()
    rows = ["".join("1" if dark else "0" for dark in row) for row in code.qr.modules]
    return CodesBegun(secret=secret, address=address, modules=rows)


@router.post("/codes", response=SpareCodes, operation_id="turn_codes_on")
def turn_codes_on(request: Request, body: OneTimeCode) -> SpareCodes:
    """From now on a code is asked for; the spare ones are said this once."""
    return SpareCodes(spare=second_step.turn_on(own.own_user(request), body.code))


@router.post("/codes/off", response=SignInWays, operation_id="turn_codes_off")
def turn_codes_off(request: Request, body: KnownPassword) -> SignInWays:
    second_step.turn_off(_sure(request, body.password))
    return sign_in_ways(request)


@router.delete("", response={204: None}, operation_id="sign_out")
def sign_out(request: Request) -> Status[None]:
    logout(request)
    return Status(204, None)
