"""Sign-in backend."""

from __future__ import annotations

from django.contrib.auth.backends import ModelBackend

__all__ = ["MemberBackend"]


class MemberBackend(ModelBackend):
    """Django's own, by the name that sessions keep."""
