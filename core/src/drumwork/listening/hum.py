"""Mains hum: fitted from before the stroke, taken out of all of it.

What was there before the stroke and is made of nothing but the mains' frequency and its multiples goes on under the ring, where it shows as a partial that
never dies, hides where the stroke begins and where the ring ends.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

__all__ = ["without_hum"]

Array = NDArray[np.float64]

MAINS_HZ: Final = (50.0, 60.0)
"""IEC 60038: the world's mains are at 50 or 60 Hz."""
DRIFT_HZ: Final = tuple(np.linspace(-0.12, 0.12, 9))
DRIFT_SD_HZ: Final = 0.03
"""How nearly large grids hold their frequency, from memory (EN 50160 allows 1 % for nearly all of the time)."""
INDEPENDENT: Final = 0.1
"""Share of samples that say something of their own."""
ORDERS: Final = 6
LEAST_S: Final = 0.06
LONGEST_S: Final = 0.6
GUARD_S: Final = 0.012
EDGE_S: Final = 0.05
EXPLAINS: Final = 0.6
EXPLAINS_AFTER: Final = 0.85  # after the ring, which may linger
DEAD_S: Final = 0.4
LEAD_S: Final = 0.015
HEARD_DB: Final = -50.0


def _columns(rate: float, hz: float, first: int, count: int) -> Array:
    turn = np.exp(2j * np.pi * hz * np.arange(first, first + count) / rate)
    orders = np.cumprod(np.repeat(turn[:, None], ORDERS, axis=1), axis=1)
    return np.concatenate([orders.imag, orders.real], axis=1)


def _fit(before: Array, rate: float, hz: float) -> tuple[Array, float]:
    """Amplitudes of the mains' multiples, and the share of the sound they explain."""
    columns = _columns(rate, hz, -len(before), len(before))
    normal = columns.T @ columns + 1e-6 * len(before) * np.eye(columns.shape[1])
    amplitudes = np.linalg.solve(normal, columns.T @ before)
    left = float(((before - columns @ amplitudes) ** 2).sum())
    return np.asarray(amplitudes), 1 - left / float((before**2).sum() + 1e-30)


def _look(x: Array, rate: float, stroke: int) -> tuple[int, int] | None:
    """From where to where only hum is heard: before the stroke; where that is too short, at the end, once the ring has died."""
    until = stroke - int(GUARD_S * rate)
    first = max(int(EDGE_S * rate / 2), until - int(LONGEST_S * rate))
    if until - first >= LEAST_S * rate:
        return first, until
    last = len(x) - int(EDGE_S * rate)
    first = max(stroke + int(DEAD_S * rate), last - int(LONGEST_S * rate))
    return (first, last) if last - first >= LEAST_S * rate else None


def without_hum(x: Array, rate: float, stroke: int) -> Array:
    """(n,) the same without hum, if there is any before sample `stroke` or after the ring; else as it was."""
    look = _look(x, rate, stroke)
    if look is None:
        return x
    first, until = look
    heard = x[first:until]
    level = 10 * np.log10(float((heard**2).mean()) + 1e-14) - 10 * np.log10(float((x**2).max()) + 1e-14)
    if level < HEARD_DB:
        return x
    fits = [(_fit(heard, rate, hz), hz) for hz in MAINS_HZ]
    (_, share), mains = max(fits, key=lambda each: each[0][1])
    if share < (EXPLAINS if until <= stroke else EXPLAINS_AFTER):
        return x
    # A short look cannot tell fine differences of frequency apart, and a wrong one would not cancel a second later: the middle is believed first.
    (amplitudes, _), hz = min(
        ((_fit(heard, rate, mains + drift), mains + drift) for drift in DRIFT_HZ),
        key=lambda each: (
            INDEPENDENT * len(heard) * np.log(1 - each[0][1] + 1e-12) + ((each[1] - mains) / DRIFT_SD_HZ) ** 2
        ),
    )
    quiet = x - _columns(rate, hz, -until, len(x)) @ amplitudes
    if until > stroke and not _quieter(quiet, x, rate, stroke):
        return x  # it died away with the ring: no hum but the drum
    # At both ends the hum was bent by the filter that took the rumble off: what is left of it there is no sound.
    edge = np.clip(np.arange(len(x)) / (EDGE_S * rate), 0, 1) ** 2
    if stroke < EDGE_S * rate:
        return np.asarray(quiet * edge[::-1])
    return np.asarray(quiet * edge * edge[::-1])


def _quieter(quiet: Array, x: Array, rate: float, stroke: int) -> bool:
    """What is taken out was there before the stroke too."""
    lead = slice(0, max(0, stroke - int(GUARD_S * rate)))
    if lead.stop < LEAD_S * rate:
        return False
    return float((quiet[lead] ** 2).mean()) < (1 - EXPLAINS) * float((x[lead] ** 2).mean())
