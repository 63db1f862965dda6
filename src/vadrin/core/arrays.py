"""The one array type of the core."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
"""Floating point numbers of any shape; docstrings say which."""
