"""Volumes and temperatures in the units a darkroom's cylinders and thermometers show."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.core.process.recipe import cylinder_step, resolved

ML_A_FLUID_OUNCE = 29.5735
_FINE_OZ, _COARSE_OZ = 0.1, 0.25


@dataclass(frozen=True)
class Units:
    """One set of units.

    Attributes
    ----------
    volume, degree : str
        As they are written behind a number.
    american : bool
        US fluid ounces and degrees Fahrenheit.
    """

    volume: str
    degree: str
    american: bool = False

    def volume_text(self, volume_ml: float, least_ml: float = 0.0) -> str:
        """A volume as a fitting cylinder shows it, never under what is needed."""
        if not self.american:
            return f"{resolved(volume_ml, cylinder_step(volume_ml), least_ml):g} ml"
        ounces, least = volume_ml / ML_A_FLUID_OUNCE, least_ml / ML_A_FLUID_OUNCE
        return f"{resolved(ounces, _FINE_OZ if ounces < 4 else _COARSE_OZ, least):g} fl oz"

    def plain_volume(self, volume_ml: float) -> str:
        """A volume as it is typed, without its unit."""
        # Never with three decimals, which would be read back as thousands.
        if not self.american:
            return f"{round(volume_ml, 1):g}"
        return f"{volume_ml / ML_A_FLUID_OUNCE:.4g}"

    def plain_degrees(self, celsius: float) -> str:
        """A temperature as it is typed, without its unit."""
        return f"{celsius * 1.8 + 32:.1f}" if self.american else f"{celsius:g}"

    def warmth_text(self, celsius: float) -> str:
        """A temperature with its unit."""
        return f"{self.plain_degrees(celsius)} {self.degree}"

    def difference_text(self, kelvin: float) -> str:
        """How far apart two temperatures are, in the unit they are shown in."""
        apart = abs(kelvin) * (1.8 if self.american else 1.0)
        return f"{apart:.2g} {self.degree}"


METRIC = Units("ml", "°C")
AMERICAN = Units("fl oz", "°F", american=True)
