"""People over HTTP: first run, invitations, roles, new passwords by link."""

from __future__ import annotations

from datetime import timedelta
from typing import Final

from django.contrib.auth.models import User
from django.db.models import Exists, OuterRef
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Status

from apps.accounts import mail
from apps.accounts.api import require_fresh_page
from apps.accounts.auth import Request, owner
from apps.accounts.entry import admit
from apps.accounts.guard import forget_tries, require_no_spraying
from apps.accounts.models import OneTimeCodes, Passkey
from apps.accounts.own import own_user
from apps.accounts.schemas import ForgotIn, SessionOut
from apps.people import first, flows
from apps.people.links import make_password_link, open_link, state_of
from apps.people.models import Link
from apps.people.schemas import (
    FirstIn,
    InvitationOut,
    InviteIn,
    JoinIn,
    LinkOut,
    LinkSeen,
    NewPasswordIn,
    PeopleOut,
    PersonIn,
    PersonOut,
    TokenIn,
    WorkshopIn,
    WorkshopNameIn,
)
from apps.workshops.models import Membership, Workshop
from apps.workshops.names import rename_workshop

router = Router(tags=["people"])
_SHOWN_DAYS: Final = 30
_MOST_FORGOTTEN: Final = 3


@router.get("", response=PeopleOut, auth=owner, operation_id="people")
def people(request: Request) -> PeopleOut:
    """Who works here and who is invited; links used or gone stay in sight for a month."""
    me = request.member
    rows = (
        Membership.objects.filter(workshop=me.workshop)
        .select_related("user")
        .annotate(
            keyed=Exists(Passkey.objects.filter(user=OuterRef("user"))),
            coded=Exists(OneTimeCodes.objects.filter(user=OuterRef("user"), on_since__isnull=False)),
        )
        .order_by("shown_name", "pk")
    )
    since = timezone.now() - timedelta(days=_SHOWN_DAYS)
    links = Link.objects.filter(workshop=me.workshop, kind=Link.Kind.JOIN, made_at__gte=since).order_by("-made_at")
    return PeopleOut(
        people=[
            PersonOut(
                id=row.pk,
                shown_name=row.shown_name,
                username=row.user.get_username(),
                role=row.role,
                second_step=row.keyed or row.coded,
                last_in=row.user.last_login,
                you=row.pk == me.pk,
            )
            for row in rows
        ],
        invitations=[
            InvitationOut(
                id=link.pk, shown_name=link.used_by_name or link.shown_name, email=link.email, role=link.role, made_by=link.made_by_name,
                made_at=link.made_at, until=link.until, state=state_of(link),
            )
            for link in links
        ],
        mail=mail.has_mail(),
        demo=me.workshop.demo,
        demo_here=Workshop.objects.filter(demo=True).exists(),
    )  # fmt: skip


def _address(request: HttpRequest, link: Link, token: str) -> str:
    """What the link carries stands after the #: browsers send that to no server, so it is in nobody’s log."""
    return request.build_absolute_uri(f"/{'join' if link.kind == Link.Kind.JOIN else 'reset'}#{token}")


def _told(request: HttpRequest, link: Link, token: str, to: str, subject: str, text: str) -> LinkOut:
    address = _address(request, link, token)
    trouble = (
        mail.send(to, subject, f"{text}\n\n{address}\n\nIt is good once, until {link.until:%d %B %Y}.\n") if to else ""
    )
    return LinkOut(address=address, until=link.until, mailed=bool(to) and not trouble, mail=trouble)


@router.post("/invitations", response=LinkOut, auth=owner, operation_id="invite")
def invite(request: Request, body: InviteIn) -> LinkOut:
    """A link into the workshop, shown to copy; by mail too where mail is set and an address was given."""
    link, token = flows.invite(request.member, body.role, body.shown_name, body.email)
    to = link.email if mail.has_mail() else ""
    name = request.member.workshop.name
    return _told(
        request,
        link,
        token,
        to,
        f"{name}: come in",
        f"{request.member.shown_name} invites you to {name} as {link.role}.",
    )


@router.delete("/invitations/{key}", response={204: None}, auth=owner, operation_id="withdraw_invitation")
def withdraw(request: Request, key: int) -> Status[None]:
    flows.withdraw(request.member, key)
    return Status(204, None)


@router.put("/workshop", response={204: None}, auth=owner, operation_id="rename_workshop")
def rename(request: Request, body: WorkshopNameIn) -> Status[None]:
    """Another name for the workshop; its address stays."""
    rename_workshop(request.member.workshop, body.name)
    return Status(204, None)


@router.post("/workshops", response=SessionOut, auth=owner, operation_id="begin_workshop")
def begin_workshop(request: Request, body: WorkshopIn) -> SessionOut:
    """One more workshop, owned by who owns one already; this device goes on in it."""
    flows.require_real(request.member)
    user = own_user(request)
    made = first.begin_workshop(body.workshop, body.length_unit, user, request.member.shown_name)
    return admit(request, user, made)


@router.put("/members/{key}", response={204: None}, auth=owner, operation_id="change_person")
def change(request: Request, key: int, body: PersonIn) -> Status[None]:
    flows.change(request.member, key, body.role, body.shown_name)
    return Status(204, None)


@router.delete("/members/{key}", response={204: None}, auth=owner, operation_id="remove_person")
def remove(request: Request, key: int) -> Status[None]:
    """Somebody works here no more; what they did keeps their name."""
    flows.remove(request.member, key)
    return Status(204, None)


@router.post("/members/{key}/reset", response=LinkOut, auth=owner, operation_id="reset_person")
def reset(request: Request, key: int) -> LinkOut:
    """A link with which somebody sets a new password; a second step is taken off by it."""
    link, token = flows.reset_link(request.member, key)
    return _told(request, link, token, "", "", "")


@router.post("/first", auth=None, response=SessionOut, operation_id="first_run")
def first_run(request: HttpRequest, body: FirstIn) -> SessionOut:
    """The first workshop and its owner, with the word printed in the terminal; once."""
    require_fresh_page(request)
    member = first.begin_first(
        body.word, body.workshop, body.length_unit, body.username, body.shown_name, body.password
    )
    return admit(request, member.user, member)


@router.post("/links/look", auth=None, response=LinkSeen, operation_id="look_at_link")
def look(request: HttpRequest, body: TokenIn) -> LinkSeen:
    """What a link leads to."""
    require_fresh_page(request)
    link = open_link(body.token)
    return LinkSeen(
        kind=link.kind,
        workshop=link.workshop.name if link.workshop else "",
        role=link.role,
        shown_name=link.shown_name,
        username=link.user.get_username() if link.user else "",
        made_by=link.made_by_name,
        until=link.until,
    )


@router.post("/links/join", auth=None, response=SessionOut, operation_id="join")
def join(request: HttpRequest, body: JoinIn) -> SessionOut:
    """A new account, in the workshop of an invitation."""
    require_fresh_page(request)
    member = flows.join_new(body.token, body.username, body.shown_name, body.password)
    return admit(request, member.user, member)


@router.post("/links/join-as-you", response=SessionOut, operation_id="join_as_you")
def join_as_you(request: Request, body: TokenIn) -> SessionOut:
    """Who is signed in works in one more workshop."""
    made = flows.join_as(body.token, request.member)
    return admit(request, own_user(request), made)


@router.post("/links/password", auth=None, response={204: None}, operation_id="new_password")
def new_password(request: HttpRequest, body: NewPasswordIn) -> Status[None]:
    """A new password by link; then one signs in with it."""
    require_fresh_page(request)
    forget_tries(request, flows.new_password(body.token, body.new).username)
    return Status(204, None)


@router.post("/forgot", auth=None, response={204: None}, operation_id="forgot_password")
def forgot(request: HttpRequest, body: ForgotIn) -> Status[None]:
    """Mail a link to a new password, where mail is set and the account has an address. The answer is always the same: it tells nobody who is here."""
    require_fresh_page(request)
    require_no_spraying(request, body.username)
    user = User.objects.filter(username__iexact=body.username, is_active=True).exclude(email="").first()
    if user is None or not mail.has_mail():
        return Status(204, None)
    lately = Link.objects.filter(user=user, made_by_name="", made_at__gte=timezone.now() - timedelta(hours=1)).count()
    if lately < _MOST_FORGOTTEN:
        link, token = make_password_link(user, email=user.email)
        _told(
            request,
            link,
            token,
            user.email,
            "Red Tally: a new password",
            f"For {user.username}: set a new password here.",
        )
    return Status(204, None)
