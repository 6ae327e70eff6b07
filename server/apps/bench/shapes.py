"""A bench job, shaped for the device to fold."""

from __future__ import annotations

from collections.abc import Mapping
from functools import partial
from typing import Any, NamedTuple

from django.utils import timezone
from ninja import Schema

from apps.bench.figures import figures_of
from apps.bench.ledger import Ledger
from apps.bench.models import Job, JobHead
from apps.bench.schemas import (
    AsideOut,
    BenchShell,
    ConflictOut,
    EntryOut,
    HeadOut,
    LeftSo,
    OrdersOut,
    PassOut,
    PlannedAnew,
    PointOut,
    QuestionOut,
    StepOut,
)
from apps.bench.wire import body_of
from apps.register.models import Drum
from apps.register.schemas import size_words
from apps.register.sides import kept_words
from drumwork.drums import Side, traits_of
from drumwork.rods.passes import usual_bed
from drumwork.rods.patterns import plan_pattern
from drumwork.work.cautions import CAUTIONS
from drumwork.work.conditions import condition_to
from drumwork.work.fold import where
from drumwork.work.kinds.school import SchoolChosen
from drumwork.work.kinds.steps import Clear, Passes, Rest
from drumwork.work.log import Logged
from drumwork.work.pictures import PICTURES
from drumwork.work.plan import Part, Plan, StepPlan
from drumwork.work.words import Point

__all__ = ["Said", "left_so", "shape_anew", "shape_bench", "shape_plan_head", "shape_step", "write_bench"]


class Said(NamedTuple):
    """Sentences about a head in hand that need its film: the wanted pitch, and how it will settle."""

    target: str
    settling: str


def _points(of: tuple[Point, ...]) -> list[PointOut]:
    return [PointOut(text=str(each.text), when=condition_to(each.when)) for each in of]


_SITS_AGAIN = {"set-head", "set-hoop", "align-gate"}


def shape_step(step: StepPlan) -> StepOut:
    """One step of a plan."""
    data = step.data
    passes = data.passes if isinstance(data, Passes) else ()
    return StepOut(
        id=step.id,
        title=step.title,
        kind=step.kind,
        side=step.side,
        say=step.say,
        points=_points(step.points),
        tools=_points(step.tools),
        cautions=[CAUTIONS[each] for each in step.cautions],
        when=condition_to(step.when),
        minutes=data.minutes if isinstance(data, Rest) else 0,
        passes=[PassOut(each_32=p.each.thirtyseconds, order=list(p.order), until=p.until) for p in passes],
        more_pass_32=data.more.thirtyseconds if isinstance(data, Passes) and data.more else None,
        enough=data.enough if isinstance(data, Passes) else "",
        down=isinstance(data, Passes) and data.down,
        again=isinstance(data, Clear) and data.again,
        zero=step.zero,
        lays_out="lay-out" in step.does,
        photo="take" if "mark" in step.does else "look" if _SITS_AGAIN & set(step.does) else "none",
        looks_at=list(step.looks_at),
        picture=step.picture,
        picture_words=PICTURES.get(step.picture, ""),
        asks=[QuestionOut.model_validate(each, from_attributes=True) for each in step.asks],
        recalls=list(step.recalls),
        why=step.why,
    )


def _pairs(plan: Plan, side: Side) -> list[list[int]]:
    """Rungs of the ladder in working order: facing pairs, then whoever has no partner."""
    layout, seen, rungs = plan.drum.layouts[side], set[int](), []
    for rod in (*plan.turning_order(side), *layout.all_rods):
        if rod in seen:
            continue
        facing = layout.opposite(rod)
        rung = sorted([rod] if facing is None else [rod, facing])
        seen.update(rung)
        rungs.append(rung)
    return rungs


_ORDERS = ("lost", "beside_bed", "beside_port", "pairs", "tapping_order", "turning_order")


def shape_plan_head(plan: Plan, side: Side) -> dict[str, Any]:
    """What a plan says of one head: its rods and the orders they go in; a rope drum has none."""
    layout = plan.drum.layouts.get(side)
    if layout is None:
        return {"side": side.value, "rods": 0, **{name: [] for name in _ORDERS}, "pattern_note": ""}
    return {
        "side": side.value,
        "rods": layout.count,
        "lost": sorted(layout.lost),
        "beside_bed": sorted(
            layout.beside_bed or (usual_bed(layout) if plan.drum.snare_bed and side is Side.RESONANT else ())
        ),
        "beside_port": sorted(layout.beside_port),
        "pairs": _pairs(plan, side),
        "tapping_order": list(plan.tapping_order(side)),
        "turning_order": list(plan.turning_order(side)),
        "pattern_note": plan_pattern(layout, plan.ways.pattern, layout.rods[0]).note,
    }


def _to_look_at(plan: Plan) -> HeadOut:
    """For work about neither head: the side that is up meanwhile."""
    side = Side.RESONANT if plan.part is Part.WIRES else Side.BATTER
    return _head(plan, JobHead(side=side.value), Said("", ""))


def _head(plan: Plan, head: JobHead, said: Said) -> HeadOut:
    return HeadOut(
        **shape_plan_head(plan, Side(head.side)),
        new_head=head.new_head,
        old_head=head.old_head,
        reason=head.reason,
        shelf=head.stock_item.shelf if head.stock_item else "",
        left=head.stock_item.count if head.stock_item else None,
        above_cents=round(plan.above_cents.get(Side(head.side), 0.0), 2),
        target_words=said.target,
        settling_words=said.settling,
    )


def _entry(each: Logged, ledger: Ledger) -> EntryOut:
    return EntryOut.model_construct(
        id=each.id,
        seq=each.seq,
        by=each.by,
        at=each.at,
        device=each.device,
        standing=each.standing.value,
        against=each.against,
        words=each.entry.words(ledger.plan),
        body=body_of(each.entry, ledger.bodies[each.id]),
    )


def _conflicts(ledger: Ledger) -> list[ConflictOut]:
    found = []
    for second in ledger.open_conflicts:
        first = ledger.log[second.against or ""]
        said = [f"{each.by}: {each.entry.words(ledger.plan)}" for each in (first, second)]
        both = first.entry.kind == second.entry.kind and first.entry.may_be_both() and second.entry.may_be_both()
        about = second.entry.about()
        found.append(ConflictOut(event=second.id, about=about, first=said[0], second=said[1], can_be_both=both))
    return found


def shape_bench(job: Job, drum: Drum, ledger: Ledger, said: Mapping[Side, Said]) -> BenchShell:
    """What the bench view of one job says beside plan, log and figures."""
    workshop, plan, state = job.workshop, ledger.began, ledger.state
    return BenchShell.model_construct(
        id=str(job.id),
        tag=drum.tag,
        name=drum.name,
        kind=plan.drum.kind.value,
        kind_words=traits_of(plan.drum.kind).words,
        size=size_words(drum.diameter_m, drum.depth_m, workshop.length_unit),
        part=plan.part.value,
        work=plan.work,
        title=plan.title,
        changes_heads=plan.changes_heads,
        books_check=any(each.kind == "book-check" for each in plan.effects),
        state=job.state,
        aside=AsideOut(by=job.aside_by_name, at=job.closed_at, because=job.aside_because)
        if job.state == Job.State.ASIDE and job.closed_at
        else None,
        where=where(state),
        opened_by=job.opened_by_name,
        opened_at=job.opened_at,
        badge=drum.badge,
        snare=plan.drum.snare_bed,
        pattern=plan.ways.pattern.value,
        step_32=plan.ways.step.thirtyseconds,
        cadence=plan.ways.cadence.value,
        means=plan.ways.means.value,
        slacken_by=plan.ways.slacken_by.value,
        simulated=workshop.demo,
        other_head=len(plan.drum.layouts) > 1,
        heads=[_head(plan, head, said.get(Side(head.side), Said("", ""))) for head in job.heads.all()]
        or [_to_look_at(plan)],
        conflicts=_conflicts(ledger),
        kept=left_so(drum),
        write_on_head=f"{timezone.localtime():%m / %Y}",
        last_seq=job.last_seq,
    )


def left_so(drum: Drum) -> list[LeftSo]:
    """What the drum's record keeps of how it was left."""
    return [LeftSo(name=name, words=words) for name, words in kept_words(drum).items()]


def _text(of: Schema) -> str:
    # What it is made of was checked when it was stored; checking it again would take longer than making it.
    return of.model_dump_json(warnings=False)


def _plan_text(ledger: Ledger) -> str:
    return f"[{','.join(_text(shape_step(step)) for step in ledger.began.steps)}]"


def _orders(plan: Plan, side: Side) -> OrdersOut:
    head = shape_plan_head(plan, side)
    return OrdersOut(**{name: head[name] for name in OrdersOut.model_fields})


def shape_anew(entry: str, plan: Plan) -> PlannedAnew:
    """What an entry made of the plan."""
    return PlannedAnew(
        entry=entry,
        pattern=plan.ways.pattern.value,
        plan=[shape_step(step) for step in plan.steps],
        heads=[_orders(plan, side) for side in plan.sides],
    )


def _anew_text(entry: str, plan: Plan) -> str:
    return _text(shape_anew(entry, plan))


def _all_anew(ledger: Ledger) -> str:
    made = (
        ledger.once(f"anew {each.id}", partial(_anew_text, each.id, each.entry.plan))
        for each in ledger.log.values()
        if isinstance(each.entry, SchoolChosen) and each.entry.plan
    )
    return f"[{','.join(made)}]"


def _entry_text(each: Logged, ledger: Ledger) -> str:
    return _text(_entry(each, ledger))


def _log_text(ledger: Ledger) -> str:
    return f"[{','.join(ledger.once(each.id, partial(_entry_text, each, ledger)) for each in ledger.log.values())}]"


def write_bench(shell: BenchShell, ledger: Ledger) -> str:
    """A `BenchOut` as JSON. Plan, entries and figures never change once made: they are written once a process and put in as they lie."""
    plan = ledger.once("plan", lambda: _plan_text(ledger))
    log = ledger.text("log", lambda: _log_text(ledger))
    figures = ledger.text("figures", lambda: _text(figures_of(ledger.state)))
    anew = ledger.text("anew", lambda: _all_anew(ledger))
    return f'{_text(shell)[:-1]},"plan":{plan},"log":{log},"figures":{figures},"anew":{anew}}}'
