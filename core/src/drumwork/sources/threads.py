"""Pitch of the threads tension rods are cut with, in metres per turn.

References
----------
ASME B1.1 (unified inch threads): threads per inch are part of the designation. ISO 261 / ISO 262 (metric coarse pitches).
"""

from typing import Final

from drumwork.sources.international_inch import METRES_PER_INCH

THREAD_PITCH_M: Final = {
    "7/32-24": METRES_PER_INCH / 24,
    "12-24": METRES_PER_INCH / 24,
    "10-32": METRES_PER_INCH / 32,
    "M5": 0.8e-3,
    "M6": 1.0e-3,
    "M8": 1.25e-3,
}
