"""Densities and temperatures as people type them."""

from __future__ import annotations

import re
from dataclasses import dataclass

from vadrin.app.entry.numbers import number_typed, within
from vadrin.core.channels import Channel
from vadrin.core.limits import DENSITY
from vadrin.core.step_deviation import step_deviation
from vadrin.errors import EntryError

Step = tuple[float, float]
"""Two densities of a wedge that a frame lies between."""
_WIDEST_STEP = 0.6


def density_typed(words: str) -> float:
    """A transmission density.

    Raises
    ------
    EntryError
    """
    plain = re.sub(r"^d\s*=?\s*|\s*d$", "", words.strip().lower())
    return within(plain, DENSITY)


@dataclass(frozen=True)
class TypedReading:
    """A density as it was typed: one that was read, or the middle of two steps of a wedge."""

    density: float
    step: Step | None = None
    channel: Channel = Channel.VISUAL

    def deviation(self, read_sd: float) -> float:
        """Standard deviation: that of a reading, or that of the step where it is larger."""
        if self.step is None:
            return read_sd
        return max(read_sd, step_deviation(*self.step))


def reading_typed(words: str) -> TypedReading:
    """A density: ``0.49``; between two steps of a wedge: ``1.20-1.35``; of another channel:
    ``1.05 blue``.

    Raises
    ------
    EntryError
    """
    plain = words.replace("between", "").replace(" and ", "-").replace("–", "-").strip()
    number, _, named = plain.rpartition(" ")
    known = [c for c in Channel if named and named.lower() in (c, c[:1])]
    channel = known[0] if number and known else Channel.VISUAL
    plain = number.strip() if number and known else plain
    parts = [p for p in plain.split("-") if p.strip()]
    if len(parts) == 2:
        low, high = sorted(density_typed(p) for p in parts)
        if high - low > _WIDEST_STEP:
            raise EntryError(f"two steps of a wedge lie within {_WIDEST_STEP:g}, such as 1.20-1.35")
        return TypedReading((low + high) / 2, (low, high), channel)
    return TypedReading(density_typed(plain), None, channel)


LAYERS = (Channel.RED, Channel.GREEN, Channel.BLUE)


def readings_typed(words: str, usual: Channel | None) -> tuple[TypedReading, ...]:
    """One reading, or red, green and blue of a frame in one line: ``0.52 0.61 0.80``.

    Parameters
    ----------
    words : str
    usual : Channel or None
        The channel that a number without a name was read through on colour film; None for
        black-and-white film, of which three numbers mean nothing.

    Raises
    ------
    EntryError
    """
    pieces = [p.strip(",") for p in re.split(r"[;\s]+", words.strip()) if p.strip(",")]
    three = len(pieces) == 3 and all(re.fullmatch(r"[\d.,]+", p) for p in pieces)
    if three and usual is None:
        raise EntryError(
            "three numbers are red, green and blue of colour film; type one density, such as 0.49"
        )
    if three:
        made = zip(pieces, LAYERS, strict=True)
        return tuple(TypedReading(density_typed(p), None, channel) for p, channel in made)
    one = reading_typed(words)
    named = words.strip()[-1:].isalpha()
    if usual is not None and not named:
        one = TypedReading(one.density, one.step, usual)
    return (one,)


def temperature_typed(
    words: str, low: float = 5.0, high: float = 60.0, fahrenheit: bool = False
) -> float:
    """A temperature in degrees Celsius: ``20``, ``20,5 °C``, ``68 °F``.

    Parameters
    ----------
    words : str
    low, high : float
        In degrees Celsius; a developer's, unless it is another water's.
    fahrenheit : bool
        Whether a number without a unit means that.

    Raises
    ------
    EntryError
    """
    plain = re.sub(r"degrees?|deg\.?", " ", words.replace("°", " "), flags=re.IGNORECASE).strip()
    unit = plain[-1:].upper()
    value = number_typed(plain[:-1] if unit in ("C", "F") else plain, "20 or 20.5")
    if unit == "F" or (fahrenheit and unit != "C"):
        value = (value - 32) / 1.8
    if not low <= value <= high:
        what = "a developer works" if low else "water is"
        raise EntryError(f"{what} between {low:g} and {high:g} °C")
    return value
