"""Sign-in backend: the signed-in person comes with membership and workshop in one query."""

from __future__ import annotations

from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User

__all__ = ["MemberBackend"]


class MemberBackend(ModelBackend):
    """Django's own, reading what every request needs at once."""

    def get_user(self, user_id: int) -> User | None:
        user = User.objects.select_related("membership__workshop").filter(pk=user_id).first()
        return user if user is not None and self.user_can_authenticate(user) else None
