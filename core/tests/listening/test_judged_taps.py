"""The listener judged by a simulator that shares nothing with it (`benchmarks/judging_taps.py`): refusals count as misses.

All of it plain or troubled but readable; tunings common practice from memory. Bounds are those of what was reached, with room for another library.
"""

from __future__ import annotations

from dataclasses import replace
from functools import cache

import numpy as np
import pytest

from benchmarks.judging_taps import Judged, make_tap
from drumwork.listening import Other, Status, TapContext, listen_to_tap, usual_edge_hz
from drumwork.listening.hum import without_hum
from drumwork.quantities import Length

GROSS = 50.0


def misses(taps: list[Judged], known: str) -> tuple[float, float, int]:
    """Share refused or off by more than half a semitone; the 95th of what was read, in cents; how many were refused."""
    errors, refused = [], 0
    for tap in taps:
        width = Length.from_inches(tap.inches)
        centre = tap.centre_hz if "centre" in known else None
        if "expected" in known:
            context = TapContext(expect_hz=tap.told_hz, centre_hz=centre, diameter=width)
        else:
            context = TapContext(diameter=width, usual_hz=usual_edge_hz(width, tap.kind), centre_hz=centre)
        if "drum" in known:
            other, depth = Other.HELD if tap.held else Other.RINGS, Length(tap.depth_m)
            context = replace(context, other=other, depth=depth, film_kg_per_m2=tap.film_kg_per_m2)
        reading = listen_to_tap(tap.samples, tap.rate, context)
        refused += reading.status is Status.REFUSE
        errors.append(tap.error_cents(reading.hz) if reading.hz else 9999.0)
    found = np.array(errors)
    return float((found > GROSS).mean()), float(np.percentile(found[found < 9999], 95)), refused


@cache
def of_plain(known: str) -> tuple[float, float, int]:
    """`misses` of a hundred plain taps, heard once for all tests here."""
    return misses(plain(), known)


@cache
def plain() -> list[Judged]:
    return [make_tap(seed) for seed in range(200, 300)]


def test_no_plain_tap_is_refused_and_the_pair_is_read() -> None:
    """Before, one in eight was refused: a beating pair, loudest late, was taken for speech."""
    gross, most, refused = of_plain("expected")
    assert refused <= 1
    assert gross <= 0.03
    assert most < 15


def test_with_only_the_drums_size_known_the_right_partial_is_read() -> None:
    size, _, _ = of_plain("size")
    assert size <= 0.08


def test_a_centre_note_never_makes_a_reading_worse() -> None:
    """Before, it did: it was held against one fixed ratio."""
    assert of_plain("size, centre")[0] <= of_plain("size")[0]
    assert of_plain("expected, centre")[0] <= of_plain("expected")[0]


def test_the_drum_round_the_head_never_makes_a_reading_worse() -> None:
    """Its depth, its film, how the other head is kept; one drum in three is not as they say."""
    assert of_plain("size, drum")[0] <= of_plain("size")[0]
    assert of_plain("expected, drum")[0] <= of_plain("expected")[0]


@pytest.mark.parametrize(("trouble", "share"), [("bounce", 0.10), ("clipped", 0.06), ("hum", 0.15)])
def test_what_is_troubled_but_readable_is_read(trouble: str, share: float) -> None:
    """Before, 43, 37 and 90 per cent were missed."""
    gross, _, _ = misses([make_tap(seed, trouble) for seed in range(50)], "expected")
    assert gross <= share


class TestHum:
    rate = 4800.0

    def hum(self, hz: float, seconds: float = 1.2) -> np.ndarray:
        t = np.arange(int(seconds * self.rate)) / self.rate
        return sum(0.1 / k * np.sin(2 * np.pi * hz * k * t + k) for k in (1, 2, 3))  # type: ignore[return-value]

    @pytest.mark.parametrize("hz", [50.0, 60.0, 50.03])
    def test_mains_are_taken_out(self, hz: float) -> None:
        sound = self.hum(hz)
        left = without_hum(sound, self.rate, int(0.4 * self.rate))
        assert 20 * np.log10(np.abs(left[300:-300]).max() / np.abs(sound).max()) < -15

    @pytest.mark.parametrize("hz", [44.0, 71.0, 110.0])
    def test_what_is_no_mains_stays(self, hz: float) -> None:
        sound = self.hum(hz)
        assert without_hum(sound, self.rate, int(0.4 * self.rate)) is sound

    def test_where_the_lead_is_short_the_end_is_looked_at(self) -> None:
        """Before, a tap within a tenth of a second of the start was refused: hum hid its stroke."""
        sound = self.hum(50.0)
        left = without_hum(sound, self.rate, int(0.05 * self.rate))
        assert 20 * np.log10(np.abs(left[300:-300]).max() / np.abs(sound).max()) < -15

    def test_a_drum_that_rings_on_at_the_mains_pitch_stays(self) -> None:
        t = np.arange(int(1.2 * self.rate)) / self.rate
        ring = np.where(t > 0.05, np.exp(-2 * (t - 0.05)) * np.sin(2 * np.pi * 60 * t), 0.0)
        assert without_hum(ring, self.rate, int(0.05 * self.rate)) is ring

    def test_without_a_look_beforehand_nothing_is_taken_out(self) -> None:
        sound = self.hum(50.0)
        assert without_hum(sound, self.rate, int(0.02 * self.rate)) is sound
