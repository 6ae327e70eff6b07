"""Who may sign in to the demo; invented, like everything in it."""

from __future__ import annotations

from typing import NamedTuple

__all__ = ["ACCOUNTS", "PASSWORD", "Account"]

PASSWORD = "slack-water-41"


class Account(NamedTuple):
    username: str
    shown_name: str
    role: str


ACCOUNTS = (
    Account("ines", "Ines Calloway", "owner"),
    Account("bram", "Bram Oakes", "technician"),
    Account("della", "Della Marsh", "viewer"),
)
