"""The app's page, health, and the last-resort answers."""

from __future__ import annotations

import sys

from django.conf import settings
from django.db import connection, transaction
from django.db.utils import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from config.errors import DATABASE_DOWN, UNEXPECTED, error_body


@transaction.non_atomic_requests
@never_cache
@ensure_csrf_cookie
def app(request: HttpRequest) -> HttpResponse:
    """Vite's index.html with this request's nonce."""
    try:
        page = (settings.WEB_DIST / "index.html").read_text(encoding="utf-8")
    except FileNotFoundError:
        return HttpResponse("The web app is not built. Run ./start --setup.", status=503, content_type="text/plain")
    return HttpResponse(page.replace("__CSP_NONCE__", request.csp_nonce))  # type: ignore[attr-defined]


@transaction.non_atomic_requests
def healthz(request: HttpRequest) -> HttpResponse:
    """The process answers."""
    return JsonResponse({"ok": True})


@transaction.non_atomic_requests
def readyz(request: HttpRequest) -> HttpResponse:
    """The database answers too."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("select 1")
    except (OperationalError, InterfaceError):
        return JsonResponse(error_body(*DATABASE_DOWN), status=503)
    return JsonResponse({"ok": True})


def not_found(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    return JsonResponse(error_body("not_found", "There is nothing at this address."), status=404)


def server_error(request: HttpRequest) -> HttpResponse:
    """Whatever no handler caught, in the one error shape."""
    if isinstance(sys.exc_info()[1], OperationalError | InterfaceError):
        return JsonResponse(error_body(*DATABASE_DOWN), status=503)
    return JsonResponse(error_body(*UNEXPECTED), status=500)


def locked_out(request: HttpRequest, *_args: object, **_kwargs: object) -> HttpResponse:
    """Too many wrong sign-ins for one name from one address."""
    message = "Too many tries. Wait a quarter of an hour, or ask whoever runs this."
    return JsonResponse(error_body("too_many_tries", message), status=429)
