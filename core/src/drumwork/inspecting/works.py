"""From a verdict to the work that answers it, and by when."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final

from drumwork.deciding import Decision, Drum, Verdict
from drumwork.drums import Side
from drumwork.findings import Follow
from drumwork.procedures.catalogue import check_for, head_change_for, work_named
from drumwork.work.effects import ChangeWires
from drumwork.work.plan import DrumFacts, Part

__all__ = ["DUE_DAYS", "ProposedWork", "due_days", "parts_taken", "takes_new_wires", "turn_over_for", "works_for"]

DUE_DAYS: Final[Mapping[Verdict, int]] = {
    Verdict.CLEAR: 30,
    Verdict.CLEAR_RECHECK: 14,
    Verdict.REPAIR: 7,
    Verdict.REPLACE_NEXT: 7,
    Verdict.REPLACE_NOW: 0,
}
"""Days until work that answers a verdict is due, where nobody says otherwise. Our own, no source."""
_REPLACES: Final = (Verdict.REPLACE_NEXT, Verdict.REPLACE_NOW)
_CLEARS: Final = (Verdict.CLEAR, Verdict.CLEAR_RECHECK)


@dataclass(frozen=True, slots=True)
class ProposedWork:
    """A piece of work from the catalogue, the parts whose verdicts it answers, and the severest of those."""

    work: str
    part: Part
    answers: tuple[str, ...]
    verdict: Verdict
    tonight: bool = False
    """A stop-gap for one evening, which answers no verdict for good."""

    @property
    def new_heads(self) -> tuple[Side, ...]:
        return self.part.sides if work_named(self.work).changes_heads else ()

    @property
    def new_wires(self) -> bool:
        return takes_new_wires(self.work, self.part)


def takes_new_wires(work: str, part: Part) -> bool:
    """Whether closing such a job fits new wires."""
    return any(isinstance(effect, ChangeWires) for effect in work_named(work).effects(part))


def parts_taken(work: str, part: Part) -> tuple[str, ...]:
    """What such a job takes from the shelf: 'batter' and 'resonant' for a head on that side, 'wires' for a set of them."""
    heads = part.sides if work_named(work).changes_heads else ()
    return (*(side.value for side in heads), *(("wires",) if takes_new_wires(work, part) else ()))


def due_days(verdict: Verdict) -> int:
    """In how many days work for this verdict is due; 0 is today."""
    return DUE_DAYS.get(verdict, 30)


def _suits(work: str, part: Part, facts: DrumFacts) -> bool:
    return not work_named(work).why_not(facts, part)


def _heads(verdicts: Mapping[str, Verdict], facts: DrumFacts) -> Iterator[ProposedWork]:
    new = [side for side in Side if verdicts[side.value] in _REPLACES]
    worst = max((verdicts[side.value] for side in new), key=lambda each: each.severity, default=Verdict.NOTHING)
    if len(new) == 2 and _suits("both-heads", Part.HEADS, facts):
        yield ProposedWork("both-heads", Part.HEADS, ("batter", "resonant"), worst)
        return
    for side in Side:
        verdict = verdicts[side.value]
        if verdict in _REPLACES:
            offer = head_change_for(facts, side)
            yield ProposedWork(offer.work.id, offer.part, (side.value,), verdict)
        elif verdict in _CLEARS:
            offer = check_for(facts, side)
            yield ProposedWork(offer.work.id, offer.part, (side.value,), verdict)


def _wires(drum: Drum, verdict: Verdict, facts: DrumFacts) -> Iterator[ProposedWork]:
    if verdict in _REPLACES:
        yield ProposedWork("new-wires", Part.WIRES, ("wires",), verdict)
    elif verdict is Verdict.REPAIR or verdict in _CLEARS:
        fetch = any(each.row.follow is Follow.FETCH for each in drum.wires or ())
        work, part = ("fit-part", Part.HARDWARE) if fetch else ("set-wires", Part.WIRES)
        if _suits(work, part, facts):
            yield ProposedWork(work, part, ("wires",), verdict)


def _hardware(drum: Drum, verdict: Verdict, facts: DrumFacts) -> Iterator[ProposedWork]:
    if verdict in (Verdict.REPAIR, *_REPLACES):
        follows = {each.row.follow for each in drum.hardware}
        work = "fit-part" if follows == {Follow.FETCH} else "hardware-service"
        if _suits(work, Part.HARDWARE, facts):
            yield ProposedWork(work, Part.HARDWARE, ("hardware",), verdict)


def _once(works: Iterator[ProposedWork]) -> Iterator[ProposedWork]:
    """One piece of work for all it answers, due by the severest."""
    kept: dict[tuple[str, Part], ProposedWork] = {}
    for each in works:
        first = kept.get((each.work, each.part))
        if first is None:
            kept[each.work, each.part] = each
        else:
            verdict = max(first.verdict, each.verdict, key=lambda one: one.severity)
            kept[each.work, each.part] = ProposedWork(
                each.work, each.part, tuple(dict.fromkeys((*first.answers, *each.answers))), verdict
            )
    yield from kept.values()


def works_for(drum: Drum, verdicts: Mapping[str, Verdict], facts: DrumFacts) -> tuple[ProposedWork, ...]:
    """The work these verdicts ask for, heads first. A drum out of service gets none: it is for a qualified person.

    `verdicts` are those that stand, after a person overruled any.
    """
    if Verdict.OUT_OF_SERVICE in verdicts.values():
        return ()
    works = (
        *_heads(verdicts, facts),
        *_wires(drum, verdicts["wires"], facts),
        *_hardware(drum, verdicts["hardware"], facts),
    )
    return tuple(_once(iter(works)))


def turn_over_for(found: Decision, facts: DrumFacts) -> ProposedWork | None:
    """For tonight, where the decision says so."""
    if not found.turn_over or not _suits("turn-over", Part.HEADS, facts):
        return None
    return ProposedWork("turn-over", Part.HEADS, ("resonant",), Verdict.REPLACE_NOW, tonight=True)
