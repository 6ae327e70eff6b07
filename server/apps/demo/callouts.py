"""Two call-outs: one of last night, told to its owner and not answered yet; one to come. Made by sending the entries a phone would send."""

from __future__ import annotations

import uuid
from datetime import datetime, timedelta
from typing import Any, Final

from apps.callouts.flows import start_callout, take_in
from apps.callouts.models import CallOut
from apps.callouts.schemas import CallOutEventIn, CallOutIn
from apps.demo.build import NAMESPACE
from apps.register.models import Drum, Kit
from apps.workshops.models import Membership

__all__ = ["callouts"]

LAST_NIGHT: Final = "circus studio"
TO_COME: Final = "loan kit"


def _begun(kit: str, at: str, show: datetime, minutes: float, member: Membership) -> CallOut:
    asked = CallOutIn(
        id=uuid.uuid5(NAMESPACE, f"call-out {kit}"),
        kit=Kit.objects.get(name=kit).pk,
        at=at,
        show_at=show,
        minutes=minutes,
    )
    return start_callout(asked, member)


def _log(drums: dict[str, Drum]) -> list[dict[str, Any]]:
    floor, bass = drums["Redshank"].tag, drums["Dredger"].tag
    looked = [{"kind": "fine", "drum": drums[name].tag} for name in ("Kittiwake", "Plover", "Spoonbill")]
    return [
        {"kind": "bagged", "part": "felt", "count": 2},
        {"kind": "clock", "minutes": 10},
        *looked,
        {"kind": "ticked", "drum": floor, "finding": "rattle"},
        {"kind": "ticked", "drum": bass, "finding": "spur-blunt"},
        {"kind": "ticked", "drum": "", "finding": "felt-missing"},
        {"kind": "done", "step": f"{floor} rattle 0"},
        {"kind": "done", "step": "stands felt-missing 0"},
        {"kind": "cannot", "step": f"{bass} spur-blunt 0"},
        {"kind": "over"},
        {"kind": "worded", "drum": "", "words": "The bass drum stood against the wall all evening."},
        {"kind": "reported"},
    ]


def callouts(drums: dict[str, Drum], members: list[Membership], now: datetime) -> None:
    """Last night's at the circus, and one to the loan kit in two days."""
    bram, at = members[1], now - timedelta(hours=21)
    past = _begun(LAST_NIGHT, "Slipway Hall", at + timedelta(minutes=10), 10, bram)
    events = []
    for number, body in enumerate(_log(drums)):
        at += timedelta(seconds=25)
        facts = {
            "id": uuid.uuid5(NAMESPACE, f"call-out {number}"), "device": "demo-phone", "seen": 0, "made_at": at, "v": 1, "body": body,
        }  # fmt: skip
        events.append(CallOutEventIn.model_validate(facts))
    _, receipts = take_in(past.pk, events, bram)
    if bad := [each for each in receipts if each.standing != "applied"]:
        raise RuntimeError(f"The demo's own entry was not taken: {bad[0].message}")
    CallOut.objects.filter(pk=past.pk).update(touched_at=at)
    to_come = now.replace(hour=19, minute=30, second=0, microsecond=0) + timedelta(days=2)
    _begun(TO_COME, "Mole Rooms", to_come, 12, bram)
