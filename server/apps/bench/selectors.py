"""Named reads of bench jobs, of the work that suits a drum, and of what was found on it."""

from __future__ import annotations

from uuid import UUID

from apps.bench.answers import film_in_hand, target_words
from apps.bench.ledger import Ledger, look_at, with_heads
from apps.bench.models import PARTS, DrumFinding, Job
from apps.bench.schemas import BenchShell, CanBeFound, ChoiceLeft, OfferOut, SchoolLeftOut, StandingFinding
from apps.bench.shapes import Said, shape_bench, write_bench
from apps.heads.settling import settling_of, settling_words
from apps.register.models import Drum
from apps.register.sides import facts_of
from drumwork.drums import DrumKind, Side
from drumwork.findings import Follow, Place, finding, findings_for
from drumwork.inspecting import takes_new_wires
from drumwork.inspecting.spots import Spot, spot_words
from drumwork.membrane import Head
from drumwork.procedures.catalogue import offers_for, work_named
from drumwork.work.fold import begin
from drumwork.work.making import make_plan
from drumwork.work.otherwise import Changes, SchoolLeft, schools_left
from drumwork.work.plan import Part
from drumwork.work.ways import FirstHead, Ways

__all__ = [
    "bench_of",
    "can_be_found",
    "job_by_id",
    "last_seq_of",
    "offers_of",
    "schools_of_job",
    "schools_of_work",
    "standing_findings",
    "written_bench",
]


def last_seq_of(job_id: UUID) -> int:
    """The job's last entry number, or Job.DoesNotExist."""
    return int(Job.objects.values_list("last_seq", flat=True).get(pk=job_id))


def job_by_id(job_id: UUID) -> Job:
    return Job.objects.defer("plan").select_related("workshop", "drum").prefetch_related(with_heads()).get(pk=job_id)


def _settling(ledger: Ledger, side: Side, head: Head | None) -> str:
    """For a new head: what it will have done by its check."""
    job, wanted = ledger.job, ledger.state.target(side)
    if not ledger.plan.changes_heads or wanted is None:
        return ""
    found = settling_of(job.drum, side.value, head, None)
    return settling_words(found, wanted, job.workshop.check_after_days, job.workshop.leave_above)


def bench_of(job: Job) -> BenchShell:
    """What a job is about and how it stands, without its plan and its log."""
    return _shell(look_at(job))


def _shell(ledger: Ledger) -> BenchShell:
    job = ledger.job
    films = {side: film_in_hand(job, ledger.state, side) for side in ledger.plan.sides}
    said = {
        side: Said(target_words(job, ledger.state, side, head), _settling(ledger, side, head))
        for side, head in films.items()
    }
    return shape_bench(job, job.drum, ledger, said)


def written_bench(job: Job) -> str:
    """The whole bench view of one job, a `BenchOut` as JSON."""
    ledger = look_at(job)
    return write_bench(_shell(ledger), ledger)


def offers_of(drum: Drum) -> list[OfferOut]:
    """The catalogue for this drum. A job in hand on any of the same part is in the way."""
    open_jobs = list(Job.objects.filter(drum=drum, state="open").values_list("id", "part"))
    retired = drum.state == Drum.State.RETIRED

    def in_hand(part: str) -> str | None:
        low, high = PARTS[part]
        return next((str(key) for key, other in open_jobs if PARTS[other][0] < high and low < PARTS[other][1]), None)

    facts = facts_of(drum)
    return [
        OfferOut(
            work=offer.work.id,
            title=offer.title,
            words=offer.words,
            part=offer.part,
            changes_heads=offer.work.changes_heads,
            mesh=offer.work.mesh,
            new_wires=takes_new_wires(offer.work.id, offer.part),
            answers_checks=offer.work.answers_checks,
            sides=list(offer.part.sides),
            usual_first=FirstHead.USUAL.on(facts.traits) if len(offer.part.sides) > 1 else None,
            minutes=offer.work.minutes,
            why_not=offer.why_not or ("This drum is retired." if retired else ""),
            in_hand=in_hand(offer.part.value),
        )
        for offer in offers_for(facts)
    ]


def _why_not(changes: Changes) -> str:
    return changes.too_late or ("" if changes.any else "No different on this drum.")


def _school(left: SchoolLeft) -> SchoolLeftOut:
    choices = []
    for choice in left.school.choices:
        changes = left.changes.get(choice.value)
        choices.append(
            ChoiceLeft(
                value=choice.value,
                words=choice.words,
                speaks_for=choice.speaks_for,
                against=choice.against,
                adds=list(changes.adds) if changes else [],
                leaves_out=list(changes.leaves_out) if changes else [],
                alters=list(changes.alters) if changes else [],
                fetch=list(changes.fetch) if changes else [],
                why_not=_why_not(changes) if changes else "",
            )
        )
    school = left.school
    return SchoolLeftOut(number=school.number, way=school.way, question=school.question, now=left.now, choices=choices)


def schools_of_job(job: Job) -> list[SchoolLeftOut]:
    """The schools by which what is left of a job would go differently."""
    ledger = look_at(job)
    if job.closed_at or ledger.state.closed:
        return []
    return [_school(each) for each in schools_left(ledger.state, work_named(ledger.plan.work))]


def schools_of_work(drum: Drum, work: str, part: Part, ways: Ways) -> list[SchoolLeftOut]:
    """The schools by which such a job on this drum would go differently; UnknownWork where it does not suit."""
    procedure = work_named(work)
    plan = make_plan(procedure, part, facts_of(drum), ways)
    return [_school(each) for each in schools_left(begin(plan), procedure)]


def can_be_found(kind: DrumKind) -> list[CanBeFound]:
    """The vocabulary for a kind of drum."""
    return [
        CanBeFound(
            id=each.id,
            where=each.where,
            words=each.words,
            answer=each.answer,
            follow=each.follow,
            part=each.part,
            degrees=each.degrees,
        )
        for each in findings_for(kind)
    ]


def _where(drum: Drum, row: DrumFinding) -> str:
    """Side, rod, or the spot on the head as it is said."""
    side = Side(row.side) if row.side else None
    layouts = facts_of(drum).layouts
    spot = spot_words(Spot(**row.spot), layouts.get(side), drum.badge == Drum.Badge.AT_ROD) if row.spot and side else ""
    return ", ".join(each for each in (Place(row.side, row.rod).words(), spot) if each)


def standing_findings(drum: Drum) -> list[StandingFinding]:
    """What was found on this drum and is not put right."""
    rows = DrumFinding.objects.filter(drum=drum, put_right_at__isnull=True)
    return [
        StandingFinding(
            id=row.pk,
            finding=row.finding,
            words=finding(row.finding).words,
            place=_where(drum, row),
            degree=row.degree,
            note=row.note,
            owed=Follow(row.owed),
            answer=finding(row.finding).answer,
            found_at=row.found_at,
            by=row.by_name,
            job_id=str(row.job_id) if row.job_id else None,
        )
        for row in rows
    ]
