"""Named reads: the core's physics put to one drum, with what its own history taught."""

from __future__ import annotations

from datetime import datetime

from apps.bench.answers import expected_answer, learned_of
from apps.bench.models import KeptAnswer
from apps.heads.limits import fitted_head, fitted_name, usual_head
from apps.heads.models import Fitting
from apps.heads.settling import settling_of, settling_words
from apps.register.models import Drum
from apps.register.sides import SideOf
from apps.sound.schemas import SideSoundOut, SoundChoice, SoundOut, TwoHeadsOut, shape_film, shape_two
from apps.workshops.errors import Refused
from apps.workshops.models import Workshop
from drumwork.drums import Side
from drumwork.membrane import SOUNDS, Head, assess_target, plan_two_heads
from drumwork.quantities import Length, Pitch
from drumwork.quantities.intervals import parse_interval
from drumwork.rods.clearing import Learned

__all__ = ["sound_of", "two_heads_of"]
SIDES = ("batter", "resonant")
DAY_SECONDS = 86_400


def _head(drum: Drum, side: str) -> tuple[Head | None, bool]:
    """The fitted head, or what such a drum usually carries (then True)."""
    found = fitted_head(drum, side)
    return (found, False) if found else (usual_head(drum, side), True)


def _kept(drum: Drum, side: str) -> Learned | None:
    found = KeptAnswer.objects.filter(drum=drum, side=side, head=fitted_name(drum, side)).first()
    return learned_of(found) if found else None


def _answer_words(drum: Drum, side: str, head: Head, at: Pitch) -> str:
    expected = expected_answer(head, drum, _kept(drum, side))
    low, high = expected.hz_range(at)
    return (
        f"One turn of every rod moves it about {expected.hz_per_turn(at):.0f} Hz ({low:.0f} to {high:.0f}), "
        f"{expected.words}."
    )


def _settling_words(drum: Drum, side: str, head: Head | None, workshop: Workshop, now: datetime) -> str:
    fitted = Fitting.objects.filter(drum=drum, side=side, retired_at__isnull=True).first()
    wanted = SideOf(drum, Side(side)).wanted_hz
    if fitted is None or not wanted:
        return ""
    if fitted.since is None:
        return "How long it has been on is not known: nothing is expected of it."
    found, days = (
        settling_of(drum, side, head, fitted.fitted_at),
        (now - fitted.fitted_at).total_seconds() / DAY_SECONDS,
    )
    if days < workshop.check_after_days:
        return settling_words(found, Pitch(wanted), workshop.check_after_days, workshop.leave_above)
    further = found.drop_cents(days + 30) - found.drop_cents(days)
    if further < 1:
        return f"{days:.0f} days old: it has settled."
    return f"{days:.0f} days old: {further:.0f} cent{'s' if further >= 1.5 else ''} more in the coming month from settling alone."


def sound_of(drum: Drum, workshop: Workshop, now: datetime) -> SoundOut:
    """Both sides of one drum."""
    sides = []
    for side in SIDES:
        head, assumed = _head(drum, side)
        hz = SideOf(drum, Side(side)).wanted_hz
        wanted = Pitch(hz) if hz else None
        known = head is not None and wanted is not None
        sides.append(
            SideSoundOut(
                side=side,
                head=fitted_name(drum, side),
                assumed=assumed,
                film=shape_film(assess_target(head, wanted), workshop.a4_hz) if known else None,  # type: ignore[arg-type]
                answer=_answer_words(drum, side, head, wanted) if known else "",  # type: ignore[arg-type]
                settling=_settling_words(drum, side, head, workshop, now),
            )
        )
    return SoundOut(sides=sides, choices=[SoundChoice(id=s.id, heard=s.heard, how=s.how) for s in SOUNDS])


def two_heads_of(
    drum: Drum, workshop: Workshop, sound: str, fundamental: Pitch | None, batter: Pitch | None, interval: str = ""
) -> TwoHeadsOut:
    """A plan for both heads, by the sound wanted and a fundamental or a batter pitch."""
    chosen = next((each for each in SOUNDS if each.id == sound), None)
    if chosen is None:
        raise Refused("no_sound", f"There is no sound “{sound}”. Choose one of those shown.", 422)
    (one, guessed_one), (other, guessed_other) = (_head(drum, side) for side in SIDES)
    if one is None or other is None:
        raise Refused("no_film", "Mesh and skin heads have no film figures here; set them by ear and feel.", 422)
    found = plan_two_heads(
        (one, other),
        Length(drum.depth_m),
        chosen.relation,
        parse_interval(interval).cents if interval.strip() else chosen.cents,
        fundamental=fundamental.hz if fundamental else None,
        batter=batter,
    )
    guessed = [side for side, is_guess in zip(SIDES, (guessed_one, guessed_other), strict=True) if is_guess]
    assumed = f"The {' and '.join(guessed)} film is not on record; a usual one is taken." if guessed else ""
    films = assess_target(one, found.batter), assess_target(other, found.resonant)
    return shape_two(found, films, assumed, workshop.a4_hz)
