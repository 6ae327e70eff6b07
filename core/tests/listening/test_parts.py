"""The parts of listening, each against signals whose truth is written down beside them."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.errors import BadQuantity
from drumwork.listening.around import Other
from drumwork.listening.choose import choose_partial
from drumwork.listening.context import TapContext, Where, usual_edge_hz
from drumwork.listening.glide import follow_glide, unbend
from drumwork.listening.onset import find_ring, find_taps
from drumwork.listening.partials import Partial, find_partials
from drumwork.listening.prepare import prepare
from drumwork.quantities import Length
from drumwork.sources.bessel import BESSEL_ZEROS

RATE = 4_800.0


def ring_of(*partials: tuple[float, float, float], seconds: float = 1.0, sharp: float = 0.0) -> np.ndarray:
    """Sum of (hz, amplitude, decay 1/s); `sharp` is how far, as a ratio, it starts above and glides with the first one's energy."""
    t = np.arange(int(seconds * RATE)) / RATE
    first = partials[0][2]
    gone = t + sharp * (1 - np.exp(-2 * first * t)) / (2 * first)
    return sum(a * np.exp(-d * t) * np.sin(2 * np.pi * hz * gone + 0.7) for hz, a, d in partials)


class TestOnsets:
    """Where strokes are."""

    def with_lead(self, sound: np.ndarray, lead_s: float, room: float = 1e-4) -> np.ndarray:
        random = np.random.default_rng(0)
        whole = np.concatenate([np.zeros(int(lead_s * RATE)), sound])
        return whole + random.standard_normal(len(whole)) * room

    @given(st.floats(0.05, 0.8))
    @settings(max_examples=15)
    def test_the_stroke_is_found_to_within_two_frames(self, lead_s: float) -> None:
        ring = find_ring(self.with_lead(ring_of((200, 1.0, 6)), lead_s), RATE)
        assert ring is not None
        assert ring.onset_s == pytest.approx(lead_s, abs=0.012)

    def test_the_ring_ends_where_it_sinks_into_the_room(self) -> None:
        """Amplitude 1 at decay 6/s meets a room of 1e-3 after ln(1000)/6 = 1.15 s; the end is called a little sooner."""
        ring = find_ring(self.with_lead(ring_of((200, 1.0, 6), seconds=2.0), 0.2, room=1e-3), RATE)
        assert ring is not None
        assert 0.8 < ring.end_s - ring.onset_s < 1.2

    def test_taps_of_a_round_are_counted_and_placed(self) -> None:
        high = ring_of((200, 1.0, 7), (900, 0.8, 12), (1500, 0.5, 18), seconds=0.9)
        times = find_taps(self.with_lead(np.concatenate([high] * 5), 0.4), RATE)
        assert times == pytest.approx([0.4 + 0.9 * n for n in range(5)], abs=0.02)

    def test_nothing_is_no_tap(self) -> None:
        assert find_taps(np.zeros(40), RATE) == []
        assert find_ring(np.zeros(10), RATE) is None


class TestGlide:
    """A hard stroke undone."""

    @pytest.mark.parametrize("sharp", [0.0, 0.02, 0.08])
    def test_a_glide_is_told_from_when_the_click_is_over(self, sharp: float) -> None:
        """By then a fifth of the energy is gone at this decay (e^(-2·7·0.016))."""
        found = follow_glide(ring_of((150, 1.0, 7), sharp=sharp), RATE, [150.0 * (1 + sharp / 4)], 1.0)
        true = 1200 * np.log2(1 + sharp * np.exp(-2 * 7 * 0.016))
        assert found.cents == pytest.approx(true, rel=0.15, abs=7)

    def test_an_unbent_tap_stands_where_it_settles(self) -> None:
        bent = ring_of((150, 1.0, 7), sharp=0.06)
        soft = unbend(bent, follow_glide(bent, RATE, [152.0], 1.0))
        assert abs(1200 * np.log2(find_partials(soft, RATE, 1.0)[0].hz / 150)) < 1

    @pytest.mark.parametrize("apart", [1.5, 4.0])
    def test_a_beating_pair_is_not_taken_for_a_glide_nor_hides_one(self, apart: float) -> None:
        """Its phase wanders by itself; followed by that alone, the glide of 138 cents came out as 157 and 164."""
        for sharp in (0.0, 0.09):
            pair = ring_of((200, 1.0, 2.5), (200 + apart, 0.8, 2.6), (330, 0.5, 4.0), sharp=sharp)
            found = follow_glide(pair, RATE, [201.0, 331.0], 1.0)
            true = 1200 * np.log2(1 + sharp * np.exp(-2 * 2.5 * 0.016))
            assert found.cents == pytest.approx(true, abs=4)

    def test_a_soft_tap_is_left_as_it_is(self) -> None:
        soft = ring_of((150, 1.0, 7))
        assert unbend(soft, follow_glide(soft, RATE, [150.0], 1.0)) == pytest.approx(soft, abs=0.03)


class TestPartials:
    """Taken apart, against what was put together."""

    def test_frequency_level_and_decay_come_back(self) -> None:
        found = find_partials(ring_of((180, 1.0, 6), (320, 0.3, 9), (505, 0.3, 11)), RATE, 1.0)
        for hz, decay in ((180, 6), (320, 9), (505, 11)):
            near = min(found, key=lambda each: abs(each.hz - hz))
            assert near.hz == pytest.approx(hz, abs=0.08)
            assert near.decay_db_s == pytest.approx(8.686 * decay, rel=0.15)
        assert found[0].level_db == pytest.approx(0, abs=1e-6)

    @pytest.mark.parametrize("apart", [2.0, 3.5, 6.0])
    def test_two_close_together_are_two(self, apart: float) -> None:
        found = find_partials(ring_of((200, 1.0, 5), (200 + apart, 0.8, 5)), RATE, 1.0)
        for hz in (200, 200 + apart):
            assert min(abs(each.hz - hz) for each in found) < 0.15

    @pytest.mark.parametrize("seconds", [0.12, 0.14, 0.2])
    def test_a_short_ring_has_partials_too(self, seconds: float) -> None:
        found = find_partials(ring_of((200, 1.0, 20), seconds=seconds), RATE, seconds)
        assert found[0].hz == pytest.approx(200, abs=0.3)

    def test_a_faint_one_near_the_expected_is_looked_at_all_the_same(self) -> None:
        loud = [(300 + 90 * n, 1.0, 8.0) for n in range(8)]
        sound = ring_of(*loud, (200, 0.04, 6.0))
        assert min(abs(each.hz - 200) for each in find_partials(sound, RATE, 1.0, near_hz=204)) < 0.3


def family(edge: float, levels: dict[tuple[int, int], float], decay_db_s: float = 60.0) -> list[Partial]:
    """Partials of an ideal film (DLMF §10.21) whose (1,1) pair lies at `edge`."""
    return [
        Partial(edge * BESSEL_ZEROS[mode] / BESSEL_ZEROS[1, 1], level, decay_db_s, 0.01)
        for mode, level in levels.items()
    ]


class TestChoice:
    """Never simply the tallest."""

    loud_others = family(200, {(0, 1): -2, (1, 1): -9, (2, 1): 0, (0, 2): -4, (3, 1): -12})

    def test_the_expected_is_chosen_though_three_are_louder(self) -> None:
        found = choose_partial(self.loud_others, TapContext(expect_hz=212.0))
        assert (found.best.hz, found.there) == (pytest.approx(200), True)

    def test_the_family_and_the_size_are_enough(self) -> None:
        best = choose_partial(self.loud_others, TapContext(diameter=Length.from_inches(14))).best
        assert best.hz == pytest.approx(200)

    def test_the_note_of_the_middle_is_not_taken_for_a_rods(self) -> None:
        centre = 200 * BESSEL_ZEROS[0, 1] / BESSEL_ZEROS[1, 1]
        best = choose_partial(self.loud_others, TapContext(centre_hz=centre, diameter=Length.from_inches(14))).best
        assert best.hz == pytest.approx(200)

    def test_in_the_middle_the_drums_own_note_is_chosen(self) -> None:
        centre = 200 * BESSEL_ZEROS[0, 1] / BESSEL_ZEROS[1, 1]
        best = choose_partial(self.loud_others, TapContext(centre_hz=centre * 1.02, at=Where.CENTRE)).best
        assert best.hz == pytest.approx(centre)

    def test_in_the_middle_what_the_rods_read_and_how_the_other_head_is_kept_say_where_the_note_is(self) -> None:
        """A slack floor tom: held, its shut-in air lifts the note beside the pair; ringing, it lies far below. It used to be looked for at the pair over 1.7."""
        both = [Partial(47.0, -2.0, 60.0, 0.01), Partial(80.0, 0.0, 60.0, 0.01)]
        known = TapContext(
            at=Where.CENTRE,
            diameter=Length.from_inches(16),
            depth=Length.from_inches(15),
            pair_hz=78.0,
            film_kg_per_m2=0.35,
        )
        assert choose_partial(both, replace(known, other=Other.HELD)).best.hz == 80.0
        assert choose_partial(both, replace(known, other=Other.RINGS)).best.hz == 47.0

    def test_with_nothing_known_the_lower_of_equals_is_the_drums_own(self) -> None:
        best = choose_partial([Partial(240, 0, 60, 0.01), Partial(120, -1, 60, 0.01)], TapContext()).best
        assert best.hz == 120

    def test_what_lies_far_from_the_expected_is_said_to(self) -> None:
        assert not choose_partial(self.loud_others, TapContext(expect_hz=700.0)).there

    @pytest.mark.parametrize("wrong", [{"expect_hz": 5.0}, {"centre_hz": 9000.0}])
    def test_an_impossible_expectation_is_refused(self, wrong: dict[str, float]) -> None:
        with pytest.raises(BadQuantity, match="20 and 2000"):
            TapContext(**wrong)


class TestPreparing:
    """From the recording to what is looked at."""

    def test_rails_are_flat_tops_and_nothing_else(self) -> None:
        t = np.arange(48_000) / 48_000
        pure = 0.9 * np.sin(2 * np.pi * 110 * t)
        assert not len(prepare(pure, 48_000).rails_s)
        assert len(prepare(np.clip(pure, -0.5, 0.5), 48_000).rails_s)

    def test_rumble_is_taken_off_and_told(self) -> None:
        t = np.arange(48_000) / 48_000
        drum, shake = np.sin(2 * np.pi * 200 * t), 4 * np.sin(2 * np.pi * 8 * t)
        assert prepare(drum + shake, 48_000).rumble_db > 6 > prepare(drum, 48_000).rumble_db

    @given(st.sampled_from([8_000, 44_100, 48_000, 96_000, 192_000]))
    def test_the_working_rate_keeps_what_a_drum_rings_with(self, rate: int) -> None:
        assert prepare(np.random.default_rng(0).standard_normal(rate // 2), rate).rate >= 4_000


class TestWhatIsUsual:
    def test_goes_with_the_size_and_the_kind_of_drum(self) -> None:
        """Common practice, no source: snares are kept higher and bass drums lower than toms of their size."""
        fourteen = Length.from_inches(14)
        assert usual_edge_hz(fourteen, "bass") < usual_edge_hz(fourteen) < usual_edge_hz(fourteen, "snare")
        assert usual_edge_hz(fourteen) > 2 * usual_edge_hz(Length.from_inches(28))  # large ones are kept slacker

    def test_decides_between_two_partials_where_nothing_else_is_known(self) -> None:
        both = [Partial(150.0, 0.0, 60.0, 0.01), Partial(330.0, 0.0, 60.0, 0.01)]
        assert choose_partial(both, TapContext(usual_hz=150)).best.hz == 150
        assert choose_partial(both, TapContext(usual_hz=330)).best.hz == 330


class TestCloseCalls:
    """The chance is told, the likeliest other, and what would settle it."""

    close = (Partial(150.0, 0.0, 80.0, 0.01), Partial(250.0, 0.0, 60.0, 0.01))

    def test_a_plain_family_is_no_close_call(self) -> None:
        found = choose_partial(family(200, {(0, 1): -2, (1, 1): 0, (2, 1): -6}), TapContext(expect_hz=205.0))
        assert not found.close
        assert found.ask is None
        assert found.chance > 0.9

    def test_chances_are_chances(self) -> None:
        found = choose_partial(self.close, TapContext(usual_hz=250.0))
        assert found.close
        assert found.second is not None
        assert 0 < found.second.chance <= found.chance < 1
        assert found.chance + found.second.chance <= 1 + 1e-9

    def test_the_middle_settles_a_close_call_either_way(self) -> None:
        """Whichever the drum's note turns out to be, the doubt is gone: the middle is asked for where that is so."""
        lower = choose_partial(self.close, TapContext(usual_hz=250.0, centre_hz=90.0))
        upper = choose_partial(self.close, TapContext(usual_hz=250.0, centre_hz=150.0))
        assert upper.best.hz == 250.0
        assert lower.best.hz == 150.0
        assert choose_partial(self.close, TapContext(usual_hz=250.0)).ask == "middle"
        assert min(lower.chance, upper.chance) > choose_partial(self.close, TapContext(usual_hz=250.0)).chance

    def test_nothing_is_asked_for_in_the_middle(self) -> None:
        assert choose_partial(self.close, TapContext(at=Where.CENTRE)).ask is None
