"""Hear taps for a job: from the microphone, from a recording, from the demo's simulated drum."""

from __future__ import annotations

import uuid
from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from apps.bench.ledger import Ledger, look_at, with_heads
from apps.bench.models import Job
from apps.heads.limits import fitted_head, usual_head
from apps.hearing.keeping import keep_tap
from apps.hearing.schemas import HeardFileOut, HeardOut, Place, RodHeardOut, shape_heard
from apps.hearing.stand_in import fresh_head, simulated_drum
from apps.register.sides import SideOf
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.commands.sound_files import from_pcm
from drumwork.drums import Side, traits_of
from drumwork.listening import (
    HeardRod,
    Other,
    TapContext,
    TapReading,
    Where,
    listen_to_tap,
    merge_taps,
    split_taps,
    spot_order,
    usual_edge_hz,
)
from drumwork.quantities import Interval, Length
from drumwork.work.state import BenchState

__all__ = ["hear_file", "hear_simulated", "hear_tap"]

SIMULATED_RATE = 44_100
ALIKE_CENTS = 90.0
FEWEST_TO_ALIGN = 4


def _open_job(job_id: uuid.UUID) -> Job:
    job = Job.objects.select_related("workshop", "drum").prefetch_related(with_heads()).get(pk=job_id)
    if job.state != Job.State.OPEN:
        raise Refused(
            "closed", "This job is closed; nothing more is heard on it. Start a check to read the head again."
        )
    return job


def _ledger(job: Job, place: Place, rods: Sequence[int] = ()) -> Ledger:
    """The job as it stands, where there is such a place on it."""
    ledger = look_at(job)
    if place.step not in ledger.state.clearings():
        raise Refused("no_step", "Nothing is read at that step of this job. Reload the page.", 422)
    there = set(ledger.state.layout(ledger.plan.side_of(place.step)).all_rods)
    wanted = {*rods, *([place.rod] if place.rod else [])}
    if strange := sorted(wanted - there):
        raise Refused("no_rod", f"There is no rod {strange[0]} on this head.", 422)
    return ledger


def _read_last(state: BenchState, side: Side) -> float | None:
    """The middle of what was read last, once two rods were."""
    for lap in reversed(state.rounds(side)):
        heard = sorted(mark.value.hz for mark in lap.readings.values())
        if len(heard) >= 2:
            return float(heard[len(heard) // 2])
    return None


def _centre(state: BenchState, side: Side) -> float | None:
    laps = [lap for step in state.clearings(side) for lap in state.laps[step]]
    return next((lap.centre.value.hz for lap in reversed(laps) if lap.centre), None)


def _other(of: SideOf, state: BenchState, expected: float | None, read: bool) -> float | None:
    """The other head's pitch: as read on this job, else as wanted. What is wanted of this head may be far from what is: until it has been
    read, only an other one wanted alike is told of, which cannot be taken for this one."""
    other = _read_last(state, of.other.side) or of.other.wanted_hz
    if other is None or expected is None:
        return None
    return other if read or abs(Interval.from_ratio(other / expected).cents) < ALIKE_CENTS else None


def _kept(of: SideOf, place: Place) -> Other:
    """How the other head is kept while this one is tapped."""
    if not of.other.rods:
        return Other.NONE
    return Other.HELD if place.other_muted else Other.RINGS


def _film(ledger: Ledger, of: SideOf) -> float | None:
    """Weight of the head in hand: as this job fits it, as fitted, else as such drums usually carry."""
    head = fresh_head(ledger, of.side) or fitted_head(of.drum, of.side.value) or usual_head(of.drum, of.side.value)
    return head.film.density_kg_per_m2 if head else None


def _context(ledger: Ledger, place: Place) -> TapContext:
    """What is known of the next tap: what was read last, else what is wanted, else what this drum usually is."""
    state, job = ledger.state, ledger.job
    of = SideOf(job.drum, ledger.plan.side_of(place.step))
    size, centre = Length(job.drum.diameter_m), _centre(state, of.side)
    read, wanted = _read_last(state, of.side), state.target(of.side)
    expected = read or (wanted.hz if wanted else of.wanted_hz)
    known = TapContext(
        centre_hz=centre,
        diameter=size,
        other_hz=_other(of, state, expected, read is not None),
        other=_kept(of, place),
        depth=Length(job.drum.depth_m),
        film_kg_per_m2=_film(ledger, of),
    )
    if place.rod is None:
        return replace(known, at=Where.CENTRE, pair_hz=expected)
    return replace(
        known,
        expect_hz=expected,
        usual_hz=usual_edge_hz(size, traits_of(job.drum.kind).family),
    )


def hear_tap(job_id: uuid.UUID, pcm: bytes, rate: int, place: Place, member: Membership) -> HeardOut:
    """One tap as 16-bit samples of one channel."""
    samples = from_pcm(pcm)
    job = _open_job(job_id)
    found = listen_to_tap(samples, rate, _context(_ledger(job, place), place))
    return shape_heard(keep_tap(job, place, member, found, samples, rate), found)


def hear_file(
    job_id: uuid.UUID, samples: NDArray[np.floating], rate: int, first: Place, rods: Sequence[int], member: Membership
) -> HeardFileOut:
    """Every tap of a recording, and which of the rods still to be read each belongs to; `first` is the place of the first of them."""
    job = _open_job(job_id)
    ledger = _ledger(job, first, rods)
    context = _context(ledger, first)
    cuts = split_taps(samples, rate)
    read = [listen_to_tap(cut.samples, rate, context) for cut in cuts]
    if not read:
        raise Refused("no_taps", "No tap was heard in this recording. Tap once at each rod, a second apart.", 422)
    assigned, words = _align(ledger, first, [each for each in read if each.hz], rods)
    taps, by_rod, given = [], dict[int, list[HeardOut]](), iter(assigned)
    for cut, each in zip(cuts, read, strict=True):
        rod = next(given, None) if each.hz else None
        taps.append(shape_heard(keep_tap(job, first._replace(rod=rod), member, each, cut.samples, rate), each))
        if rod is not None:
            by_rod.setdefault(rod, []).append(taps[-1])
    readings = [RodHeardOut(rod=rod, heard=_merged(of_rod)) for rod, of_rod in by_rod.items()]
    return HeardFileOut(taps=taps, readings=readings, words=words)


def _merged(taps: Sequence[HeardOut]) -> HeardOut:
    """Several taps of one rod read as one: their median, shown by the tap that lies nearest to it."""
    middle = merge_taps([tap.hz or 0.0 for tap in taps])
    nearest = min(taps, key=lambda tap: abs((tap.hz or 0.0) - middle))
    doubtful = 2 * sum(tap.status == "flag" for tap in taps) > len(taps)
    return nearest.model_copy(update={"hz": middle, "typed": f"{middle:.2f}{'?' if doubtful else ''}"})


def _align(ledger: Ledger, place: Place, heard: Sequence[TapReading], rods: Sequence[int]) -> tuple[list[int], str]:
    """Which rod each tap belongs to, in the order asked for; where there are too few taps to tell, one after the other."""
    if len(heard) < FEWEST_TO_ALIGN or len(rods) < FEWEST_TO_ALIGN:
        return list(rods[: len(heard)]), ""
    told = [HeardRod.of(each.hz or 0.0, each.partials) for each in heard]
    found = spot_order(ledger.state.layout(ledger.plan.side_of(place.step)), rods, told)
    return list(found.rods), found.words


def hear_simulated(job_id: uuid.UUID, place: Place, member: Membership) -> HeardOut:
    """Tap the simulated drum and hear it; in the demo’s workshop only: nothing invented comes into a real record."""
    if not member.workshop.demo:
        raise Refused("not_demo", "The simulated drum is in the demo’s workshop only. Tap the drum, or type what it reads.", 404)  # fmt: skip
    job = _open_job(job_id)
    ledger = _ledger(job, place)
    drum = simulated_drum(ledger, place)
    between = ledger.state.laps[place.step][place.lap].between if ledger.state.has_lap(place.step, place.lap) else ()
    seed = 1000 * place.lap + (place.rod or 0) + 37 * len(between)
    sound = drum.tap(place.rod, SIMULATED_RATE, seed) if place.rod else drum.tap_middle(SIMULATED_RATE, seed)
    found = listen_to_tap(sound, SIMULATED_RATE, _context(ledger, place))
    kept = keep_tap(job, place._replace(simulated=True), member, found, sound, SIMULATED_RATE)
    return shape_heard(kept, found)
