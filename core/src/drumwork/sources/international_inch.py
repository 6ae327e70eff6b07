"""The inch in metres, exact.

References
----------
International yard and pound agreement (1959): 1 in = 25.4 mm exactly; restated in ISO 80000-3.
"""

from typing import Final

METRES_PER_INCH: Final = 0.0254
