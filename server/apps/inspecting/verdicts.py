"""A look that is done goes into the drum's record: its findings, its verdict, a line of history. Done again after every later entry about it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from datetime import datetime
from typing import Any

from django.utils import timezone

from apps.bench.flows import mend
from apps.bench.models import DrumFinding
from apps.history.models import LogEntry
from apps.inspecting.models import Overrule, Walk, WalkDrum, WalkEvent
from apps.inspecting.models import Verdict as VerdictRow
from apps.inspecting.record import known_of
from apps.inspecting.schemas import VerdictOut
from apps.inspecting.stored import entered
from apps.register.models import Drum
from apps.register.sides import SideOf, facts_of
from apps.workshops.models import Membership
from drumwork.deciding import Decision, Verdict, decide
from drumwork.drums import Side
from drumwork.findings import finding
from drumwork.inspecting import (
    DrumLook,
    Entered,
    Known,
    Overruled,
    ProposedWork,
    Standing,
    carried,
    drum_of,
    due_days,
    fold,
    note_of,
    turn_over_for,
    works_for,
)
from drumwork.procedures.catalogue import work_named
from drumwork.work.state import LOST

__all__ = ["carry_look"]


def _keep_findings(of: WalkDrum, stands: Sequence[Standing], look: DrumLook, now: datetime) -> None:
    """What was seen stands in the record, once; what was taken back stands there no longer; what is gone is put right."""
    drum, kept = of.drum, set[int]()
    for each in stands:
        if each.event is None and each.row not in look.again:
            continue
        kind = finding(each.finding)
        said = {
            "degree": each.degree,
            "note": each.note,
            "spot": {"x": each.spot.x, "y": each.spot.y} if each.spot else None,
            "seen_at": now if each.row in look.again else each.at,
        }
        if each.row is not None:
            _remember(of, each.row)
            DrumFinding.objects.filter(pk=each.row).update(**said)
            kept.add(each.row)
            continue
        row, _ = DrumFinding.objects.update_or_create(
            mark=each.event,
            defaults={
                **said, "workshop_id": of.workshop_id, "drum": drum, "finding": each.finding, "side": each.side.value if each.side else "",
                "rod": each.rod, "owed": kind.follow.value, "part": kind.part, "found_at": each.at, "by_name": each.by,
            },
        )  # fmt: skip
        kept.add(row.pk)
    for key in look.gone:
        if DrumFinding.objects.filter(pk=key, drum=drum, put_right_at__isnull=True).exists():
            mend(key)
            closed = DrumFinding.objects.get(pk=key).put_right_at
            of.record.setdefault("closed", {})[str(key)] = closed.isoformat() if closed else ""
    _forget_taken_back(of, kept)
    _set_lost(drum, stands)
    of.save(update_fields=["record"])


def _remember(of: WalkDrum, row: int) -> None:
    """How a finding of the record stood before this walk spoke of it, so that what is taken back leaves it as it was."""
    was = DrumFinding.objects.get(pk=row)
    seen = was.seen_at.isoformat() if was.seen_at else None
    of.record.setdefault("before", {}).setdefault(
        str(row), {"degree": was.degree, "note": was.note, "spot": was.spot, "seen_at": seen}
    )


def _put_back(of: WalkDrum) -> None:
    """The record’s own findings as they stood before this walk; what it still says of them is laid on anew. What somebody else put right stays so."""
    for key, was in of.record.pop("before", {}).items():
        DrumFinding.objects.filter(pk=key).update(**was)
    for key, closed in of.record.pop("closed", {}).items():
        row = DrumFinding.objects.filter(pk=key).first()
        if row is None or row.put_right_at is None or row.put_right_at.isoformat() != closed:
            continue
        DrumFinding.objects.filter(pk=key).update(put_right_at=None)
        if row.finding == LOST and row.side and row.rod:
            side = SideOf(of.drum, Side(row.side))
            side.set_lost(sorted({*side.lost, row.rod}))
            of.drum.save(update_fields=[f"lost_{row.side}"])


def _forget_taken_back(of: WalkDrum, kept: set[int]) -> None:
    """Rows this walk had made for entries that were undone since, or that count as one with another."""
    marks = WalkEvent.objects.filter(walk_id=of.walk_id, tag=of.drum.tag, kind="seen").values("pk")
    rows = DrumFinding.objects.filter(drum=of.drum, mark__in=marks, put_right_at__isnull=True).exclude(pk__in=kept)
    for row in rows.filter(finding=LOST):
        side = SideOf(of.drum, Side(row.side))
        side.set_lost([rod for rod in side.lost if rod != row.rod])
        of.drum.save(update_fields=[f"lost_{row.side}"])
    rows.delete()


def _set_lost(drum: Drum, stands: Iterable[Standing]) -> None:
    """A rod seen to be missing is lost in the drum's record, and takes no turn."""
    for side in Side:
        of = SideOf(drum, side)
        rods = {each.rod for each in stands if each.finding == LOST and each.side is side and each.rod}
        if set(of.lost) != rods and of.rods - len(rods) >= 3:
            of.set_lost([rod for rod in rods if rod is not None])
            drum.save(update_fields=[f"lost_{side.value}"])


def _standing_verdicts(found: Decision, look: DrumLook) -> dict[str, Verdict]:
    """What stands: by the rules, or as a person decided."""
    stands = {part: verdict for part, verdict in found.verdicts.items() if part != "drum"}
    for part, each in look.overruled.items():
        assert isinstance(each.entry, Overruled)
        stands[part] = each.entry.verdict
    worst = max(stands.values(), key=lambda each: each.severity)
    return stands | {"drum": worst}


def _proposed(works: Iterable[ProposedWork]) -> list[dict[str, Any]]:
    return [
        {
            "work": each.work,
            "part": each.part.value,
            "title": work_named(each.work).titled(each.part),
            "answers": list(each.answers),
            "verdict": each.verdict.value,
            "due_days": due_days(each.verdict),
            "new_heads": [side.value for side in each.new_heads],
            "new_wires": each.new_wires,
            "tonight": each.tonight,
        }
        for each in works
    ]


def _overruled(found: Decision, look: DrumLook) -> dict[str, dict[str, Any]]:
    return {
        part: {"by": each.by, "at": each.at, "reason": each.entry.reason, "said": found.verdicts[part].value}
        for part, each in look.overruled.items()
        if isinstance(each.entry, Overruled)
    }


def _told(of: WalkDrum, known: Known, look: DrumLook, stands: Sequence[Standing], done: Entered) -> VerdictOut:
    drum = drum_of(known, stands, look.going_out)
    found = decide(drum)
    said = _standing_verdicts(found, look)
    note, facts = note_of(found, said), facts_of(of.drum)
    works = list(works_for(drum, said, facts))
    if over := turn_over_for(found, facts):
        works.append(over)
    return VerdictOut.model_validate(
        {
            "tag": of.drum.tag,
            "seq": 0,
            "at": done.at,
            "by": done.by,
            "going_out": drum.going_out,
            "said": dict(found.verdicts),
            "stands": said,
            "words": {part: verdict.words for part, verdict in said.items()},
            "headline": note.headline,
            "lines": list(note.lines),
            "first": note.first,
            "suspect": found.suspect_first,
            "turn_over": found.turn_over,
            "because": [
                {"part": each.part, "rule": each.rule, "words": each.words, "cites": list(each.cites), "verdict": each.verdict.value if each.verdict else ""}
            for each in found.because
        ],
            "would_change": [
            {"part": each.part, "if_words": each.if_words, "verdict": each.verdict.words} for each in found.would_change[:12]
        ],
            "overruled": _overruled(found, look),
            "works": _proposed(works),
        }
    )  # fmt: skip


def _keep_overrules(row: VerdictRow, told: VerdictOut, look: DrumLook) -> None:
    row.overrules.exclude(event__in=[each.id for each in look.overruled.values()]).delete()
    for part, each in look.overruled.items():
        assert isinstance(each.entry, Overruled)
        rules = [one.rule for one in told.because if one.part == part and one.verdict == told.said[part].value]
        Overrule.objects.update_or_create(
            event=each.id,
            defaults={
                "workshop_id": row.workshop_id, "verdict": row, "part": part, "rules": rules, "said": told.said[part].value,
                "stands": each.entry.verdict.value, "reason": each.entry.reason, "by_name": each.by, "at": each.at,
            },
        )  # fmt: skip


def _write(of: WalkDrum, told: VerdictOut) -> None:
    """One line of history a look, kept up to date."""
    said = {
        "text": f"Looked at: {told.headline}"[:300],
        "outcome": Verdict(told.stands["drum"]).words,
        "by_name": told.by,
        "at": told.at,
    }
    row = LogEntry.objects.filter(drum=of.drum, kind="look", record__walk=str(of.walk_id)).first()
    if row is None:
        row = LogEntry(
            workshop_id=of.workshop_id, drum=of.drum, kind="look", record={"walk": str(of.walk_id), "lines": []}
        )
    for name, value in said.items():
        setattr(row, name, value)
    row.record = {**row.record, "lines": told.lines}
    row.save()


def _undone(of: WalkDrum) -> None:
    """The look is not done after all: nothing of it stands."""
    VerdictRow.objects.filter(walk=of.walk_id, drum=of.drum).delete()
    LogEntry.objects.filter(drum=of.drum, kind="look", record__walk=str(of.walk_id)).delete()
    _forget_taken_back(of, set())
    of.save(update_fields=["record"])


def carry_look(walk: Walk, of: WalkDrum, member: Membership) -> VerdictOut | None:
    """Bring the drum's record up to what this walk says of it now; None while the look is not done. The caller holds the walk's row lock."""
    of.walk, of.workshop = walk, member.workshop
    events = list(WalkEvent.objects.filter(walk=walk, tag=of.drum.tag).order_by("seq"))
    look = fold(entered(events)).get(of.drum.tag, DrumLook())
    of.drum = Drum.objects.select_for_update().get(pk=of.drum_id)
    _put_back(of)
    if look.looked is None:
        _undone(of)
        return None
    now = timezone.now()
    # What this walk itself brought to the record before is told by its entries, not by the record.
    own = [row.pk for row in events if row.kind == "seen"]
    known = known_of(of, member.workshop, now)
    mine = set(DrumFinding.objects.filter(drum=of.drum, mark__in=own).values_list("pk", flat=True))
    findings = tuple(each for each in known.findings if each.row not in mine)
    stands = carried(replace(known, findings=findings), look)
    told = _told(of, known, look, stands, look.looked)
    told.seq = walk.last_seq
    row, _ = VerdictRow.objects.get_or_create(
        walk=walk,
        drum=of.drum,
        defaults={
            "workshop_id": walk.workshop_id,
            "at": told.at,
            "by_name": told.by,
            "parts": {},
            "drum_verdict": "",
            "told": {},
            "seq": 0,
        },
    )
    stood = row.parts
    row.at, row.by_name, row.seq = told.at, told.by, told.seq
    row.parts = {part: verdict.value for part, verdict in told.stands.items()}
    row.drum_verdict = told.stands["drum"].value
    row.told = told.model_dump(mode="json")
    if row.drum_verdict == Verdict.NOTHING.value:
        row.answered_at = row.answered_at or now
    elif stood != row.parts:
        row.answered_at = None
    row.save()
    _keep_findings(of, stands, look, now)
    _keep_overrules(row, told, look)
    _write(of, told)
    return told
