"""What hides a head's ring: snare wires, and the other head. And what a tap looked like.

Recordings: Debian package hydrogen-drumkits, folder ForzeeStereo (free licence), a snare with its wires on and thrown off.
"""

from pathlib import Path

import numpy as np
import pytest

from drumwork.commands.sound_files import read_sound
from drumwork.listening import Other, Status, TapContext, Where, listen_to_tap, picture_of
from drumwork.quantities import Length
from drumwork.simulated import Microphone, Shell, SoundingDrum, SoundingHead, Tap

FOLDER = Path(__file__).parents[3] / ".data" / "recordings"
RATE = 44_100
HEAD = SoundingHead(0.165, 190.0, 0.01, 0.4, 114.0)


def recorded(name: str) -> list[tuple[np.ndarray, int]]:
    files = sorted(FOLDER.glob(f"{name}-*.wav"))
    if len(files) < 3:
        pytest.fail(f"The recordings are not there. Run tools/recordings. (Looked in {FOLDER}.)")
    return [read_sound(file) for file in files]


def heard(head: SoundingHead, strength: float = 0.2, inset_m: float = 0.028, **room: float) -> np.ndarray:
    random = np.random.default_rng(1)
    return Microphone(45, **room).hear(head.sound(Tap(0.4, inset_m, strength), RATE, 1.2, random), RATE, random)


def test_recorded_snares_with_wires_on_are_refused_and_with_wires_off_are_read() -> None:
    on = [listen_to_tap(samples, rate) for samples, rate in recorded("Snare")]
    assert all(each.status is Status.REFUSE and each.reason.startswith("wires on") for each in on)
    off = [listen_to_tap(samples, rate) for samples, rate in recorded("SnareOff")]
    assert all("wires" not in each.reason for each in off)
    assert sum(each.status is not Status.REFUSE for each in off) == len(off)


@pytest.mark.parametrize("wires", [0.6, 1.0, 2.0])
def test_simulated_wires_are_heard_as_wires(wires: float) -> None:
    reading = listen_to_tap(heard(SoundingHead(0.165, 190.0, 0.01, 0.4, 114.0, wires=wires)), RATE)
    assert reading.reason.startswith("wires on")


@pytest.mark.parametrize("rate", [8_000, 16_000, 44_100, 96_000])
def test_a_plain_tap_is_not_taken_for_wires_at_any_rate(rate: int) -> None:
    random = np.random.default_rng(2)
    sound = Microphone(45).hear(HEAD.sound(Tap(0.4, 0.028, 0.6), rate, 1.2, random), rate, random)
    assert listen_to_tap(sound, rate, TapContext(expect_hz=190)).status is not Status.REFUSE


class TestTheOtherHead:
    RINGS = heard(SoundingHead(0.165, 240.0, 0.0, 0.0, 114.0))

    def test_is_refused_at_its_own_pitch_far_from_what_was_expected(self) -> None:
        reading = listen_to_tap(self.RINGS, RATE, TapContext(expect_hz=205.0, other_hz=240.0))
        assert (reading.status, reading.hz) == (Status.REFUSE, None)
        assert "the other head rings" in reading.reason

    def test_is_no_suspect_once_it_is_muted(self) -> None:
        reading = listen_to_tap(self.RINGS, RATE, TapContext(expect_hz=205.0, other_hz=240.0, other=Other.HELD))
        assert reading.hz == pytest.approx(240, rel=0.002)

    def test_tuned_nearly_like_this_one_is_not_refused(self) -> None:
        reading = listen_to_tap(self.RINGS, RATE, TapContext(expect_hz=233.0, other_hz=240.0))
        assert reading.status is not Status.REFUSE


class TestHeadsTunedAlike:
    """Both films of a simulated drum at one pitch: the air between makes two notes of it."""

    def read(self, muted: bool, other_hz: float = 200.0):
        drum = SoundingDrum(0.178, 200.0, shell=Shell(other_hz=other_hz, other_muted=muted))
        sound = Microphone(45).hear(drum.sound(Tap(0.4), RATE, 1.2), RATE, np.random.default_rng(2))
        return listen_to_tap(
            sound, RATE, TapContext(expect_hz=200.0, other_hz=other_hz, other=Other.HELD if muted else Other.RINGS)
        )

    def test_are_doubted_while_both_ring(self) -> None:
        reading = self.read(muted=False)
        assert reading.status is not Status.OK
        assert "mute the other head" in reading.reason

    def test_are_read_once_the_other_is_muted(self) -> None:
        reading = self.read(muted=True)
        assert reading.status is Status.OK
        assert reading.hz == pytest.approx(200.0, rel=0.001)

    def test_an_open_one_far_off_is_no_trouble(self) -> None:
        assert self.read(muted=False, other_hz=270.0).status is Status.OK


class TestTheMiddle:
    @pytest.mark.parametrize("known", [{"diameter": Length.from_inches(13)}, {"usual_hz": 112.0}, {"centre_hz": 118.0}])
    def test_is_read_as_the_drums_own_note(self, known: dict) -> None:
        sound = heard(HEAD, inset_m=0.16)
        reading = listen_to_tap(sound, RATE, TapContext(at=Where.CENTRE, **known))
        assert reading.hz == pytest.approx(114.0, rel=0.003)


class TestDistance:
    @pytest.mark.parametrize("metres", [0.3, 1.0, 2.5])
    def test_the_pitch_stays_though_the_tap_grows_faint_in_the_room(self, metres: float) -> None:
        reading = listen_to_tap(heard(HEAD, distance_m=metres, tail_s=0.4), RATE, TapContext(expect_hz=190.0))
        low, high = HEAD.pair_hz
        assert min(abs(1200 * np.log2(reading.hz / each)) for each in (low, high)) < 12

    def test_twice_as_far_is_six_decibels_softer(self) -> None:
        near, far = (np.abs(heard(HEAD, distance_m=d)).max() for d in (0.3, 0.6))
        assert 20 * np.log10(near / far) == pytest.approx(6.02, abs=0.1)


class TestThePicture:
    SPLIT_FREE = SoundingHead(0.165, 190.0, 0.0, 0.0, 114.0)

    def picture(self, strength: float):
        sound = heard(self.SPLIT_FREE, strength)
        reading = listen_to_tap(sound, RATE, TapContext(expect_hz=190.0))
        return reading, picture_of(sound, RATE, reading.onset_s, reading.hz)

    def test_a_soft_taps_pitch_lies_on_the_line_and_a_hard_ones_comes_down_to_it(self) -> None:
        _, soft = self.picture(0.1)
        reading, hard = self.picture(0.9)
        softs = [each for each in soft.cents[:20] if each is not None]
        hards = [each for each in hard.cents[:20] if each is not None]
        assert max(map(abs, softs)) < 4
        assert hards[0] > 30
        assert hards[0] == pytest.approx(reading.glide_cents, rel=0.35)
        assert hards == sorted(hards, reverse=True) or max(np.diff(hards)) < 3
        assert abs(hards[-1]) < 8

    def test_the_ring_falls_as_the_simulated_head_decays(self) -> None:
        """The head's (1,1) pair falls 60 dB in 0.9 s, its other partials faster."""
        _, soft = self.picture(0.1)
        span = slice(int(0.1 / soft.step_s), int(0.5 / soft.step_s))
        slope = np.polyfit(np.arange(len(soft.ring_db[span])) * soft.step_s, soft.ring_db[span], 1)[0]
        assert -90 < slope < -55

    def test_without_a_pitch_there_is_the_ring_alone(self) -> None:
        found = picture_of(heard(HEAD), RATE, 0.15, None)
        assert set(found.cents) == {None}
        assert max(found.ring_db) == 0.0
