"""What an owner wants to know of the machine."""

from __future__ import annotations

from ninja import Router

from apps.accounts.auth import Request, owner
from apps.copies.room import Room, room

router = Router(tags=["machine"])


@router.get("/room", response=Room, auth=owner, operation_id="room")
def room_taken(request: Request) -> Room:
    """How much room the record book takes."""
    return room()
