"""The filters a density can be read through."""

from __future__ import annotations

from enum import StrEnum


class Channel(StrEnum):
    """A channel of readings; visual where nothing else is said."""

    VISUAL = "visual"
    RED = "red"
    GREEN = "green"
    BLUE = "blue"
    UV = "uv"


LAYERS = (Channel.RED, Channel.GREEN, Channel.BLUE)
"""What colour film is read in."""
