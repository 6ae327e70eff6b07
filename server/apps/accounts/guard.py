"""Guessing is slowed down: six wrong tries for a name from one address (django-axes), and trying many names from one address.

A device somebody signed in from before is known by a cookie and is not held up by what others at its address tried with other names
("device cookies", OWASP, Slow Down Online Guessing Attacks).
"""

from __future__ import annotations

from datetime import timedelta
from typing import Final

from axes.models import AccessAttempt
from django.conf import settings
from django.core import signing
from django.db.models import Count, Sum
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from apps.workshops.errors import Refused

__all__ = ["TOO_MANY", "forget_tries", "remember_device", "require_no_spraying"]

COOKIE: Final = "rt_known"
SALT: Final = "red-tally-known-device"
YEAR_S: Final = 365 * 24 * 3600
MOST_NAMES: Final = 10
MOST_TRIES: Final = 20
MOST_KNOWN: Final = 8
TOO_MANY: Final = "Too many tries. Wait a quarter of an hour, or ask whoever runs this."


def _known_names(request: HttpRequest) -> list[str]:
    try:
        found = signing.loads(request.COOKIES.get(COOKIE, ""), salt=SALT, max_age=YEAR_S)
    except signing.BadSignature:
        return []
    return [str(each) for each in found] if isinstance(found, list) else []


def require_no_spraying(request: HttpRequest, username: str) -> None:
    """
    Raises
    ------
    Refused
        once many names failed from this address within the pause, for names this device is not known by.
    """
    since = timezone.now() - timedelta(hours=settings.AXES_COOLOFF_TIME)
    tried = AccessAttempt.objects.filter(ip_address=request.META.get("REMOTE_ADDR"), attempt_time__gte=since)
    found = tried.aggregate(names=Count("username", distinct=True), tries=Sum("failures_since_start"))
    if found["names"] < MOST_NAMES or (found["tries"] or 0) < MOST_TRIES or username in _known_names(request):
        return
    raise Refused("too_many_tries", TOO_MANY, status=429)


def forget_tries(request: HttpRequest, username: str) -> None:
    """Wrong tries for this name from this address no longer count: whoever is there has just set its password."""
    AccessAttempt.objects.filter(username__iexact=username, ip_address=request.META.get("REMOTE_ADDR")).delete()


def remember_device(request: HttpRequest, response: HttpResponse, username: str) -> None:
    names = [username, *(each for each in _known_names(request) if each != username)][:MOST_KNOWN]
    value = signing.dumps(names, salt=SALT)
    response.set_cookie(
        COOKIE, value, max_age=YEAR_S, httponly=True, samesite="Lax", secure=settings.SESSION_COOKIE_SECURE
    )
