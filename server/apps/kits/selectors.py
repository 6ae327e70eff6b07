"""Kits as they are, and what their plan would be. Nothing is changed here."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import replace
from itertools import pairwise

from django.db.models import F
from pydantic import ValidationError

from apps.kits.schemas import (
    DrumOfKit,
    KitHead,
    KitHeadNow,
    KitLine,
    KitOut,
    KitPlanOut,
    KitStep,
    KitWishes,
    PlacedDrum,
    TooNear,
)
from apps.kits.standing import Standing, standing_drums
from apps.register.models import Kit, KitDrum
from apps.register.schemas import KIND_WORDS
from apps.workshops.errors import Refused
from apps.workshops.models import Workshop
from drumwork.drums import DrumKind, Side
from drumwork.errors import DrumworkError
from drumwork.kits import (
    HeadMove,
    KitPlan,
    KitWish,
    Place,
    crowded,
    head_words,
    interval_words,
    is_turned,
    plan_kit,
    step_turns,
    tell,
)
from drumwork.procedures.catalogue import RETUNES
from drumwork.quantities import Length, Pitch, cents_of, parse_pitch
from drumwork.quantities.intervals import parse_interval

__all__ = ["kit_of", "kits", "plan_of", "wish_of", "without_what_is_there"]

A_HEAD = 0.125
"""A head touched counts as an eighth of a turn of every rod: each is a job of its own. Our own figure."""
SECONDS = 3.0
"""How long a plan may take before the best so far is shown."""


def kits() -> list[KitLine]:
    """Those with a day first, the nearest day first; then by name."""
    names = defaultdict[int, list[str]](list)
    for kit, name in KitDrum.objects.order_by("row", "drum__tag").values_list("kit_id", "drum__name"):
        names[kit].append(name)
    rows = Kit.objects.order_by(F("day").asc(nulls_last=True), "name")
    return [
        KitLine(id=row.pk, name=row.name, occasion=row.occasion, at=row.at, day=row.day, drums=names[row.pk])
        for row in rows
    ]


def wish_of(kit: Kit) -> KitWishes:
    """As it was kept; none where what is kept cannot be read."""
    try:
        wish = KitWishes.model_validate(kit.wish)
        for way in wish.above.values():
            parse_interval(way or "unison")
    except (ValidationError, DrumworkError):
        return KitWishes.model_validate({})
    return wish


def _inches(each: Standing) -> str:
    size = Length(each.drum.diameter_m)
    if each.workshop.length_unit == "mm":
        return f"{round(size.metres * 1000)} mm"
    return f"{size.metres / 0.0254:g}"


def _way_words(each: Standing) -> str:
    if each.heads[Side.RESONANT] is None:
        return "one head"
    if abs(each.above) < 0.5:
        return "both heads the same"
    return f"resonant {interval_words(each.above)} {'above' if each.above > 0 else 'below'} the batter"


def _drum(each: Standing) -> DrumOfKit:
    a4, heads = each.workshop.a4_hz, []
    for side in Side if not each.left_out else ():
        if each.heads[side] is None:
            continue
        now, (low, high) = each.now[side], each.range_hz(side)
        heads.append(
            KitHeadNow(
                side=side,
                now_hz=now.hz if now else None,
                now_note=now.note(a4) if now else "",
                lowest_hz=low,
                highest_hz=high,
            )
        )
    stands = None if each.left_out else each.core.stands
    return DrumOfKit(
        tag=each.drum.tag,
        name=each.drum.name,
        kind=DrumKind(each.drum.kind),
        kind_words=KIND_WORDS[each.drum.kind],
        size=_inches(each),
        role=each.role,
        left_out=each.left_out,
        notes=each.notes,
        heads=heads,
        note_hz=stands.note_hz if stands else None,
        way_cents=each.above,
        way_words=_way_words(each),
    )


def kit_of(kit: Kit, workshop: Workshop) -> KitOut:
    wish = wish_of(kit)
    drums = standing_drums(kit, workshop, wish.above)
    return KitOut(
        id=kit.pk,
        name=kit.name,
        occasion=kit.occasion,
        at=kit.at,
        day=kit.day,
        drums=[_drum(each) for each in drums],
        a4_hz=workshop.a4_hz,
        simulated=workshop.demo,
        wish=wish,
    )


def _wanted(wish: KitWishes, there: set[str], a4_hz: float) -> KitWish:
    """What is asked, as the core has it; of drums that left the kit nothing is asked."""
    step = None
    if wish.step.strip():
        step = abs(parse_interval(wish.step).cents)
        if not 1 <= step <= 2400:
            raise Refused(
                "no_step",
                "A step from drum to drum is up to two octaves: a fourth, say, or 300 cents.",
                422,
                step="Up to two octaves.",
            )
    notes = {tag: parse_pitch(text, a4_hz).hz for tag, text in wish.notes.items() if text.strip() and tag in there}
    return KitWish(
        wish.shape,
        step,
        wish.tolerance,
        notes,
        frozenset(tag for tag in wish.stays if tag in there),
        wish.apart,
        tuple(parse_pitch(text, a4_hz).hz for text in wish.against if text.strip()),
        A_HEAD,
    )  # fmt: skip


def _head(side: Side, move: HeadMove, workshop: Workshop) -> KitHead:
    turns = step_turns(move, workshop.step_32)
    return KitHead(
        side=side,
        hz=round(move.wanted.hz, 2),
        note=move.wanted.note(workshop.a4_hz),
        cents=move.cents,
        turns_32=None if turns is None else turns.thirtyseconds,
        words=head_words(move, workshop.step_32),
        job=is_turned(move),
    )


def _placed(place: Place, plan: KitPlan, workshop: Workshop) -> PlacedDrum:
    moves = {Side.BATTER: plan.batter[place.id], Side.RESONANT: plan.resonant[place.id]}
    return PlacedDrum(
        tag=place.id,
        note_hz=place.note_hz,
        note=Pitch(place.note_hz).note(workshop.a4_hz),
        heads=[_head(side, move, workshop) for side, move in moves.items() if move],
    )


def _steps(drums: list[Standing], plan: KitPlan) -> list[KitStep]:
    row = [each.drum.tag for each in drums if each.role.in_steps and each.drum.tag in plan.places]
    found = []
    for upper, lower in pairwise(row):
        cents = cents_of(plan.places[upper].note_hz / plan.places[lower].note_hz)
        kept = (upper, lower) not in plan.dropped
        found.append(KitStep(upper=upper, lower=lower, cents=cents, words=interval_words(cents), kept=kept))
    return found


def _too_near(standing: list[Place], wish: KitWish) -> list[TooNear]:
    return [
        TooNear(one=near.one, one_hz=near.one_hz, other=near.other, other_hz=near.other_hz, cents=near.cents)
        for near in crowded(standing, wish.apart, wish.against)
    ]


def without_what_is_there(plan: KitPlan, drums: list[Standing]) -> KitPlan:
    """Without what a job brought there already: as near as the Bench asks for, or left so by a person. It is not asked for again."""
    heads: dict[Side, dict[str, HeadMove | None]] = {Side.BATTER: dict(plan.batter), Side.RESONANT: dict(plan.resonant)}
    saved = 0.0
    for side, moves in heads.items():
        for each in drums:
            move = moves.get(each.drum.tag)
            if move is not None and is_turned(move) and each.is_where(side, move.wanted):
                saved += abs(move.turns or 0.0)
                moves[each.drum.tag] = HeadMove(move.wanted, 0.0, 0.0)
    batter = {tag: move for tag, move in heads[Side.BATTER].items() if move}
    return replace(plan, batter=batter, resonant=heads[Side.RESONANT], turns=max(0.0, plan.turns - saved))


def plan_of(kit: Kit, asked: KitWishes, workshop: Workshop) -> KitPlanOut:
    """The plan for a wish.

    Raises
    ------
    Refused, DrumworkError
        for a wish that cannot be read, or a kit no plan is made for; not for wishes that cannot all hold.
    """
    every = standing_drums(kit, workshop, asked.above)
    drums = [each for each in every if not each.left_out]
    if not drums:
        raise Refused("no_drums", "No drum of this kit can be planned: it needs one with film heads on rods.", 422)
    core = [each.core for each in drums]
    wish = _wanted(asked, {each.id for each in core}, workshop.a4_hz)
    plan = without_what_is_there(plan_kit(core, wish, SECONDS), drums)
    told = tell(core, wish, plan, {each.drum.tag: each.drum.name for each in drums})
    places = [_placed(plan.places[each.id], plan, workshop) for each in core if each.id in plan.places]
    jobs = sum(head.job for place in places for head in place.heads)
    return KitPlanOut(
        headline=told.headline,
        sum=told.sum,
        notes=list(told.notes),
        places=places,
        steps=_steps(drums, plan),
        crowded=_too_near([each.stands for each in core if each.stands], wish),
        turns=plan.turns,
        bound=plan.bound,
        proved=plan.proved,
        impossible=bool(plan.impossible),
        jobs=jobs,
        minutes=jobs * RETUNES.minutes,
        work=RETUNES.id,
    )
