"""What a frame of film is for, and what became of it."""

from __future__ import annotations

from enum import StrEnum


class FrameRole(StrEnum):
    """What a frame is for."""

    BRACKET = "bracket"
    """Carries one of the exposures of the test."""
    BLANK = "blank"
    """Kept from light, for base plus fog."""
    FOGGED = "fogged"
    """Given full light, for a clip."""
    CHECK = "check"
    """Repeats the first exposure, to tell whether the light held."""
    PICTURE = "picture"
    """Carries a picture: film used before or beside a test, of which nothing is measured."""
    LOST = "lost"
    """A piece of film that goes to a cut, a holder or a wrong winding."""


class FrameState(StrEnum):
    """What became of a frame."""

    PLANNED = "planned"
    EXPOSED = "exposed"
    DOUBLED = "doubled"
    """Exposed twice; it holds the sum."""
    SKIPPED = "skipped"
    """Wound on without an exposure, or spoilt; it holds nothing."""


LIT = (FrameRole.BRACKET, FrameRole.CHECK)
"""Roles of frames that get a measured exposure."""
