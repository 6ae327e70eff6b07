"""One log line per request, and a content security policy with a fresh nonce."""

from __future__ import annotations

import logging
import secrets
import time
from collections.abc import Callable
from ipaddress import ip_address

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from config.pages import build

logger = logging.getLogger("redtally.request")
Handler = Callable[[HttpRequest], HttpResponse]

QUIET = ("/static/", "/api/today/pulse")
"""Asked so often that a line each would hide the others."""

_POLICY = (
    "default-src 'none'; script-src 'nonce-{nonce}' 'strict-dynamic' 'self' 'wasm-unsafe-eval'; style-src 'self' 'nonce-{nonce}'; "
    "font-src 'self'; img-src 'self' data: blob:; connect-src 'self'; manifest-src 'self'; media-src 'self' blob:; "
    "worker-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
)


def request_log(get_response: Handler) -> Handler:
    """Structured: method, path, status, milliseconds, who."""

    def middleware(request: HttpRequest) -> HttpResponse:
        began = time.perf_counter()
        response = get_response(request)
        if not request.path.startswith(QUIET):
            logger.info(
                "request",
                extra={
                    "method": request.method,
                    "path": request.path,
                    "status": response.status_code,
                    "ms": round((time.perf_counter() - began) * 1000, 1),
                    "user": getattr(getattr(request, "member", None), "user_id", None),
                },
            )
        return response

    return middleware


def content_security_policy(get_response: Handler) -> Handler:
    """Every response carries the policy; the page view puts the same nonce into its tags."""

    def middleware(request: HttpRequest) -> HttpResponse:
        request.csp_nonce = secrets.token_urlsafe(16)  # type: ignore[attr-defined]
        response = get_response(request)
        response["Content-Security-Policy"] = _POLICY.format(nonce=request.csp_nonce)  # type: ignore[attr-defined]
        response["Permissions-Policy"] = "camera=(self), geolocation=(), microphone=(self)"
        return response

    return middleware


def known_address(get_response: Handler) -> Handler:
    """A proxy may not know whom it speaks for, and say so in words ("unknown", RFC 7239, section 6.2): then it is the proxy that asks."""

    def middleware(request: HttpRequest) -> HttpResponse:
        try:
            ip_address(request.META.get("REMOTE_ADDR", ""))
        except ValueError:
            request.META["REMOTE_ADDR"] = settings.PROXY or "127.0.0.1"
        return get_response(request)

    return middleware


def which_build(get_response: Handler) -> Handler:
    """Answers of the API say which web app is given out now, so that one left open for weeks learns of a newer one."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        if request.path.startswith("/api/"):
            response["X-Build"] = build()
            response.headers.setdefault("Cache-Control", "no-store")  # what a workshop's people see is nobody else's
        return response

    return middleware
