"""The units a recipe is in: those chosen last, or the region's."""

from __future__ import annotations

from vadrin.app.display.region import region_here
from vadrin.app.display.units import AMERICAN, METRIC, Units
from vadrin.app.library.kept_preferences import keep_preference, preference

_CHOICE = "US units"


def usual_units() -> Units:
    """Those that were chosen last; those of the region where none were."""
    chosen = preference(_CHOICE)
    return AMERICAN if (region_here().american if chosen is None else chosen) else METRIC


def choose_units(units: Units) -> None:
    """Keep a choice of units."""
    keep_preference(_CHOICE, units.american)
