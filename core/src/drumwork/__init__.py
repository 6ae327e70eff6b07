"""The computation and rules of drum work, free of any screen, database or clock."""

import os

# The matrices here are at most a hundred wide: handing them to several threads costs ten times what it saves.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
