"""Zeros of the Bessel functions of the first kind, j_mn: the n-th positive zero of J_m.

References
----------
NIST Digital Library of Mathematical Functions, §10.21; Abramowitz & Stegun, *Handbook of Mathematical Functions*, table 9.5.
"""

from typing import Final

BESSEL_ZEROS: Final = {
    (0, 1): 2.404825557695773,
    (1, 1): 3.831705970207512,
    (2, 1): 5.135622301840683,
    (0, 2): 5.520078110286311,
    (3, 1): 6.380161895923984,
    (1, 2): 7.015586669815619,
    (4, 1): 7.588342434503804,
    (2, 2): 8.417244140399864,
    (0, 3): 8.653727912911013,
}
