"""What stops a backup or a restore."""

from __future__ import annotations

from django.core.management.base import CommandError

__all__ = ["CannotCopy"]


class CannotCopy(CommandError):
    """The message says what to do; nothing half made is left behind."""
