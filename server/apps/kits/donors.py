"""Which drum of the workshop gives a rod to one that lacks it, and which rod."""

from __future__ import annotations

from django.db.models import Q

from apps.kits.schemas import DonorOut, DonorsOut
from apps.kits.standing import Standing
from apps.register.models import Drum
from apps.register.sides import SideOf
from apps.workshops.models import Workshop
from drumwork.callout import Donor, Gap, gap_at, who_lends
from drumwork.drums import TRAITS, DrumKind, Side, traits_of
from drumwork.kits import Role
from drumwork.quantities import Pitch

__all__ = ["batter_of", "donors_for"]

LOOKED_AT = 60
"""Drums looked at in a large workshop: snares first, as their batters miss a rod least."""
SHOWN = 3
CLAWS = [kind.value for kind, traits in TRAITS.items() if traits.claws]
NO_FILM_ON_RODS = [kind.value for kind, traits in TRAITS.items() if not (traits.film and traits.rods)]


def _lug(standing: Standing, side: Side) -> Pitch | None:
    return standing.now[side] or SideOf(standing.drum, side).wanted


def batter_of(drum: Drum, workshop: Workshop, tonight: set[int]) -> Donor | None:
    """The batter of a drum that may give; None where nobody knows how it stands."""
    standing, side = Standing(drum, Role.BESIDE, workshop), Side.BATTER
    head, lug = standing.heads[side], _lug(standing, side)
    if head is None or lug is None or drum.rods_batter < 4:
        return None
    layout, cost = SideOf(drum, side).layout, standing.turns_a_cent(side)
    return Donor(
        drum.tag, head, layout, lug, drum.thread, drum.hoops, cost, drum.pk in tonight, kind=DrumKind(drum.kind)
    )


def _own(drum: Drum, side: Side, rod: int, workshop: Workshop) -> Gap | None:
    """What the head that lacks the rod is like without it."""
    standing = Standing(drum, Role.BESIDE, workshop)
    head, lug, of = standing.heads[side], _lug(standing, side), SideOf(drum, side)
    if head is None or lug is None or not 1 <= rod <= of.rods or of.rods - len(of.lost) < 4:
        return None
    return gap_at(head, of.layout, rod, lug, drum.hoops, standing.turns_a_cent(side))


def donors_for(drum: Drum, side: Side, rod: int, workshop: Workshop) -> DonorsOut:
    """Best first; drums of the same kits as this one are taken to play with it."""
    claws = traits_of(drum.kind).claws
    rows = Drum.objects.filter(state=Drum.State.IN).exclude(pk=drum.pk).exclude(kind__in=NO_FILM_ON_RODS)
    rows = rows.filter(kind__in=CLAWS) if claws else rows.exclude(kind__in=CLAWS)
    if drum.thread:
        rows = rows.filter(Q(thread=drum.thread) | Q(thread=""))
    near = rows.order_by("-snare_bed", "-rods_batter", "tag").prefetch_related("kits")[:LOOKED_AT]
    kits = {kit.pk for kit in drum.kits.all()}
    tonight = {each.pk for each in near if kits & {kit.pk for kit in each.kits.all()}}
    every = {each.tag: each for each in near}
    found = [donor for each in near if (donor := batter_of(each, workshop, tonight))]
    offers, refusals = who_lends(found, drum.thread)
    own = _own(drum, side, rod, workshop)
    return DonorsOut(
        need=f"Without rod {rod} its {side.value} {own.words}." if own else "",
        donors=[
            DonorOut(tag=each.donor, name=every[each.donor].name, rod=each.gap.rod, words=f"{each.why}; then both its neighbours {each.gap.extra.words()}")
            for each in offers[:SHOWN]
        ],
        refused=[f"{every[each.donor].name}: {each.why}" for each in refusals[:SHOWN]],
    )  # fmt: skip
