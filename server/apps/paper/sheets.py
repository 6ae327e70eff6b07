"""The bench sheet of a job, the service card of a drum, and the note to the owner of a kit."""

from __future__ import annotations

from collections.abc import Mapping

from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, Spacer

from apps.bench.effects.answers import answer_words
from apps.bench.ledger import Ledger, look_at
from apps.bench.models import Job
from apps.drums.sheet_schemas import FittedOut, Sheet
from apps.heads.models import ShelfThing
from apps.paper.page import PaperSize, boxed, grid, heading, line, make_pdf, plain, title
from apps.register.schemas import size_words
from drumwork.callout import DrumNote, Letter
from drumwork.drums import traits_of
from drumwork.work.cautions import CAUTIONS
from drumwork.work.kinds.steps import Clear, Passes, Rest
from drumwork.work.plan import StepPlan

__all__ = ["bench_sheet", "owners_note", "service_card"]

ROUNDS = 3
"""Rounds of reading and turning there is room for."""
MOST_IN_A_ROW = 9
HISTORY = 12


def _passes(data: Passes) -> list[Flowable]:
    """A tally to tick: a row of boxes for each pass, in the order the rods go."""
    found: list[Flowable] = []
    for number, each in enumerate(data.passes, start=1):
        until = f", until {each.until}" if each.until else ""
        found.append(plain(f"Pass {number}: {each.each.words()} at each{until}", soft=True))
        for start in range(0, len(each.order), MOST_IN_A_ROW):
            rods = each.order[start : start + MOST_IN_A_ROW]
            found.append(grid([[f"{rod}" for rod in rods], [" " for _ in rods]], [16 * mm] * len(rods)))
    return found


def _ladder(ledger: Ledger, step: StepPlan) -> list[Flowable]:
    """Pair by pair, room for what each rod read and what it was turned, round after round."""
    layout = ledger.state.layout(ledger.plan.side_of(step.id))
    heads = ["rod", "faces", *(word for n in range(1, ROUNDS + 1) for word in (f"{n}: reads", f"{n}: turned"))]
    rows = [[f"{rod}", f"{layout.opposite(rod) or '-'}", *[" "] * 2 * ROUNDS] for rod in layout.rods]
    return [grid([heads, *rows], [12 * mm, 14 * mm, *[24 * mm] * 2 * ROUNDS])]


def _asked(ledger: Ledger, step: StepPlan) -> list[Flowable]:
    """What the step asks, with its answer or room for one; and what was answered before and counts here."""
    state, a4_hz = ledger.state, ledger.plan.ways.a4_hz
    questions = {each.name: each for one in ledger.plan.steps for each in one.asks}
    told = []
    for name in (*(each.name for each in step.asks), *step.recalls):
        question, mark = questions.get(name), state.answers.get(name)
        if question and mark:
            told.append(plain(f"{question.words}: {answer_words(question, mark.value, a4_hz)}"))
        elif question and question in step.asks:
            told.append(plain(f"{question.words}: ____________", soft=True))
    return told


def _step(ledger: Ledger, step: StepPlan, number: int, places: Mapping[str, str]) -> list[Flowable]:
    found = ledger.state.facts
    side = f", {step.side.value}" if step.side and len(ledger.plan.sides) > 1 else ""
    first: list[Flowable] = [
        heading(f"{number}. {step.title}{side}"),
        *(line(CAUTIONS[each]) for each in step.cautions),
        boxed(step.say),
    ]
    rest: list[Flowable] = [boxed(each) for each in step.said(found)]
    if tools := step.takes(found):
        named = (f"{tool} ({places[tool]})" if places.get(tool) else tool for tool in tools)
        rest.append(plain(f"To hand: {', '.join(named)}.", soft=True))
    rest += _asked(ledger, step)
    match step.data:
        case Passes():
            rest += _passes(step.data)
        case Clear():
            rest += _ladder(ledger, step)
        case Rest():
            rest.append(plain(f"{step.data.minutes} minutes, from ____ to ____", soft=True))
        case _:
            pass
    return [KeepTogether(first), *rest]


def bench_sheet(job: Job, address: str, size: PaperSize) -> bytes:
    """A job as paper, to tick by hand where no screen goes; its tag opens the job."""
    ledger, drum = look_at(job), job.drum
    plan = ledger.plan
    measure = size_words(drum.diameter_m, drum.depth_m, job.workshop.length_unit)
    heads = [f"{each.side}: {each.new_head or each.old_head or 'not on record'}" for each in job.heads.all()]
    head = [
        title(f"{drum.name}  {drum.tag}"),
        plain(f"{plan.title}. {traits_of(plan.drum.kind).words}, {measure}."),
        plain("; ".join(heads), soft=True),
        plain(
            f"Opened by {job.opened_by_name}, {job.opened_at:%d %B %Y}. Makers' instructions and house rules come first.",
            soft=True,
        ),
    ]
    places = {each.name: "none left" if each.short else each.place for each in ShelfThing.objects.all()}
    story: list[Flowable] = [Spacer(0, 3 * mm)]
    for number, step in enumerate(ledger.state.steps, start=1):
        story += _step(ledger, step, number, places)
    return make_pdf(story, head, address, size, f"{plan.title}, {drum.tag}")


def _side(side: FittedOut) -> str:
    head = side.head or "not on record"
    since = f", since {side.since:%d %B %Y}" if side.since else ""
    pitch = (
        f"; {side.mean_hz:.1f} Hz ({side.note}){f', spread {side.spread_hz:.1f}' if side.spread_hz is not None else ''}"
        if side.mean_hz
        else ""
    )
    wanted = f"; wanted {side.wanted_hz:.1f} Hz" if side.wanted_hz else ""
    due = f"; check due {side.check_due:%d %B}" if side.check_due else ""
    return f"{side.side.value}: {head}{since}{pitch}{wanted}{due}"


def service_card(sheet: Sheet, address: str, size: PaperSize) -> bytes:
    """What travels with a drum: what is on it, what is owed, what was done, and room to write on; its tag opens the drum's page."""
    facts = [sheet.kind_words, sheet.size, sheet.shell, sheet.hoops, sheet.thread]
    head = [
        title(f"{sheet.name}  {sheet.tag}"),
        plain(", ".join(each for each in facts if each)),
        plain(
            f"{sheet.owner}; kept at {sheet.place}" + (f"; {', '.join(sheet.kits)}" if sheet.kits else ""), soft=True
        ),
    ]
    story: list[Flowable] = [heading("On it now"), *(plain(_side(each)) for each in sheet.sides)]
    if sheet.wires:
        story.append(plain(f"wires: {sheet.wires.name}, since {sheet.wires.since:%d %B %Y}"))
    story += [plain(f"{each.name}: {each.words}") for each in sheet.kept]
    if sheet.findings:
        story += [
            heading("Found and not put right"),
            *(boxed(f"{each.words}, {each.place}" if each.place else each.words) for each in sheet.findings),
        ]
    story.append(heading("Done"))
    rows = [["when", "what", "who"]] + [[f"{each.at:%d %b %y}", each.text, each.by] for each in sheet.log[:HISTORY]]
    story += [
        grid(rows, [22 * mm, 118 * mm, 32 * mm]),
        heading("Written on the way"),
        grid([["when", "what", "who"], *[[" ", " ", " "] for _ in range(6)]], [22 * mm, 118 * mm, 32 * mm]),
    ]
    return make_pdf(story, head, address, size, f"Service card, {sheet.tag}")


def _noted(drum: DrumNote) -> list[Flowable]:
    """One drum of the note: what is wrong, what was done, what is lent; what to buy with room for its price."""
    lines = [("Wrong", drum.broken), ("Done tonight", drum.done), ("Lent", drum.lent)]
    found: list[Flowable] = [heading(drum.name)]
    found += [plain(f"{head}: {'; '.join(said)}.") for head, said in lines if said]
    if drum.words:
        found.append(plain(drum.words))
    if drum.buy:
        found.append(Spacer(1, 1.5 * mm))
        found.append(grid([["Worth buying", "Price"], *[[what, " "] for what in drum.buy]], [90 * mm, 40 * mm]))
    return [KeepTogether(found)]


def owners_note(letter: Letter, address: str, size: PaperSize) -> bytes:
    """The note to the owner, as it is sent."""
    story: list[Flowable] = [plain("Hello,"), *(plain(words) for words in letter.opening)]
    for drum in letter.drums:
        story += _noted(drum)
    if letter.words:
        story += [Spacer(1, 2 * mm), plain(letter.words)]
    if letter.fine:
        story.append(plain(f"Fine: {', '.join(letter.fine)}."))
    story += [Spacer(1, 3 * mm), *(plain(words) for words in letter.closing), Spacer(1, 3 * mm)]
    story += [plain("With kind regards"), plain(letter.signed)]
    return make_pdf(story, [title(letter.subject)], address, size, letter.subject)
