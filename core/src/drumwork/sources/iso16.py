"""Standard tuning frequency.

References
----------
ISO 16:1975, *Acoustics — Standard tuning frequency (Standard musical pitch)*: the A in the treble
stave is 440 Hz. Equal temperament divides the octave into twelve equal ratios; the MIDI Tuning
Standard numbers that A as note 69.
"""

from typing import Final

A4_HZ: Final = 440.0
A4_NUMBER: Final = 69
SEMITONES_PER_OCTAVE: Final = 12
CENTS_PER_OCTAVE: Final = 1200.0
NOTE_NAMES: Final = ("C", "C♯", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B")
