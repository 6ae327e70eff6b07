"""Film, turns, settling and two heads over HTTP."""

from __future__ import annotations

from django.utils import timezone
from ninja import Router

from apps.accounts.auth import Request, technician
from apps.register.lookup import drum_by_tag
from apps.sound import flows, selectors
from apps.sound.schemas import SoundOut, TwoHeadsOut, WantedIn
from drumwork.quantities import Pitch, parse_pitch

router = Router(tags=["sound"])


def _typed(text: str, a4_hz: float) -> Pitch | None:
    return parse_pitch(text, a4_hz) if text.strip() else None


@router.get("/{tag}", response=SoundOut, operation_id="sound")
def sound(request: Request, tag: str) -> SoundOut:
    return selectors.sound_of(drum_by_tag(tag), request.member.workshop, timezone.now())


@router.get("/{tag}/two-heads", response=TwoHeadsOut, operation_id="two_heads")
def two_heads(
    request: Request, tag: str, sound: str, fundamental: str = "", batter: str = "", interval: str = ""
) -> TwoHeadsOut:
    """`sound` by its id; either a wanted fundamental or a wanted batter lug pitch, as typed; `interval` overrides the sound's own."""
    workshop = request.member.workshop
    wanted, low = _typed(fundamental, workshop.a4_hz), _typed(batter, workshop.a4_hz)
    return selectors.two_heads_of(drum_by_tag(tag), workshop, sound, wanted, low, interval)


@router.put("/{tag}/wanted", response=SoundOut, auth=technician, operation_id="set_wanted")
def set_wanted(request: Request, tag: str, body: WantedIn) -> SoundOut:
    """Make these the drum's usual targets."""
    drum = flows.set_wanted(drum_by_tag(tag), body, request.member)
    return selectors.sound_of(drum, request.member.workshop, timezone.now())
