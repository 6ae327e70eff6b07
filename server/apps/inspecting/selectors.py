"""Named reads of walks."""

from __future__ import annotations

import uuid
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from functools import cache
from typing import Any, Final

from django.db.models import Count, Q
from django.utils import timezone

from apps.bench.models import DrumFinding
from apps.heads.models import Fitting
from apps.inspecting.models import Overrule, Verdict, Walk, WalkDrum, WalkEvent
from apps.inspecting.record import fitted_on, open_findings
from apps.inspecting.schemas import RuleOut, TickOut, WalkLine, WalkOut
from apps.register.schemas import KIND_WORDS, size_words
from apps.workshops.models import Workshop
from drumwork.condition import is_past_life, months_between
from drumwork.deciding import RULES
from drumwork.drums import DrumKind
from drumwork.findings import LOOKS, finding, parts_for, ticks_for

__all__ = ["rules", "walk_by_id", "walk_of", "walks"]

RECENT: Final = 30


def walk_by_id(walk_id: uuid.UUID) -> Walk:
    """The walk, or Walk.DoesNotExist."""
    return Walk.objects.get(pk=walk_id)


def walks() -> list[WalkLine]:
    """Those not over yet first, then the last that were."""
    rows = (
        Walk.objects.annotate(
            of_drums=Count("drums", distinct=True),
            looked=Count("verdicts", distinct=True),
            owed=Count("verdicts", filter=Q(verdicts__answered_at__isnull=True), distinct=True),
        )
        .order_by("-touched_at")
        .values()
    )
    listed = [*rows.filter(state=Walk.State.OPEN)[:RECENT], *rows.filter(state=Walk.State.DONE)[:RECENT]]
    return [
        WalkLine.model_validate(
            {**row, "id": str(row["id"]), "started_by": row["started_by_name"], "drums": row["of_drums"]}
        )
        for row in listed
    ]


def _tick(known: str) -> TickOut:
    row, look = finding(known), LOOKS[known]
    return TickOut(
        id=known,
        where=row.where,
        short=look.short,
        words=row.words,
        answer=row.answer,
        degrees=list(look.degrees),
        usual=look.usual,
    )


@cache
def _ticks() -> list[TickOut]:
    return [_tick(known) for known in LOOKS]


@cache
def _can(kind: DrumKind) -> dict[str, list[str]]:
    return {part: [row.id for row in ticks_for(kind, part)] for part in parts_for(kind)}


def _heads_on(fitted: Mapping[str, Fitting], workshop: Workshop) -> list[dict[str, Any]]:
    today, heads = timezone.localdate(), []
    for side in ("batter", "resonant"):
        if on := fitted.get(side):
            months = months_between(timezone.localdate(on.since), today) if on.since else None
            life = workshop.batter_life_months if side == "batter" else workshop.resonant_life_months
            heads.append(
                {
                    "side": side,
                    "head": on.head,
                    "months": months,
                    "past": months is not None and is_past_life(months, life),
                }
            )
    return heads


def _drums(rows: Sequence[WalkDrum], workshop: Workshop) -> list[dict[str, Any]]:
    drums = [row.drum for row in rows]
    fitted, stands = fitted_on(drums), open_findings(drums)
    # What this walk itself found is told by its entries.
    own = (
        set(WalkEvent.objects.filter(walk=rows[0].walk_id, kind="seen").values_list("pk", flat=True)) if rows else set()
    )
    mine = _rows_of(own)
    last = dict(
        Verdict.objects.filter(drum__in=drums).exclude(walk=rows[0].walk_id).order_by("drum", "at").values_list("drum_id", "at")
    ) if rows else {}  # fmt: skip
    return [
        {
            "tag": drum.tag, "name": drum.name, "kind": drum.kind, "kind_words": KIND_WORDS[drum.kind],
            "size": size_words(drum.diameter_m, drum.depth_m, workshop.length_unit), "place": drum.place.name,
            "rods_batter": drum.rods_batter, "rods_resonant": drum.rods_resonant,
            "lost_batter": drum.lost_batter, "lost_resonant": drum.lost_resonant, "bed_rods": drum.bed_rods,
            "badge": drum.badge, "port": drum.port_m is not None,
            "wires": on.head if (on := fitted[drum.pk].get("wires")) else "",
            "heads": _heads_on(fitted[drum.pk], workshop),
            "known": [
                {
                    "row": each.row, "finding": each.finding, "degree": each.degree, "side": each.side, "rod": each.rod,
                    "spot": {"x": each.spot.x, "y": each.spot.y} if each.spot else None, "note": each.note, "by": each.by, "at": each.at,
                }
                for each in stands[drum.pk]
                if each.row not in mine
            ],
            "last_look": last.get(drum.pk),
        }
        for drum in drums
    ]  # fmt: skip


def _rows_of(marks: Iterable[uuid.UUID]) -> set[int]:
    return set(DrumFinding.objects.filter(mark__in=list(marks)).values_list("pk", flat=True))


def _shaped(walk: Walk, **more: Any) -> WalkOut:
    nothing: dict[str, Any] = {"drums": [], "events": [], "verdicts": [], "ticks": [], "can": {}}
    return WalkOut.model_validate(
        {
            "id": str(walk.pk), "name": walk.name, "state": walk.state, "going_out": walk.going_out,
            "started_by": walk.started_by_name, "started_at": walk.started_at, "last_seq": walk.last_seq, **nothing, **more,
        }
    )  # fmt: skip


def walk_of(walk: Walk, workshop: Workshop, since: int) -> WalkOut:
    """A walk, or with `since` from 0 up only what came after that entry."""
    first = since < 0
    if since == walk.last_seq:
        return _shaped(walk)
    rows = list(WalkDrum.objects.filter(walk=walk).select_related("drum__place").order_by("place") if first else [])
    events = WalkEvent.objects.filter(walk=walk, seq__gt=max(since, 0)).order_by("seq")
    verdicts = Verdict.objects.filter(walk=walk, seq__gt=max(since, 0))
    return _shaped(
        walk,
        drums=_drums(rows, workshop) if rows else [],
        events=[
            {"id": str(row.pk), "seq": row.seq, "by": row.by_name, "at": row.made_at, "device": row.device, "body": row.body}
            for row in events
        ],
        verdicts=[{**row.told, "answered": row.answered_at is not None} for row in verdicts],
        ticks=_ticks() if first else [],
        can={row.drum.kind: _can(DrumKind(row.drum.kind)) for row in rows},
    )  # fmt: skip


def rules() -> list[RuleOut]:
    """The rules, those this workshop overruled most first, each with the reasons given."""
    counts, reasons = Counter[str](), dict[str, list[str]]()
    for ids, reason in Overrule.objects.order_by("-at").values_list("rules", "reason"):
        for rule in ids:
            counts[rule] += 1
            reasons.setdefault(rule, []).append(reason)
    listed = [
        RuleOut(
            id=rule.id,
            part=rule.part.value,
            when=rule.when.words(),
            verdict=rule.verdict.value,
            verdict_words=rule.verdict.words,
            urgency=rule.urgency,
            words=rule.words,
            cites=list(rule.cites),
            overruled=counts[rule.id],
            reasons=reasons.get(rule.id, [])[:5],
        )
        for rule in RULES.values()
    ]
    return sorted(listed, key=lambda each: -each.overruled)
