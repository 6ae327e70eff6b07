"""Cautions of the trade (§18). Makers' instructions, venue rules and local codes come first."""

from typing import Final

__all__ = ["BURRS", "DUST", "DRIVER", "NO_STANDING", "OVER_TENSION", "SOLVENT", "TAPPING"]

DRIVER: Final = "No power driver on tension rods: it strips threads and spins wrists. If house rules allow one, guide it by hand and stop before the rod takes tension."
BURRS: Final = "Hoop edges and rod ends can carry burrs. Run a rag round them, not a finger."
DUST: Final = "Wipe old dust and coating off damp; do not blow it. Mould or flaking lacquer: mask and gloves."
SOLVENT: Final = "Cleaners and thin oils: window open, gloves, no flame, and read the sheet first."
NO_STANDING: Final = "Never stand or kneel on a drum to stretch a head: a fall, or a broken edge. Palms are enough."
OVER_TENSION: Final = (
    "Stay within the head maker's limit. If a lug creaks, a hoop leans or the film whitens, stop and ease off."
)
TAPPING: Final = "Rounds of tapping add up. Tap softly, keep it short, wear hearing protection in a small room."
