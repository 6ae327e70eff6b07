"""What head goes on: the core's answers, matched with what lies on the shelf."""

from __future__ import annotations

from typing import Any, Final, Literal

from django.db.models import Count
from ninja import Query, Router, Schema
from pydantic import Field

from apps.accounts.auth import Request
from apps.heads.lives import Group, laws_of
from apps.heads.models import Fitting, HeadLine, Promise, StockItem
from apps.register.lookup import drum_by_tag
from apps.register.models import Drum
from apps.register.schemas import SAME_SIZE_M
from apps.workshops.models import Workshop
from drumwork.choosing import NEEDS, USES, WORDS, Answer, Excluded, Spec, Wanted, alike, choose, judge
from drumwork.choosing.specs import DAMPINGS, FINISHES
from drumwork.drums import DrumKind, Side, traits_of
from drumwork.quantities import Length
from drumwork.shelf import Sort

router = Router(tags=["heads"])

Use = Literal["drum-set", "concert", "marching", "recording", "practice", "school"]
Word = Literal[
    "open", "warm", "bright", "dark", "punchy", "dry", "articulate", "sensitive", "loud", "long", "short", "low", "high"
]  # fmt: skip
Need = Literal["brushes", "stage-light", "quiet", "lasting"]
assert (Use.__args__, Word.__args__, Need.__args__) == (USES, tuple(WORDS), NEEDS)  # type: ignore[attr-defined]


class ChooseIn(Schema):
    """What is asked of a head, in players' words."""

    use: Use = "drum-set"
    sound: list[Word] = Field(default=[], max_length=13)
    needs: list[Need] = Field(default=[], max_length=4)
    budget: Literal["any", "low"] = "any"
    months: int = Field(0, ge=0, le=120)
    """How long it must last; 0 where nobody says."""


class ShelfLine(Schema):
    """A head of this size on the shelf; `free` are those not promised to another drum. `lasts` says how long such heads last here, where some ended;
    `too_short` when that is less than was asked."""

    stock_item: int
    head: str
    free: int
    shelf: str
    lasts: str = ""
    too_short: bool = False


class HeadChange(Schema):
    """What changes against the head that is on; `computed` by physics, else said by rule."""

    what: str
    words: str
    computed: bool


class AnswerOut(Schema):
    words: str
    speaks_for: list[str]
    against: list[str]
    rules: list[str]
    changes: list[HeadChange]
    lines: list[ShelfLine]


class NotThis(Schema):
    """What must not go on, and why."""

    words: str
    because: str
    rule: str


class ChooseOut(Schema):
    now: str
    answers: list[AnswerOut]
    others: list[ShelfLine]
    excluded: list[NotThis]


def spec_of(line: HeadLine) -> Spec | None:
    """A line as a specification; None for what is no film and no mesh, such as skin."""
    mesh = line.finish == "mesh"
    finish = {"mesh": "clear", "smooth": "smooth-white"}.get(line.finish, line.finish)
    if finish not in FINISHES:
        return None
    damping = line.damping if line.damping in DAMPINGS else "none"
    return Spec(line.plies, None if mesh else line.film_mil, finish, damping, line.vent, mesh)


def wanted_for(drum: Drum, side: Side, asked: ChooseIn) -> Wanted:
    """The core's question for one side of a drum on record."""
    on = Fitting.objects.filter(drum=drum, side=side.value, retired_at__isnull=True).first()
    line = HeadLine.objects.filter(name=on.head).first() if on else None
    return Wanted(
        DrumKind(drum.kind),
        side,
        asked.use,
        Length(drum.diameter_m).inches,
        Length(drum.depth_m).inches,
        drum.rods_batter if side is Side.BATTER else drum.rods_resonant,
        drum.snare_bed,
        tuple(asked.sound),
        tuple(asked.needs),
        spec_of(line) if line else None,
        asked.budget,
    )


_PITCHES: Final = (
    ("pitch_cents", "pitch at the rods, at the same tension"),
    ("fundamental_cents", "the drum’s own note"),
)
_RULED: Final = ("brightness", "sustain", "stick_response", "life")


def _changes(told: dict[str, Any]) -> list[HeadChange]:
    made = []
    for key, what in _PITCHES:
        cents = told.get(key)
        if cents is not None:
            words = "the same" if abs(cents) < 3 else f"{abs(cents)} cents {'higher' if cents > 0 else 'lower'}"
            made.append(HeadChange(what=what, words=words, computed=True))
    for key in _RULED:
        if key in told:
            made.append(HeadChange(what=key.replace("_", " "), words=told[key], computed=False))
    return made


class _Shelf:
    """New heads of a drum's size on the shelf, each as a specification; used ones are for an emergency only (C10)."""

    def __init__(self, drum: Drum, side: Side, workshop: Workshop, months: int) -> None:
        self.laws, self.drum, self.side, self.months = laws_of(workshop), drum, side, months
        rows = (
            StockItem.objects.select_related("line")
            .annotate(promised=Count("promises"))
            .filter(
                sort=Sort.HEAD,
                used=False,
                diameter_m__range=(drum.diameter_m - SAME_SIZE_M, drum.diameter_m + SAME_SIZE_M),
            )
        )
        mine = set(Promise.objects.filter(drum=drum, side=side.value).values_list("stock_item_id", flat=True))
        self.rows = [
            (
                spec_of(row.head),
                ShelfLine(
                    stock_item=row.pk,
                    head=row.named,
                    free=max(0, row.count - row.promised) + (row.pk in mine),
                    shelf=row.shelf,
                    **self._lasting(row.named),
                ),
            )
            for row in rows
        ]

    def _lasting(self, head: str) -> dict[str, Any]:
        """How long such a head lasts here, by the workshop's own once some ended."""
        law = self.laws.get(Group(head, self.side.value, self.drum.kind))
        if law is None or not law.ended:
            return {}
        return {
            "lasts": f"lasts about {law.median:.0f} months here",
            "too_short": bool(self.months) and law.median < self.months,
        }

    def like(self, spec: Spec) -> list[ShelfLine]:
        return [line for of, line in self.rows if of is not None and alike(of, spec)]


def _answer(each: Answer, shelf: _Shelf) -> AnswerOut:
    return AnswerOut(
        words=each.spec.words,
        speaks_for=list(each.speaks_for),
        against=list(each.speaks_against),
        rules=list(each.rules),
        changes=_changes(each.changes),
        lines=shelf.like(each.spec),
    )


def _excluded(found: list[Excluded], shelf: _Shelf, asked: Wanted) -> list[NotThis]:
    """Reasons once each, with what they exclude; heads on the shelf by their own names."""
    lines = [(line.head, judge(asked, spec)) for spec, line in shelf.rows if spec is not None]
    named = [(head, each) for head, each in lines if isinstance(each, Excluded)]
    told: dict[str, list[str]] = {}
    rules: dict[str, str] = {}
    for words, each in (*named, *((one.spec.words, one) for one in found)):
        told.setdefault(each.because, []).append(words)
        rules[each.because] = each.rule
    return [
        NotThis(words=", ".join(dict.fromkeys(words[:6])), because=because, rule=rules[because])
        for because, words in told.items()
    ]


@router.get("/choose/{tag}/{side}", response=ChooseOut, operation_id="choose_head")
def choose_head(request: Request, tag: str, side: Side, body: Query[ChooseIn]) -> ChooseOut:
    """Two or three heads for one side of a drum, first as specifications, then as what lies on the shelf."""
    drum = drum_by_tag(tag)
    asked, shelf = wanted_for(drum, side, body), _Shelf(drum, side, request.member.workshop, body.months)
    if not traits_of(drum.kind).rods:
        return ChooseOut(now="", answers=[], others=[line for _, line in shelf.rows], excluded=[])
    found = choose(asked)
    answers = [_answer(each, shelf) for each in found.answers]
    listed = {line.stock_item for each in answers for line in each.lines}
    others = [
        line
        for spec, line in shelf.rows
        if line.stock_item not in listed and spec is not None and isinstance(judge(asked, spec), Answer)
    ]
    return ChooseOut(
        now=asked.now.words if asked.now else "",
        answers=answers,
        others=others,
        excluded=_excluded(list(found.excluded), shelf, asked),
    )
