"""Bendrel: plan, make and prove rigid and flexible fluid lines."""

import os

# matrices here are small: the threads of the linear algebra library would only stand in each other's way
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

__version__ = "0.1.0"
