"""Every page of a workshop opened once, before what was brought in is kept: what breaks a page is refused, not found out by who opens it."""

from __future__ import annotations

import logging
from collections.abc import Iterable, Iterator
from itertools import groupby
from typing import Any, Final
from urllib.parse import quote

from django.db import transaction
from django.db.models import QuerySet
from django.http import HttpResponse
from django.http.response import HttpResponseBase, StreamingHttpResponse
from django.urls import resolve

from apps.accounts.auth import FromWithin
from apps.archive.bounds import bad
from apps.bench.models import Job
from apps.callouts.models import CallOut
from apps.heads.models import StockItem
from apps.hearing.models import HeardTap
from apps.inspecting.models import Walk
from apps.photos.models import Photo
from apps.register.models import Drum, Kit
from apps.stock.models import ShelfCode
from apps.workshops.bounded import bounded_json
from apps.workshops.errors import Refused
from apps.workshops.models import Membership

__all__ = ["LEFT_OUT", "PAGES", "prove"]
logger = logging.getLogger("redtally.archive")

PAGES: Final[tuple[str, ...]] = (
    "/today", "/today/pulse", "/today/{kind}?offset=0", "/register/drums", "/register/choices", "/register/names", "/planned", "/changes",
    "/shelf", "/shelf/buying", "/shelf/back", "/shelf/places", "/shelf/loans", "/shelf/things", "/heads/lives", "/kits", "/callouts",
    "/inspect/walks", "/hearing/kept",
    "/register/drums/{tag}", "/register/drums/{tag}/sheet", "/register/drums/{tag}/stands", "/bench/work/{tag}", "/photos/drum/{tag}",
    "/heads/fitting/{tag}/batter", "/heads/fitting/{tag}/resonant", "/heads/choose/{tag}/batter", "/heads/choose/{tag}/resonant",
    "/heads/choose-wires/{tag}", "/heads/choose-beater/{tag}", "/sound/{tag}", "/kits/donors?tag={of_each_sort}", "/paper/drums/{tag}",
    "/sound/{tag}/two-heads?sound=open", "/bench/work/{tag}/settling-check/batter/schools",
    "/bench/jobs/{job_id}", "/bench/jobs/{job_id}/schools", "/hearing/jobs/{job_id}/taps", "/hearing/jobs/{job_id}/export", "/photos/job/{job_id}",
    "/paper/jobs/{job_id}",
    "/inspect/walks/{walk_id}", "/inspect/walks/{walk_id}/sum", "/callouts/{key}", "/paper/callouts/{key}", "/kits/{kit_id}", "/kits/{kit_id}/sing",
    "/shelf/lines/{line}", "/shelf/codes/{code}", "/photos/{photo_id}", "/hearing/taps/{tap_id}/sound",
    "/register/sheet.csv", "/shelf/sheet.csv", "/changes/trail.csv", "/archive/archive.json", "/archive/tables.zip",
)  # fmt: skip
"""Every GET that tells of a workshop’s record; what stands in braces is each there is."""

LEFT_OUT: Final = {
    "/session": "of a person",
    "/session/ways": "of a person",
    "/people": "of the installation",
    "/machine/room": "of the installation",
    "/bare": "a baseline",
    "/workshop/schools": "of the program",
    "/workshop/patterns": "of the program",
    "/inspect/rules": "of the program",
    "/bench/findings/{kind}": "of the program",
}

_KINDS: Final = ("overdue-check", "to-decide", "planned-work", "lent", "reported", "aged-head")


def _braces(page: str) -> str:
    return page.partition("{")[2].partition("}")[0]


def _each(name: str) -> Iterable[object]:
    """What may stand in braces of that name."""
    rows: dict[str, QuerySet[Any, Any]] = {
        "tag": Drum.objects.values_list("tag", flat=True),
        "job_id": Job.objects.values_list("pk", flat=True),
        "walk_id": Walk.objects.values_list("pk", flat=True),
        "key": CallOut.objects.values_list("pk", flat=True),
        "kit_id": Kit.objects.values_list("pk", flat=True),
        "line": StockItem.objects.values_list("pk", flat=True),
        "code": ShelfCode.objects.values_list("code", flat=True),
        "photo_id": Photo.objects.values_list("pk", flat=True),
        "tap_id": HeardTap.objects.filter(sound_bytes__gt=0).values_list("pk", flat=True),
    }
    if name == "of_each_sort":  # of those of one kind and thread it asks the same other drums, and takes long over them
        sorts = Drum.objects.order_by("kind", "thread", "pk").distinct("kind", "thread")
        return sorts.values_list("tag", flat=True)
    return _KINDS if name == "kind" else rows[name].order_by("pk").iterator()


def _addresses() -> Iterator[str]:
    """All pages of one drum or job after another: what was read for the first serves the next."""
    for name, together in groupby(PAGES, _braces):
        pages = list(together)
        if not name:
            yield from pages
            continue
        for each in _each(name):
            yield from (page.replace(f"{{{name}}}", quote(str(each), safe="")) for page in pages)


def _all_of(answer: HttpResponseBase) -> None:
    """What is made while it is sent is made."""
    if isinstance(answer, StreamingHttpResponse):
        for _ in answer:
            pass
    for close in getattr(
        answer, "_resource_closers", ()
    ):  # not all of `close`, which tells everybody that a request has ended
        close()


def _open(address: str, by: Membership) -> HttpResponseBase:
    path = f"/api{address}"
    found = resolve(path.partition("?")[0])
    answer: HttpResponseBase = found.func(FromWithin(path, by), *found.args, **found.kwargs)
    _all_of(answer)
    told = answer.headers.get("Content-Type", "").startswith("application/json")
    if told and isinstance(answer, HttpResponse) and any(each in answer.content for each in (b"NaN", b"Infinity")):
        bounded_json(answer.content)  # a name may be so; a number may not
    return answer


class _Opened(Exception):
    """What a page wrote by the way is not kept."""


def prove(by: Membership) -> None:
    """Open every page of the workshop that is entered, as `by`, an owner, sees it; what it writes is undone.

    Raises
    ------
    Refused
        naming the first page that does not open.
    """
    for address in _addresses():
        try:
            with transaction.atomic():
                answer = _open(address, by)
                raise _Opened
        except _Opened:
            if answer.status_code == 200 or _may_refuse(address, answer):
                continue
            raise bad(address, f"cannot be shown ({_said(answer)})") from None
        except Refused:
            raise
        except Exception as error:  # whatever a page stumbles over is the file’s
            logger.warning("an archive breaks a page", extra={"page": address}, exc_info=error)
            raise bad(address, f"cannot be shown ({type(error).__name__}: {str(error)[:200]})") from None


_CHOOSING: Final = ("/heads/choose", "/sound/", "/kits/donors", "/bench/work/", "/heads/fitting")


def _may_refuse(address: str, answer: HttpResponseBase) -> bool:
    """A choice may say in words that there is none to make of this drum."""
    return address.startswith(_CHOOSING) and answer.status_code == 422


def _said(answer: HttpResponseBase) -> str:
    return (
        answer.content.decode("utf-8", "replace")[:200] if isinstance(answer, HttpResponse) else str(answer.status_code)
    )
