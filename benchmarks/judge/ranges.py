"""How judging drums differ from each other. Written down apart from the engine, which must not be fitted to them.

Sources: counts of rods are those drums are sold with (trade §2, common practice, no source). Targets span lug pitches of floor toms to high snare batters
(trade §6, common practice, no source). Everything else has no source and is meant to be wide: gains ±40 %, rods ±15 %, edge
tension uneven to ±50 %, readings 0.2–0.6 % off, slips of 3–6 % of a turn, a turn down that answers less, retunes up to ±12 %. Hoop and film stiffnesses
span hoops that hardly bend between rods to hoops that follow each rod.
"""

from __future__ import annotations

from typing import Final

RODS: Final = (5, 6, 8, 10, 12)
TARGET_HZ: Final = (90.0, 330.0)
HZ_PER_TURN: Final = (0.22, 0.5)
"""Of the target, when every rod makes one turn."""
GAIN_TOLD: Final = 1.4
"""What is said beforehand of a turn lies within this factor of what it does."""
QUIRK_SD: Final = 0.15 / 2
"""Nineteen rods of twenty answer within ±15 % of the others."""
NOISE: Final = (0.002, 0.006)
SLIP: Final = (0.03, 0.06)
DOWN_ANSWERS: Final = (0.8, 1.0)
BACKLASH_TURNS: Final = (0.0, 1 / 64)
EDGE_UNEVEN: Final = (0.1, 0.5)
LEAST_HELD: Final = 0.2
"""Of what a rod holds on the average, what the slackest holds to begin with: nobody clears a head with a loose rod."""
RETUNE: Final = (-0.12, 0.12)
HELD_SHARE: Final = 1 / 3
PARTIALS_SHARE: Final = 0.5
RESOLVED_SHARE: Final = 0.5
RESOLUTION_HZ: Final = 3.0
"""Two partials nearer than this are heard as one: about the width of a window of half a second."""
FAINT: Final = 0.05
LOUDNESS_SD: Final = 0.15
HOOPS: Final = {"field": (0.003, 0.02), "stiff hoop": (0.03, 0.15), "soft hoop": (0.0002, 0.002)}
"""Bending stiffness of the hoop against the film's pull, for a two-lobed bend (k² - 1)² = 9."""
ROD_STIFF: Final = (3.0, 15.0)
"""All rods together against the film's pull."""
HEARS_DEG: Final = (20.0, 50.0)
"""Where each rod is heard for itself: how far round the edge (one standard deviation)."""
FACING: Final = (0.0, 0.2)
PAIR_BLEND: Final = (0.0, 0.3)
NEAR_SLACK_TURNS: Final = 1 / 8
FINGER_TIGHT_TURNS: Final = (0.02, 0.1)
"""How alike fingers leave the rods before turns are counted (one standard deviation). No source."""
