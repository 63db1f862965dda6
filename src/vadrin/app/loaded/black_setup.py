"""The series of prints whose shortest time for maximum black still holds."""

from __future__ import annotations

from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.notebook.records import PrintSetup


def black_setup(loaded: LoadedTest) -> PrintSetup | None:
    """The newest one that nothing was changed of since; None before maximum black was found."""
    return next((s for s in reversed(loaded.setups) if s.black_s and not s.closed_at), None)
