"""The demo's simulated drum of a job: its films, shell and other head from the register, its rods turned by what the job recorded."""

from __future__ import annotations

import zlib

from django.utils import timezone

from apps.bench.ledger import Ledger
from apps.bench.models import Job
from apps.heads.limits import USUAL_MIL, fitted_head, head_of, usual_head
from apps.heads.models import Fitting
from apps.register.models import Drum
from apps.sound.selectors import film_kind
from drumwork.membrane import Film, Head
from drumwork.quantities import Length
from drumwork.simulated import Shell, SimulatedDrum

__all__ = ["simulated_drum"]

SHARP = 0.985  # it begins a little below what is wanted of it
USUAL_HZ = 190.0
DAY_SECONDS = 86_400


def _head(drum: Drum, side: str) -> Head:
    """As fitted, else as usual; a plain one where the core knows nothing of the film."""
    rods = max(3, getattr(drum, f"rods_{side}"))
    plain = Head(Film.from_mil(USUAL_MIL), Length(drum.diameter_m), rods)
    return fitted_head(drum, side) or usual_head(drum, side) or plain


def _seed(job: Job) -> int:
    """The same for the same head on its first, second, … job, so that anyone's practice can be done over."""
    before = Job.objects.filter(drum=job.drum, side=job.side, opened_at__lt=job.opened_at).count()
    return zlib.crc32(f"{job.drum.tag} {job.side} {before}".encode())


def simulated_drum(ledger: Ledger, other_muted: bool) -> SimulatedDrum:
    """As it stands now: turned, and settled since the head was fitted."""
    job, state = ledger.job, ledger.state
    drum, opposite = job.drum, "resonant" if job.side == "batter" else "batter"
    wanted = (state.target.value.hz if state.target and state.target.value else None) or USUAL_HZ
    fresh = head_of(job.stock_item, state.plan.job.layout.count) if job.stock_item else None
    head = fresh or _head(drum, job.side)
    fitted = None if fresh else Fitting.objects.filter(drum=drum, side=job.side, retired_at__isnull=True).first()
    shell = Shell(
        depth_m=drum.depth_m,
        film_kg_per_m2=head.film.density_kg_per_m2,
        other_kg_per_m2=_head(drum, opposite).film.density_kg_per_m2,
        other_hz=getattr(drum, f"wanted_{opposite}_hz"),
        other_muted=other_muted,
    )
    made = SimulatedDrum(
        state.plan.job.layout,
        SHARP * wanted,
        drum.diameter_m / 2,
        seed=_seed(job),
        shell=shell,
        film=film_kind(head),
        days=max(0.0, (job.opened_at - fitted.fitted_at).total_seconds() / DAY_SECONDS) if fitted else 0.0,
    )
    made.rest(max(0.0, (timezone.now() - job.opened_at).total_seconds() / DAY_SECONDS))
    for lap in state.laps.get("clear", []):
        made.turn({rod: mark.value for rod, mark in lap.turned.items() if mark.value is not None})
    return made
