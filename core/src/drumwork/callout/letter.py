"""The note to the owner of a kit (N12): kind and precise, per drum what is broken, what was done, what is lent and what should be bought.

All its words that do not come from the log stand in a form the phone has from the start, so that it writes the same note without
network (web/src/tasks/callout/log/letter.ts); golden cases hold the two together.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import Final

from drumwork.callout.cures import head_named
from drumwork.callout.fold import Standing
from drumwork.callout.steps import Book, BookDrum, Step
from drumwork.drums import Side
from drumwork.findings import FINDINGS, Follow

__all__ = ["DrumNote", "Letter", "LetterForm", "TickNoted", "letter_form", "letter_of", "open_keys", "words_of"]


@dataclass(frozen=True, slots=True)
class DrumNote:
    """One drum: sentences of what is wrong, what was done, what is lent; `buy` with a price to be filled in."""

    tag: str
    name: str
    broken: tuple[str, ...]
    done: tuple[str, ...]
    lent: tuple[str, ...]
    buy: tuple[str, ...]
    words: str = ""

    @property
    def silent(self) -> bool:
        return not (self.broken or self.done or self.lent or self.buy or self.words)


@dataclass(frozen=True, slots=True)
class Letter:
    """The whole note; `words` a person's own to the owner, `text` all of it to send."""

    subject: str
    opening: tuple[str, ...]
    drums: tuple[DrumNote, ...]
    words: str
    fine: tuple[str, ...]
    closing: tuple[str, ...]
    signed: str
    text: str


@dataclass(frozen=True, slots=True)
class TickNoted:
    """How the note says one tick of the walk: `words` without a rod, `at_rod` with ROD in the place of its number.

    `buys` is what would put it right, "" for nothing; it `counts` where two of it are two parts.
    """

    drum: str
    finding: str
    side: str
    words: str
    at_rod: str
    buys: str
    counts: bool


@dataclass(frozen=True, slots=True)
class LetterForm:
    """Every word of a note that does not come from the call-out's log; DAY stands for the day of the show."""

    subject: str
    opening: str
    found: str
    nothing: str
    prices: str
    lent: str
    makers: str
    signed: str
    ticks: tuple[TickNoted, ...]


DAY: Final = "{day}"
ROD: Final = "{rod}"
_TUNED = ("pitch-lost", "dull")
"""Heads that are heard to be off; whether they want replacing is not known before they were brought even."""
_PLAIN = {"dents": "cratered", "split": "torn or holed", "pitch-lost": "out of tune", "dull": "dull"}


def words_of(key: str, drum: BookDrum) -> str:
    """'rod missing at rod 3 of the bottom head'."""
    _, finding, side, rod = key.split("|")
    words = _PLAIN.get(finding, FINDINGS[finding].words)
    if rod and side and drum.kind:
        return f"{words} at {rod} on the {head_named(drum.kind, Side(side))}"
    if side and drum.kind:
        return (
            f"{head_named(drum.kind, Side(side))} {words}"
            if finding in _PLAIN
            else f"{head_named(drum.kind, Side(side))}: {words}"
        )
    return words


def open_keys(book: Book, stands: Standing) -> dict[str, bool]:
    """What is still owed, by key, and whether a stop-gap holds it for tonight. What was put right for good is not in it."""
    done = [step for step in book.steps if step.id in stands.done]
    held = {key for step in done if step.stop_gap for key in step.mends}
    mended = {key for step in done if not step.stop_gap for key in step.mends}
    return {key: key in held for key in stands.ticks if key not in mended}


def _noted(drum: BookDrum, finding: str, side: str) -> TickNoted:
    row, key = FINDINGS[finding], f"{drum.tag}|{finding}|{side}|"
    buys = ""
    if row.part:
        buys = f"{row.part} {drum.thread}".strip() if row.part == "tension rod" else row.part
    elif row.follow is Follow.REPLACE and finding not in _TUNED and side and drum.kind:
        buys = f"head {drum.size}, {head_named(drum.kind, Side(side))}"
    return TickNoted(drum.tag, finding, side, words_of(key, drum), words_of(f"{key}{ROD}", drum), buys, bool(row.part))


def letter_form(book: Book, kit: str, at: str, by: str, workshop: str) -> LetterForm:
    """What a note to the owner of this kit says, whatever is found: `at` the place or "", `by` who signs."""
    place = f" at {at}" if at else ""
    known = [(key.split("|")[0], key.split("|")[1], key.split("|")[2]) for key in book.known]
    ticks = {(drum.tag, each.finding, each.side) for drum in book.drums for each in drum.ticks} | set(known)
    drums = {drum.tag: drum for drum in book.drums}
    return LetterForm(
        subject=f"{kit}{place}, {DAY}",
        opening=f"we played {kit}{place} on {DAY}, and looked it over before the show. Thank you for having it there.",
        found="Drums that many people play wear; nothing below is anybody’s fault. Here is what we saw, what we did for the evening, and what would put it right for good.",
        nothing="Everything we struck sounded fine, and there is nothing to put right.",
        prices="Prices are left for your own dealer.",
        lent="What we lent stands in our book, and we ask for it back once the part is there.",
        makers="Makers’ instructions and a qualified repairer come before anything we say about shells, edges and stripped threads.",
        signed=f"{by}, {workshop}" if by else workshop,
        ticks=tuple(_noted(drums[tag], finding, side) for tag, finding, side in sorted(ticks) if tag in drums),
    )  # fmt: skip


_Ticks = Mapping[tuple[str, str, str], TickNoted]


def _said(key: str, ticks: _Ticks) -> str:
    tag, finding, side, rod = key.split("|")
    tick = ticks[tag, finding, side]
    return tick.at_rod.replace(ROD, rod) if rod else tick.words


def _buy(keys: Iterable[str], ticks: _Ticks) -> tuple[str, ...]:
    wanted = Counter[str]()
    for key in keys:
        tag, finding, side, _ = key.split("|")
        tick = ticks[tag, finding, side]
        if tick.buys:
            wanted[tick.buys] = wanted[tick.buys] + 1 if tick.counts else 1
    return tuple(f"{count} × {part}" if count > 1 else f"1 {part}" for part, count in wanted.items())


def _note(drum: BookDrum, ticks: _Ticks, book: Book, stands: Standing) -> DrumNote:
    owed = {key: held for key, held in open_keys(book, stands).items() if key.split("|")[0] == drum.tag}
    done = [step for step in book.steps if step.drum == drum.tag and step.id in stands.done]
    given = [
        step
        for step in book.steps
        if step.id in stands.done and step.gives is not None and step.gives.giver == drum.tag
    ]
    return DrumNote(
        drum.tag,
        drum.name,
        tuple(f"{_said(key, ticks)}{', held for tonight' if held else ''}" for key, held in owed.items()),
        tuple(dict.fromkeys(step.did for step in done if step.gives is None)),
        (*(step.did for step in done if step.gives), *(_gave(step, book) for step in given)),
        _buy(owed, ticks),
        stands.words.get(drum.tag, "") if drum.tag else "",
    )


def _gave(step: Step, book: Book) -> str:
    assert step.gives is not None
    taker = next((each.name for each in book.drums if each.tag == step.gives.taker), step.gives.taker)
    return f"its batter’s rod {step.gives.giver_rod} is in {taker} until there is another"


def letter_of(form: LetterForm, book: Book, stands: Standing, on: date) -> Letter:
    """The note as it stands now."""
    ticks = {(each.drum, each.finding, each.side): each for each in form.ticks}
    notes = [_note(drum, ticks, book, stands) for drum in book.drums]
    told = tuple(each for each in notes if not each.silent)
    day = f"{on.day} {on.strftime('%B')}"
    opening = (form.opening.replace(DAY, day), form.found if told else form.nothing)
    closing = (
        *([form.prices] if any(each.buy for each in told) else []),
        *([form.lent] if any(each.lent for each in told) else []),
        *([form.makers] if told else []),
    )
    fine = tuple(each.name for each in notes if each.silent and each.tag and each.tag in stands.looked)
    own = stands.words.get("", "").strip()
    letter = Letter(form.subject.replace(DAY, day), opening, told, own, fine, closing, form.signed, "")
    return replace(letter, text=_text(letter))


_HEADS = (("broken", "Wrong"), ("done", "Done tonight"), ("lent", "Lent"), ("buy", "Worth buying"))


def _text(letter: Letter) -> str:
    lines = ["Hello,", "", *letter.opening, ""]
    for drum in letter.drums:
        lines.append(drum.name)
        for field, head in _HEADS:
            said: tuple[str, ...] = getattr(drum, field)
            price = " (price: ______)" if field == "buy" else ""
            lines += [f"  {head}: {each}{price}" for each in said]
        if drum.words:
            lines.append(f"  {drum.words}")
        lines.append("")
    if letter.words:
        lines += [letter.words, ""]
    if letter.fine:
        lines += [f"Fine: {', '.join(letter.fine)}.", ""]
    lines += [*letter.closing, "", "With kind regards", letter.signed]
    return "\n".join(lines)
