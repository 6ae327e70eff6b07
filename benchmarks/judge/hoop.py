"""A hoop drawn down by rods on a film: an elastic ring on an elastic bed, pulled by springs.

    ½ Σ_k (film + hoop (k² - 1)²) |u_k|² + ½ c Σ_j (d_j - u(θ_j))²

so that a stiff hoop spreads what one rod does all round, and a soft one bends beside it and lifts a little further on.

References
----------
M. Hetényi, *Beams on Elastic Foundation* (1946); ring bending: S. Timoshenko, *Strength of Materials* II.
"""

from __future__ import annotations

import numpy as np

from benchmarks.judge.membrane import HARMONICS

__all__ = ["Hoop"]

Array = np.ndarray


def basis(angles: Array) -> Array:
    """(p, 2H + 1): 1, then cos and sin of each harmonic."""
    columns = [np.ones_like(angles)]
    for k in range(1, HARMONICS + 1):
        columns += [np.cos(k * angles), np.sin(k * angles)]
    return np.stack(columns, axis=1)


class Hoop:
    """`answer` (2H + 1, n): how far the hoop goes down, by harmonic, when a rod is drawn by one; `holds` (n, n): what each rod then bears."""

    def __init__(self, angles: Array, bend: float, rods_stiff: float) -> None:
        order = np.concatenate([[0], np.repeat(np.arange(1, HARMONICS + 1), 2)])
        bending = np.where(order >= 2, bend * (order**2 - 1.0) ** 2, 0.0)
        bed = (1 + bending) * np.where(order == 0, 1.0, 0.5)
        at, each = basis(angles), rods_stiff / len(angles)
        self.answer = np.linalg.solve(np.diag(bed) + each * at.T @ at, each * at.T)
        self.holds = each * (np.eye(len(angles)) - at @ self.answer)
