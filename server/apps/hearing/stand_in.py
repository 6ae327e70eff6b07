"""The demo's simulated drum of a job: its films, shell and other head from the register, its rods turned by what the job recorded."""

from __future__ import annotations

import zlib

from django.utils import timezone

from apps.bench.ledger import Ledger
from apps.bench.models import Job
from apps.heads.limits import USUAL_MIL, fitted_head, head_of, usual_head
from apps.heads.models import Fitting
from apps.heads.settling import film_kind
from apps.hearing.schemas import Place
from apps.register.sides import SideOf
from drumwork.drums import Side
from drumwork.membrane import Film, Head
from drumwork.quantities import Length, Turns
from drumwork.simulated import Shell, SimulatedDrum
from drumwork.work.plan import Part

__all__ = ["fresh_head", "simulated_drum"]

SHARP = 0.985  # it begins a little below what is wanted of it
USUAL_HZ = 190.0
DAY_SECONDS = 86_400


def _head(of: SideOf) -> Head:
    """As fitted, else as usual; a plain one where the core knows nothing of the film."""
    plain = Head(Film.from_mil(USUAL_MIL), Length(of.drum.diameter_m), max(3, of.rods))
    return fitted_head(of.drum, of.side.value) or usual_head(of.drum, of.side.value) or plain


def _seed(job: Job, side: Side) -> int:
    """The same for the same head on its first, second, … job, so that anyone's practice can be done over."""
    parts = [part.value for part in Part if side in part.sides]
    before = Job.objects.filter(drum=job.drum, part__in=parts, opened_at__lt=job.opened_at).count()
    return zlib.crc32(f"{job.drum.tag} {side} {before}".encode())


def fresh_head(ledger: Ledger, side: Side) -> Head | None:
    """The new head, where this job fits one from the shelf."""
    head = next((each for each in ledger.job.heads.all() if each.side == side), None)
    return head_of(head.stock_item, ledger.plan.drum.layouts[side].count) if head and head.stock_item else None


def simulated_drum(ledger: Ledger, place: Place) -> SimulatedDrum:
    """The head in hand as it stands now: turned, and settled since it was fitted."""
    job, state = ledger.job, ledger.state
    side = ledger.plan.side_of(place.step)
    of, target = SideOf(job.drum, side), state.target(side)
    wanted = target.hz if target else USUAL_HZ
    fresh = fresh_head(ledger, side)
    head = fresh or _head(of)
    fitted = None if fresh else Fitting.objects.filter(drum=job.drum, side=side.value, retired_at__isnull=True).first()
    shell = Shell(
        depth_m=job.drum.depth_m,
        film_kg_per_m2=head.film.density_kg_per_m2,
        other_kg_per_m2=_head(of.other).film.density_kg_per_m2,
        other_hz=of.other.wanted_hz,
        other_muted=place.other_muted,
    )
    made = SimulatedDrum(
        state.layout(side),
        SHARP * wanted,
        job.drum.diameter_m / 2,
        seed=_seed(job, side),
        shell=shell,
        film=film_kind(head),
        days=max(0.0, (job.opened_at - fitted.fitted_at).total_seconds() / DAY_SECONDS) if fitted else 0.0,
    )
    made.rest(max(0.0, (timezone.now() - job.opened_at).total_seconds() / DAY_SECONDS))
    for step in state.clearings(side):
        for lap in state.laps[step]:
            made.turn({rod: mark.value for rod, mark in lap.turned.items() if mark.value is not None})
    if place.rod and place.turns_32:
        made.turn({place.rod: Turns(place.turns_32)})
    return made
