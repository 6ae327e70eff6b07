"""The sing test of a kit: one drum struck, the others listened to; kept in the struck drum's history."""

from __future__ import annotations

import zlib

import numpy as np
from django.utils import timezone
from numpy.typing import NDArray
from pydantic import ValidationError

from apps.history.models import LogEntry
from apps.kits.schemas import SangOut, SingMove, SungOut
from apps.kits.selectors import wish_of
from apps.kits.standing import standing_drums
from apps.register.models import Kit
from apps.register.sides import SideOf
from apps.workshops.errors import Refused
from apps.workshops.models import Membership, Workshop
from drumwork.commands.sound_files import from_pcm
from drumwork.drums import Side
from drumwork.kits import Place, SingTest, hear_singing, tell_singing
from drumwork.procedures.catalogue import EASES
from drumwork.quantities import Pitch
from drumwork.quantities.pitch import ratio_of
from drumwork.rods.layout import RodLayout
from drumwork.simulated.kit import SimulatedKit

__all__ = ["last_sung", "sing", "sing_pcm", "sing_simulated"]

SANG = "sing"
LATENESS_S = 0.9


def _kit(kit: Kit, workshop: Workshop) -> dict[str, tuple[str, Place]]:
    """Name and place of every drum of known pitch."""
    drums = standing_drums(kit, workshop, wish_of(kit).above)
    found = [(each, each.core.stands) for each in drums if not each.left_out]
    return {each.drum.tag: (each.drum.name, place) for each, place in found if place is not None}


def _shape(
    test: SingTest, named: dict[str, tuple[str, Place]], batters: dict[str, RodLayout], before: list[SungOut]
) -> SangOut:
    names = {tag: name for tag, (name, _) in named.items()}
    answers = [
        SungOut(
            tag=each.drum, name=names[each.drum], hz=each.hz, level_db=each.level_db, seconds=max(0.1, each.seconds)
        )
        for each in test.answers
    ]
    move = None
    if test.advice:
        note = named[test.advice.drum][1].note_hz * ratio_of(test.advice.cents)
        move = SingMove(
            tag=test.advice.drum, name=names[test.advice.drum], cents=test.advice.cents, note_hz=note, eased_by=EASES.id
        )
    return SangOut(
        struck=test.struck,
        at=timezone.now(),
        sentences=list(tell_singing(test, names, batters)),
        hand_heard=test.hand_s is not None,
        answers=answers,
        move=move,
        before=before,
    )


def last_sung(kit: Kit) -> list[SangOut]:
    """The last test of every drum of the kit, the latest first."""
    rows = LogEntry.objects.filter(kind=SANG, record__kit=kit.name).order_by("-at")[:60]
    found: dict[str, SangOut] = {}
    for row in rows:
        try:
            sang = SangOut.model_validate(row.record.get("sang"))
        except ValidationError:  # written by another version, or brought in: its line in the history stands
            continue
        found.setdefault(sang.struck, sang)
    return list(found.values())


def sing(
    kit: Kit, struck: str, samples: NDArray[np.floating], rate: int, member: Membership, simulated: bool = False
) -> SangOut:
    """Hear one recording, and keep what was heard; `simulated` what no kit sang.

    Raises
    ------
    Refused, DrumworkError
        for a drum that is not in the kit or was never read, and for what is no stroke.
    """
    named = _kit(kit, member.workshop)
    if struck not in named:
        raise Refused(
            "not_read", "That drum cannot be struck here: nobody has read it yet, or it is not in this kit.", 422
        )
    test = hear_singing(samples, rate, struck, [place for _, place in named.values()])
    before = next((each.answers for each in last_sung(kit) if each.struck == struck), [])
    drums = {each.drum.tag: each.drum for each in standing_drums(kit, member.workshop, {})}
    batters = {tag: SideOf(drums[tag], Side.BATTER).layout for tag in named}
    sang = _shape(test, named, batters, before)
    LogEntry.objects.create(
        workshop=member.workshop,
        drum=drums[struck],
        at=sang.at,
        kind=SANG,
        text=f"Struck in {kit.name}{', a simulated one' if simulated else ''}: {' '.join(sang.sentences)}"[:300],
        by_name=member.shown_name,
        record={"kit": kit.name, "sang": sang.model_dump(mode="json"), "simulated": simulated},
    )
    return sang  # fmt: skip


def sing_pcm(kit: Kit, struck: str, pcm: bytes, rate: int, member: Membership) -> SangOut:
    return sing(kit, struck, from_pcm(pcm), rate, member)


def sing_simulated(kit: Kit, struck: str, member: Membership) -> SangOut:
    """Strike a simulated kit whose drums stand as they were read; in the demo’s workshop only."""
    if not member.workshop.demo:
        raise Refused("no_demo", "There is no simulated kit here. Open the microphone, or send a recording.", 404)
    named = _kit(kit, member.workshop)
    if struck not in named:
        raise Refused(
            "not_read", "That drum cannot be struck here: nobody has read it yet, or it is not in this kit.", 422
        )
    simulated = SimulatedKit({tag: _notes(place) for tag, (_, place) in named.items()})
    seed = zlib.crc32(f"{kit.name} {struck}".encode())  # the same kit answers alike, whatever its number in the tables
    return sing(kit, struck, simulated.strike(struck, seed, LATENESS_S), simulated.rate, member, simulated=True)


def _notes(place: Place) -> tuple[float, ...]:
    lug: list[Pitch] = [each for each in (place.batter, place.resonant if place.wires else None) if each]
    return (place.note_hz, *(each.hz for each in lug))
