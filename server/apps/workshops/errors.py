"""What the server itself refuses, outside the core's rules."""

from __future__ import annotations

__all__ = ["Refused"]


class Refused(Exception):
    """A use case that cannot be carried out; the message says what to do."""

    def __init__(self, code: str, message: str, status: int = 409, **fields: object) -> None:
        super().__init__(message)
        self.code, self.message, self.status, self.fields = code, message, status, fields
