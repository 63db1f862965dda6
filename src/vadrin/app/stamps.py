"""The moment as the notebook writes it, and names no other notebook gives."""

from __future__ import annotations

import os
from datetime import UTC, datetime


def now() -> str:
    """The time in UTC as the notebook writes it."""
    return datetime.now(UTC).isoformat(timespec="seconds")


def fresh_uid() -> str:
    """A name for a test that no other notebook gives."""
    return os.urandom(8).hex()
