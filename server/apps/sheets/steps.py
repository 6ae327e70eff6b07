"""Reading a long list in steps: to its end at once, or told while it goes on, so that somebody can watch it and stop it.

A caller that accepts `application/x-ndjson` gets a line of JSON for each step, `{"read": 2000}`, and a last one: `{"seen": …}`, or
`{"error": …, "status": 422}` with the body any refusal has. All of it is one transaction: a caller who goes away before the last line leaves
nothing behind. Other callers get the one answer at its end.
"""

from __future__ import annotations

import json
from collections.abc import Generator, Iterator
from typing import Any, Final, TypeVar

from django.conf import settings
from django.db import transaction
from django.http.response import HttpResponseBase, StreamingHttpResponse
from django.utils.module_loading import import_string
from ninja import Schema

from apps.accounts.auth import Request
from apps.workshops.models import Membership
from apps.workshops.scope import acting, enter_workshop

__all__ = ["STEPS", "Steps", "at_once", "told"]

STEPS: Final = "application/x-ndjson"
_Seen = TypeVar("_Seen", bound=Schema)
Steps = Generator[int, None, _Seen]
"""How many rows were read, again and again; at last what they come to."""


def at_once(steps: Steps[_Seen]) -> _Seen:
    """To the end."""
    try:
        while True:
            next(steps)
    except StopIteration as end:
        seen: _Seen = end.value
        return seen


def _line(**said: Any) -> bytes:
    return json.dumps(said, ensure_ascii=False).encode() + b"\n"


def _entered(member: Membership, steps: Steps[_Seen]) -> Generator[int, None, _Seen]:
    """In a transaction of its own: the request's ended when its answer began."""
    with transaction.atomic():
        enter_workshop(member.workshop_id)
        acting(member.shown_name, member.user_id)
        return (yield from steps)


def _lines(request: Request, steps: Steps[_Seen]) -> Iterator[bytes]:
    entered = _entered(request.member, steps)
    try:
        while True:
            yield _line(read=next(entered))
    except StopIteration as end:
        yield _line(seen=end.value.model_dump(mode="json"))
    except Exception as error:  # as for any operation: each kind has its words
        answer = import_string(settings.API).on_exception(request, error)
        yield _line(error=json.loads(answer.content), status=answer.status_code)
    finally:
        entered.close()  # whoever went away before the end leaves nothing behind


def told(request: Request, steps: Steps[_Seen]) -> _Seen | HttpResponseBase:
    """The answer for this caller: line by line, or at once."""
    if STEPS not in request.headers.get("Accept", ""):
        return at_once(steps)
    return StreamingHttpResponse(
        _lines(request, steps),
        content_type=STEPS,
        # Packed or gathered by somebody on the way, lines would come all at the end.
        headers={"Content-Encoding": "identity", "X-Accel-Buffering": "no", "Cache-Control": "no-store"},
    )
