"""Material figures, each with where it comes from."""

from typing import Final

PET_DENSITY_KG_PER_M3: Final = 1390.0
"""Biaxially oriented PET film; handbook value, from memory (common data sheets give 1380–1400)."""
PET_YIELD_PA: Final = 100e6
"""Tensile yield of biaxially oriented PET film, order of magnitude; handbook value, from memory."""
PET_MODULUS_PA: Final = 4.5e9
"""Young's modulus of biaxially oriented PET film; handbook value, from memory (data sheets give 4–5.5 GPa)."""
PET_POISSON: Final = 0.38
"""Poisson's ratio of the same; handbook value, from memory."""
SAFE_SHARE_OF_YIELD: Final = 0.5
"""Our own margin: film is not asked beyond half of yield. Not from a published source."""
COATING_KG_PER_M2: Final = 0.060
"""A sprayed coating on a batter head; our own estimate, no published source."""
AIR_DENSITY_KG_PER_M3: Final = 1.204
"""Dry air at 20 °C and 101.325 kPa; ISO 2533 gives 1.225 at 15 °C."""
SOUND_M_PER_S: Final = 343.2
"""Speed of sound in dry air at 20 °C; Kinsler et al., Fundamentals of Acoustics, appendix."""
METRES_PER_MIL: Final = 25.4e-6
"""A mil is a thousandth of an inch; exact from the international inch."""
STEEL_ROD_LIMIT_N: Final = 2500.0
"""Pull at which a sound rod and insert are left alone. Our own cautious limit; makers' figures come first. No published source."""
