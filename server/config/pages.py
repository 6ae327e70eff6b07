"""The app's page, health, and the last-resort answers."""

from __future__ import annotations

import hashlib
import os
import sys
from functools import lru_cache
from pathlib import Path

from django.conf import settings
from django.db import connection, transaction
from django.db.utils import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from config.errors import DATABASE_DOWN, DISK_FULL, UNEXPECTED, error_body, is_disk_full

NOT_BUILT = "The web app is not built. Run ./start --setup."


@lru_cache(maxsize=1)
def _digest(page: Path, changed_ns: int) -> str:
    return hashlib.sha256(page.read_bytes()).hexdigest()[:12]


def build() -> str:
    """Which web app is given out now; empty where none is built. A page at work learns by it that a newer one is here."""
    page = settings.WEB_DIST / "index.html"
    try:
        return _digest(page, os.stat(page).st_mtime_ns)
    except OSError:
        return ""


@transaction.non_atomic_requests
@never_cache
@ensure_csrf_cookie
def app(request: HttpRequest) -> HttpResponse:
    """Vite's index.html with this request's nonce."""
    try:
        page = (settings.WEB_DIST / "index.html").read_text(encoding="utf-8")
    except FileNotFoundError:
        return HttpResponse(NOT_BUILT, status=503, content_type="text/plain")
    nonce: str = request.csp_nonce  # type: ignore[attr-defined]
    return HttpResponse(page.replace("__CSP_NONCE__", nonce).replace("__BUILD__", build()))


@transaction.non_atomic_requests
@never_cache
def worker(request: HttpRequest) -> HttpResponse:
    """The service worker, at the root: from there it answers for every address of the app."""
    try:
        return HttpResponse((settings.WEB_DIST / "sw.js").read_bytes(), content_type="text/javascript")
    except FileNotFoundError:
        return HttpResponse(NOT_BUILT, status=503, content_type="text/plain")


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
    error = sys.exc_info()[1]
    if error is not None and is_disk_full(error):
        return JsonResponse(error_body(*DISK_FULL), status=507)
    if isinstance(error, OperationalError | InterfaceError):
        return JsonResponse(error_body(*DATABASE_DOWN), status=503)
    return JsonResponse(error_body(*UNEXPECTED), status=500)


def locked_out(request: HttpRequest, *_args: object, **_kwargs: object) -> HttpResponse:
    """Too many wrong sign-ins for one name from one address."""
    message = "Too many tries. Wait a quarter of an hour, or ask whoever runs this."
    return JsonResponse(error_body("too_many_tries", message), status=429)
