"""What a piece of text is, and so how large, how heavy and in which tone it is written."""

from __future__ import annotations

from enum import Enum
from typing import NamedTuple


class _Style(NamedTuple):
    size: int
    weight: int
    tone: str


class Role(Enum):
    """Roles of labels; sizes are pixels at text scale 1, tones are names of colours in a look."""

    CAPTION = _Style(12, 400, "soft")
    """Column heads, captions of pictures, the small print."""
    NOTE = _Style(13, 400, "soft")
    """Secondary text."""
    ESTIMATED = _Style(13, 500, "soft")
    """What others tell of a film: no figure of its own is written so."""
    BODY = _Style(13, 400, "")
    STRONG = _Style(13, 500, "")
    LABEL = _Style(13, 700, "")
    """The name of a column, or the normal among pushes."""
    SECTION = _Style(13, 500, "soft")
    """Heads a group of lines in a column."""
    LEAD = _Style(15, 400, "")
    """The text a station is about."""
    LEAD_STRONG = _Style(15, 500, "")
    SUBHEADING = _Style(15, 700, "")
    LARGE = _Style(17, 400, "")
    LARGE_NOTE = _Style(17, 400, "soft")
    HEADING = _Style(17, 700, "")
    REFUSAL = _Style(13, 400, "trouble")
    """Why something typed was not taken, and warnings that matter."""
    DOUBT = _Style(13, 500, "trouble")
    ALARM = _Style(15, 500, "trouble")
    DONE = _Style(13, 400, "done")
    ASIDE = _Style(30, 400, "soft")
    ENTRY = _Style(30, 500, "")
    """What is typed frame after frame."""
    TIME = _Style(30, 700, "")
    DISPLAY_LIGHT = _Style(46, 500, "")
    DISPLAY = _Style(46, 700, "")
    INDEX = _Style(46, 700, "")
    """The finding itself."""

    @property
    def size(self) -> int:
        """Pixels at text scale 1."""
        return self.value.size

    @property
    def weight(self) -> int:
        """Of the typeface, 400 to 700."""
        return self.value.weight

    @property
    def tone(self) -> str:
        """Name of its colour: empty for ink, else a key of `TONES`."""
        return self.value.tone
