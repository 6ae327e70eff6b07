"""Whatever is refused, by whichever part, is refused in the one error shape."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

from django.http import HttpRequest, HttpResponse, JsonResponse

from config.errors import DATABASE_DOWN, DISK_FULL, UNEXPECTED, error_body

__all__ = ["bad_request", "one_error_shape", "page_is_stale", "refusal"]

STALE: Final = ("csrf", "This page is stale. Reload it and try again.")
WORDS: Final = {
    400: ("bad_request", "The request could not be understood."),
    403: STALE,
    404: ("not_found", "There is nothing at this address."),
    405: ("bad_method", "This address does not take that kind of request."),
    413: ("too_big", "That is more than is taken at once. Send less."),
    414: ("too_long", "The address is too long."),
    415: ("bad_request", "This kind of content is not taken."),
    431: ("too_big", "The request’s headers are too long."),
    500: UNEXPECTED,
    503: DATABASE_DOWN,
    507: DISK_FULL,
}


def refusal(status: int) -> dict[str, object]:
    """The body for a status, where nobody said more."""
    return error_body(*WORDS.get(status, UNEXPECTED if status >= 500 else WORDS[400]))


def one_error_shape(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Answers Django or Ninja give in words or HTML of their own are given our shape; what says more already stays as it is."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        kind = response.headers.get("Content-Type", "")
        ours = kind.startswith("application/json") or not (
            kind.startswith("text/html") or request.path.startswith("/api/")
        )
        if response.status_code < 400 or ours:
            return response
        made = JsonResponse(refusal(response.status_code), status=response.status_code)
        for name in ("Allow", "Retry-After", "Vary"):
            if name in response.headers:
                made.headers[name] = response.headers[name]
        made.headers["Content-Length"] = str(len(made.content))  # so that the connection goes on
        made.cookies = response.cookies
        return made

    return middleware


def bad_request(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """A host the app does not answer to, or a request Django finds suspicious."""
    return JsonResponse(refusal(400), status=400)


def page_is_stale(request: HttpRequest, reason: str = "") -> HttpResponse:
    return JsonResponse(error_body(*STALE), status=403)
