"""Pitches of screw threads met on tension rods, metres a turn. Unified threads name theirs: 12-24 has 24 threads to the inch.

References
----------
ISO 261:1998, *ISO general purpose metric screw threads — General plan*: coarse pitches of M4, M5, M6, M8.
ASME B1.1-2003, *Unified Inch Screw Threads (UN and UNR Thread Form)*, designation of size and threads per inch.
"""

from typing import Final

METRIC_COARSE_M: Final = {"M4": 0.7e-3, "M5": 0.8e-3, "M6": 1.0e-3, "M8": 1.25e-3}
