"""What a call-out comes to goes into the record of its drums: findings, rods lent and lost, a line of history. Done again after every entry."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from typing import Any

from django.utils import timezone

from apps.bench.flows import mend
from apps.bench.models import DrumFinding
from apps.callouts.models import CallOut, CallOutDrum, CallOutEvent
from apps.callouts.stored import entered
from apps.history.models import LogEntry
from apps.register.lookup import drums_by_tag
from apps.register.models import Drum
from apps.register.sides import SideOf
from apps.stock.models import Loan
from apps.workshops.models import Membership
from drumwork.callout import Book, Given, Standing, Step, fold_callout, open_keys, parts_of, words_of
from drumwork.callout.entries import Ticked
from drumwork.drums import Side
from drumwork.findings import finding
from drumwork.work.state import LOST

__all__ = ["carry"]

ROD = "tension rod"


def _mark(callout: CallOut, what: str) -> uuid.UUID:
    """The id of the row this call-out keeps for it; kept with it, as an archive that is brought back gives all rows other ids."""
    marks: dict[str, str] = callout.carried.setdefault("marks", {})
    return uuid.UUID(marks.setdefault(what, str(uuid.uuid5(callout.pk, what))))


def _given(book: Book, stands: Standing) -> dict[str, Step]:
    """Steps done by which a rod went from one drum to another, by id."""
    return {step.id: step for step in book.steps if step.id in stands.done and step.gives is not None}


def _row_of(drum: Drum, key: str) -> DrumFinding | None:
    _, known, side, rod = key.split("|")
    rows = DrumFinding.objects.filter(drum=drum, finding=known, side=side, rod=int(rod) if rod else None)
    return rows.filter(put_right_at__isnull=True).order_by("found_at").first()


def _said(key: str, callout: CallOut, drum: Drum, degree: int) -> dict[str, Any]:
    _, known, side, rod = key.split("|")
    kind = finding(known)
    return {
        "workshop_id": callout.workshop_id, "drum": drum, "finding": known, "side": side, "rod": int(rod) if rod else None,
        "degree": degree if kind.degrees else 2, "owed": kind.follow.value, "part": kind.part,
    }  # fmt: skip


def _keep_findings(callout: CallOut, stands: Standing, owed: Mapping[str, bool], drums: Mapping[str, Drum]) -> None:
    """What was ticked stands in the record once; what is mended for good is put right; what is not so was never said."""
    kept = set[uuid.UUID]()
    reported = f"reported to the owner on {timezone.localdate():%-d %B %Y}" if stands.reported else ""
    closed: dict[str, str] = callout.carried.setdefault("closed", {})
    for key, said in stands.ticks.items():
        drum = drums.get(key.split("|")[0])
        if drum is None:
            continue
        if said is None or (_row_of(drum, key) and not DrumFinding.objects.filter(mark=_mark(callout, key)).exists()):
            if key not in owed:
                _close(drum, key, closed)
            elif row := _row_of(drum, key):
                _note(row, reported)
            continue
        entry = said.entry
        assert isinstance(entry, Ticked)
        row, _ = DrumFinding.objects.update_or_create(
            mark=_mark(callout, key),
            defaults={**_said(key, callout, drum, entry.degree), "found_at": said.at, "by_name": said.by},
        )
        kept.add(_mark(callout, key))
        if key in owed:
            DrumFinding.objects.filter(pk=row.pk).update(put_right_at=None)
            _note(row, reported)
        elif row.put_right_at is None:
            row.put_right_at = timezone.now()
            row.save(update_fields=["put_right_at"])
    for key in stands.gone:
        if (drum := drums.get(key.split("|")[0])) is not None:
            _close(drum, key, closed)
    _reopen(stands, owed, closed, drums)
    marks = [_mark(callout, key) for key in stands.gone if _mark(callout, key) not in kept]
    DrumFinding.objects.filter(mark__in=marks).delete()


def _note(row: DrumFinding, reported: str) -> None:
    if row.note != reported and (not row.note or row.note.startswith("reported to the owner")):
        DrumFinding.objects.filter(pk=row.pk).update(note=reported)


def _close(drum: Drum, key: str, closed: dict[str, str]) -> None:
    if key not in closed and (row := _row_of(drum, key)):
        mend(row.pk)
        moment = DrumFinding.objects.get(pk=row.pk).put_right_at
        closed[key] = moment.isoformat() if moment else ""


def _reopen(stands: Standing, owed: Mapping[str, bool], closed: dict[str, str], drums: Mapping[str, Drum]) -> None:
    """What this call-out had put right and says so no more stands as it stood."""
    for key, moment in list(closed.items()):
        tag, known, side, _ = key.split("|")
        if key in owed and key not in stands.gone:
            rows = DrumFinding.objects.filter(drum=drums[tag], finding=known, side=side, put_right_at=moment)
            rows.update(put_right_at=None)
            del closed[key]


def _keep_loans(callout: CallOut, given: Mapping[str, Step], stands: Standing, drums: Mapping[str, Drum]) -> None:
    """A loan for every rod that was given, on both drums' records; one that is over is left as it is."""
    wanted = {_mark(callout, name): step for name, step in given.items()}
    for name in set(callout.carried.get("loans", [])) - set(given):
        Loan.objects.filter(pk=_mark(callout, name), ended="").delete()
        DrumFinding.objects.filter(mark=_mark(callout, f"giver {name}"), put_right_at__isnull=True).delete()
    for key, step in wanted.items():
        gives = step.gives
        assert gives is not None
        giver = drums.get(gives.giver) or drums_by_tag([gives.giver]).get(gives.giver)
        taker = drums.get(gives.taker)
        if giver is None or taker is None or Loan.objects.filter(pk=key).exists():
            continue
        done = stands.done[step.id]
        Loan.objects.create(
            id=key, workshop_id=callout.workshop_id, what=f"{ROD} {gives.giver_rod}", from_drum=giver, from_side=Side.BATTER.value,
            from_rod=gives.giver_rod, to_drum=taker, to_side=gives.taker_side.value, to_rod=gives.taker_rod, lent_at=done.at, lent_by_name=done.by,
        )  # fmt: skip
        lacks = f"{giver.tag}|{LOST}|{Side.BATTER.value}|{gives.giver_rod}"
        DrumFinding.objects.update_or_create(
            mark=_mark(callout, f"giver {step.id}"),
            defaults={
                **_said(lacks, callout, giver, 2), "found_at": done.at, "by_name": done.by,
                "note": f"it is in {taker.name} ({taker.tag}), rod {gives.taker_rod}",
            },
        )  # fmt: skip
    callout.carried["loans"] = list(given)


def _set_lost(
    callout: CallOut, book: Book, stands: Standing, owed: Mapping[str, bool], drums: Mapping[str, Drum]
) -> None:
    """Rods the record has as lost: missing ones nobody filled, and those that were given away."""
    given = [step.gives for step in _given(book, stands).values() if step.gives and not _is_over(callout, step)]
    filled = {(each.taker, each.taker_side, each.taker_rod) for each in given}
    said = [key.split("|") for key in {**stands.ticks, **stands.gone, **dict.fromkeys(book.known)}]
    for tag, drum in drums.items():
        for side in Side:
            of = SideOf(drum, side)
            about = {
                int(rod) for one, what, where, rod in said if (one, what, where) == (tag, LOST, side.value) and rod
            }
            lacks = {rod for rod in about if _key(tag, side, rod) in owed and (tag, side, rod) not in filled}
            lacks |= _away(given, tag, side)
            about |= lacks | _were_away(callout, drum, side)
            lost = sorted((set(of.lost) - about) | lacks)
            if lost != sorted(of.lost):
                of.set_lost(lost)
                drum.save(update_fields=[f"lost_{side.value}"])


def _key(tag: str, side: Side, rod: int) -> str:
    return f"{tag}|{LOST}|{side.value}|{rod}"


def _is_over(callout: CallOut, step: Step) -> bool:
    return Loan.objects.filter(pk=_mark(callout, step.id)).exclude(ended="").exists()


def _away(given: list[Given], tag: str, side: Side) -> set[int]:
    return {each.giver_rod for each in given if each.giver == tag and side is Side.BATTER}


def _were_away(callout: CallOut, drum: Drum, side: Side) -> set[int]:
    """Rods this call-out had given away before, and may have again."""
    return {int(rod) for tag, rod in callout.carried.get("away", []) if tag == drum.tag and side is Side.BATTER}


def _write(callout: CallOut, book: Book, stands: Standing, owed: Mapping[str, bool], rows: Mapping[str, Drum]) -> None:
    """One line of history a drum that was seen to, kept up to date."""
    for each in book.drums:
        drum = rows.get(each.tag)
        if drum is None:
            continue
        done = list(dict.fromkeys(step.did for step in book.steps if step.id in stands.done and step.drum == each.tag))
        left = [words_of(key, each) for key in owed if key.split("|")[0] == each.tag]
        log = LogEntry.objects.filter(drum=drum, kind="callout", record__callout=str(callout.pk))
        if not done and not left and each.tag not in stands.looked:
            log.delete()
            continue
        text = "; ".join(done) if done else "looked at before the show"
        where = f" at {callout.at}" if callout.at else ""
        said = {
            "at": callout.began_at or callout.touched_at, "text": f"{callout.name}{where}: {text}"[:300],
            "outcome": (f"still {', '.join(left)}" if left else "sounds fine")[:120], "by_name": callout.started_by_name,
        }  # fmt: skip
        if not log.update(**said):
            LogEntry.objects.create(
                workshop_id=callout.workshop_id, drum=drum, kind="callout", record={"callout": str(callout.pk)}, **said
            )


def _asked(book: Book, stands: Standing) -> dict[str, Any]:
    """Parts this call-out wanted, and those it used, for the bag of the next."""
    uses = {step.id: step.uses for step in book.steps if step.id in stands.done}.values()
    used = [part for each in uses for part in each if not part.startswith(("one:", "giver:"))]
    return {"wanted": sorted({part for part, _ in parts_of(book, stands.ticks)}), "used": used}


def carry(callout: CallOut, book: Book, member: Membership) -> Standing:
    """Bring the records up to what the log says now. The caller holds the call-out's row lock."""
    stands = fold_callout(book, entered(CallOutEvent.objects.filter(callout=callout).order_by("seq")))
    owed, given = open_keys(book, stands), _given(book, stands)
    pairs = CallOutDrum.objects.filter(callout=callout)
    locked = {
        row.pk: row for row in Drum.objects.select_for_update().filter(pk__in=pairs.values("drum")).order_by("pk")
    }
    drums = {pair.tag: locked[pair.drum_id] for pair in pairs}
    outside = {step.gives.giver for step in given.values() if step.gives} | {
        tag for tag, _ in callout.carried.get("away", [])
    }
    drums |= drums_by_tag(outside - set(drums), Drum.objects.select_for_update())
    now = timezone.now()
    clocks = [row.made_at for row in CallOutEvent.objects.filter(callout=callout, kind="clock").order_by("seq")[:1]]
    callout.began_at = clocks[0] if clocks else None
    _keep_loans(callout, given, stands, drums)
    _keep_findings(callout, stands, owed, drums)
    for drum in drums.values():
        drum.refresh_from_db()
    _set_lost(callout, book, stands, owed, drums)
    callout.carried["away"] = [[step.gives.giver, step.gives.giver_rod] for step in given.values() if step.gives]
    _write(callout, book, stands, owed, drums)
    callout.touched_at, callout.owing, callout.asked = now, len(owed), _asked(book, stands)
    callout.over_at = stands.over.at if stands.over else None
    callout.reported_at = stands.reported.at if stands.reported else None
    callout.answered_at = stands.answered.at if stands.answered else None
    callout.save()
    return stands
