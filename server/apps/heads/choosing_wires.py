"""What wires go under a drum, and what strikes a bass drum: the core's answers, the wires matched with the shelf."""

from __future__ import annotations

from typing import Final, Literal

from django.db.models import Count
from ninja import Query, Router, Schema
from pydantic import Field

from apps.accounts.auth import Request
from apps.heads.choosing import Need, NotThis, Use, Word, spec_of
from apps.heads.models import HeadLine, Promise, StockItem, WireLine
from apps.heads.wires import WIRES, on_a_drum
from apps.register.lookup import drum_by_tag
from apps.register.models import Drum
from apps.register.schemas import length_words
from drumwork.choosing import (
    TIES,
    WIRE_SPECS,
    WireAnswer,
    WireExcluded,
    WireSpec,
    WiresWanted,
    choose_beater,
    choose_wires,
    judge_wires,
)
from drumwork.drums import DrumKind
from drumwork.quantities import Length
from drumwork.shelf import Sort

router = Router(tags=["heads"])

Tie = Literal["cord", "strap"]
assert Tie.__args__ == TIES  # type: ignore[attr-defined]
_MOST_OTHERS: Final = 6


class WiresIn(Schema):
    """What is asked of wires; `clamps` is what the strainer takes, empty where nobody knows."""

    use: Use = "drum-set"
    sound: list[Word] = Field(default=[], max_length=13)
    needs: list[Need] = Field(default=[], max_length=4)
    clamps: list[Tie] = Field(default=[], max_length=2)


class WiresLine(Schema):
    """A set on the shelf."""

    stock_item: int
    wires: str
    size: str
    free: int
    shelf: str


class WiresAnswer(Schema):
    words: str
    speaks_for: list[str]
    against: list[str]
    rules: list[str]
    lines: list[WiresLine]


class WiresChosen(Schema):
    now: str
    answers: list[WiresAnswer]
    others: list[WiresLine]
    excluded: list[NotThis]


class BeaterIn(Schema):
    sound: list[Word] = Field(default=[], max_length=13)


class BeaterOut(Schema):
    """A beater on the patch that suits it best."""

    words: str
    speaks_for: list[str]
    against: list[str]


class BeatersOut(Schema):
    now: str
    answers: list[BeaterOut]
    excluded: list[NotThis]


def _spec(line: WireLine, diameter_m: float | None = None) -> WireSpec:
    return WireSpec(line.strands, line.made, line.tie, Length(diameter_m).inches if diameter_m else None)


def _on_the_shelf(drum: Drum, unit: str) -> list[tuple[WireSpec, WiresLine]]:
    mine = set(Promise.objects.filter(drum=drum, side=WIRES).values_list("stock_item_id", flat=True))
    rows = StockItem.objects.filter(sort=Sort.WIRES, used=False).select_related("wires").annotate(promised=Count("promises"))  # fmt: skip
    return [
        (
            _spec(row.wires, row.width_m),
            WiresLine(
                stock_item=row.pk,
                wires=row.named,
                size=f"{length_words(row.width_m, unit)} {unit}",
                free=max(0, row.count - row.promised) + (row.pk in mine),
                shelf=row.shelf,
            ),
        )
        for row in rows
        if row.wires is not None
    ]


def _alike(one: WireSpec, other: WireSpec) -> bool:
    """How it is tied tells two sets apart only for a strainer that does not take both; that has been seen to before."""
    return one.made == other.made and abs(one.strands - other.strands) <= 2


def _answer(each: WireAnswer, lines: list[WiresLine]) -> WiresAnswer:
    return WiresAnswer(
        words=each.spec.words,
        speaks_for=list(each.speaks_for),
        against=list(each.speaks_against),
        rules=list(each.rules),
        lines=lines,
    )


def _excluded(told: list[tuple[str, WireExcluded]]) -> list[NotThis]:
    named: dict[str, list[str]] = {}
    rules = {each.because: each.rule for _, each in told}
    for words, each in told:
        named.setdefault(each.because, []).append(words)
    return [
        NotThis(words=", ".join(dict.fromkeys(words)), because=because, rule=rules[because])
        for because, words in named.items()
    ]


@router.get("/choose-wires/{tag}", response=WiresChosen, operation_id="choose_wires")
def choose_wires_for(request: Request, tag: str, body: Query[WiresIn]) -> WiresChosen:
    """Two or three sets for a drum, first as what they are, then as what lies on the shelf and goes under it."""
    drum = drum_by_tag(tag)
    asked = WiresWanted(
        DrumKind(drum.kind), Length(drum.diameter_m).inches, body.use, tuple(body.sound), tuple(body.needs), tuple(body.clamps)
    )  # fmt: skip
    shelf = _on_the_shelf(drum, request.member.workshop.length_unit)
    judged = [(line, judge_wires(asked, spec), spec) for spec, line in shelf]
    fits = [(spec, line) for line, found, spec in judged if isinstance(found, WireAnswer)]
    found = choose_wires(asked, WIRE_SPECS)
    answers = [_answer(each, [line for spec, line in fits if _alike(spec, each.spec)]) for each in found.answers]
    listed = {line.stock_item for each in answers for line in each.lines}
    wrong = [(f"{line.wires}, {line.size}", each) for line, each, _ in judged if isinstance(each, WireExcluded)]
    return WiresChosen(
        now=on_a_drum(drum, WIRES),
        answers=answers,
        others=[line for _, line in fits if line.stock_item not in listed][:_MOST_OTHERS],
        excluded=_excluded([*wrong, *((each.spec.words, each) for each in found.excluded)]),
    )


def _struck(drum: Drum) -> HeadLine | None:
    return HeadLine.objects.filter(name=on_a_drum(drum, "batter")).first()


@router.get("/choose-beater/{tag}", response=BeatersOut, operation_id="choose_beater")
def choose_beater_for(request: Request, tag: str, body: Query[BeaterIn]) -> BeatersOut:
    """What strikes this bass drum, and on what it lands."""
    drum = drum_by_tag(tag)
    line = _struck(drum)
    answers, out = choose_beater(DrumKind(drum.kind), tuple(body.sound), spec_of(line) if line else None)
    return BeatersOut(
        now=line.name if line else "",
        answers=[
            BeaterOut(
                words=f"{each.beater.words}, {each.patch.words}",
                speaks_for=list(each.speaks_for),
                against=list(each.speaks_against),
            )
            for each in answers
        ],
        excluded=[NotThis(words=words, because=because, rule="§10") for words, because in out],
    )
