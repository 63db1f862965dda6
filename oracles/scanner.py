"""A scanner as it is: film, light, optics and the program that writes the file.

Written from what such devices do, without a look at what reads their pictures. Film is laid out
as transmittance: base with its holes, frames with gaps that vary, a step wedge beside it. Light is
scattered by whatever lies around a place, falls off to the sides, is counted in photons, and is
written by a tone curve with so many bits. Dust, a scratch and the print of a finger lie on it.
What a person does wrong when laying film down is a fault of its own.
"""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import numpy as np
import tifffile
from PIL import Image, ImageCms
from scipy import ndimage

FAULTS = (
    "none",
    "first cut",
    "last cut",
    "one more",
    "one less",
    "overlap",
    "blank end",
    "wedge short",
    "wedge missing",
    "wedge half covered",
    "wedge typed shifted",
    "mirrored",
    "upside down",
    "black holder",
    "film fills",
    "auto levels",
    "inverted",
    "sharpened",
    "no step thinner than typed",
    "skewed",
    "orange mask",
    "several at once",
)
"""What is wrong with a picture, one at a time."""
SEVERAL = "several at once"
_AT_ONCE = (
    ("first cut", "last cut", "blank end", "one more", "one less", "overlap"),
    ("wedge short", "wedge typed shifted", "no step thinner than typed", "wedge half covered"),
    ("mirrored", "upside down", "skewed"),
    ("sharpened", "auto levels", "orange mask"),
)
"""Of which several may meet in one picture: one of a row. A blank that was cut off and a frame too
many look like a strip that is whole, so that they don't meet."""
_MASK = (0.12, 0.50, 0.85)
"""Density of the base of colour negative film to red, green and blue light, over a clear one."""
_ACROSS, _FRAME = 35.0, 24.0
_PITCH = 38.0


@dataclass
class Conditions:
    """How one picture came to be.

    Attributes
    ----------
    fault : str
        What the picture is listed under.
    faults : frozenset of str
        All that is wrong with it.
    scatter : float
        Share of the light that comes from elsewhere.
    fall_off : float
        Share of the light that is missing in the corners.
    tone : str
        ``linear``, ``gamma``, ``srgb`` or ``curve``.
    bits : int
    form : str
        ``tif``, ``png``, ``jpg``, ``float``.
    skew : float
        Degrees.
    dust : float
        Share of the area.
    bow : float
        Share of the strip's height that its middle lies off.
    photons : float
        Counted at bare light in one pixel.
    quality : int
        Of JPEG.
    profiled : bool
        Whether the file says that its values are sRGB.
    """

    fault: str
    faults: frozenset[str]
    scatter: float
    fall_off: float
    tone: str
    bits: int
    form: str
    skew: float
    dust: float
    bow: float
    photons: float
    quality: int = 90
    profiled: bool = False


@dataclass
class Picture:
    """A file, and what is true of it.

    Attributes
    ----------
    path : Path
    script : int
        Frames the script has.
    typed : tuple of float
        Densities of the wedge as a person typed them.
    truth : list of float or None
        By the script's frames: what each holds; None for one that is not whole in the picture.
    conditions : Conditions
    """

    path: Path
    script: int
    typed: tuple[float, ...]
    truth: list[float | None]
    conditions: Conditions


def drawn_conditions(rng: np.random.Generator, fault: str) -> Conditions:
    """Everything else at random strength."""
    form = str(rng.choice(["tif", "tif", "png", "jpg", "float"]))
    bits = 8 if form == "jpg" else int(rng.choice([8, 16, 16]))
    faults = _several(rng) if fault == SEVERAL else frozenset((fault,))
    tilted = float(rng.uniform(2.0, 5.0) * rng.choice([-1.0, 1.0]))
    tone = "linear" if form == "float" else str(rng.choice(["linear", "gamma", "srgb", "curve"]))
    return Conditions(
        fault,
        faults,
        scatter=float(rng.uniform(0.003, 0.02)),
        fall_off=float(rng.uniform(0.0, 0.05)),
        tone=tone,
        bits=bits,
        form=form,
        skew=tilted if "skewed" in faults else float(rng.uniform(-1.0, 1.0)),
        dust=float(rng.choice([0.0, 0.0005, 0.002])),
        bow=float(rng.uniform(0.0, 0.03)),
        photons=float(rng.choice([4e3, 2e4, 1e5])),
        quality=int(rng.integers(60, 96)),
        profiled=tone == "srgb" and bool(rng.integers(2)),
    )


def _several(rng: np.random.Generator) -> frozenset[str]:
    """Two or three faults that can meet in one picture."""
    rows = rng.permutation(len(_AT_ONCE))[: int(rng.integers(2, 4))]
    return frozenset(str(rng.choice(_AT_ONCE[row])) for row in rows)


class _Sheet:
    """Transmittance over the scanner's bed, in millimetres."""

    def __init__(self, wide: float, high: float, scale: float, light: float) -> None:
        self.scale = scale
        self.light = np.full((round(high * scale), round(wide * scale)), float(light))
        self.film = np.zeros(self.light.shape, dtype=bool)

    def lay(
        self, left: float, top: float, wide: float, high: float, value: float, film: bool = False
    ) -> None:
        """Put something down; it covers what lies there."""
        s = self.scale
        rows = slice(max(0, round(top * s)), max(0, round((top + high) * s)))
        columns = slice(max(0, round(left * s)), max(0, round((left + wide) * s)))
        self.light[rows, columns], self.film[rows, columns] = value, film


def _densities(rng: np.random.Generator, count: int) -> np.ndarray:
    """Frames of a bracket on some film: base plus fog, a toe, a straight part, a shoulder."""
    fog, top = rng.uniform(0.18, 0.4), rng.uniform(1.6, 2.6)
    x = np.linspace(rng.uniform(-3.5, -2.0), rng.uniform(1.5, 3.0), count - 2)
    lit = fog + (top - fog) / (1 + np.exp(-1.6 * x)) ** rng.uniform(0.8, 1.2)
    return np.concatenate([[fog, fog], lit])


def _strip(
    sheet: _Sheet,
    rng: np.random.Generator,
    at: tuple[float, float],
    held: np.ndarray,
    faults: frozenset[str],
) -> None:
    """A strip of film with its frames and holes."""
    left, top = at
    base = 10.0 ** -float(held[0])
    gaps = rng.normal(2.0, 0.15, len(held))
    if "overlap" in faults:
        gaps[len(held) // 2] = -4.0
    starts = np.concatenate([[0.0], np.cumsum(36.0 + gaps)[:-1]])
    before, after = 3.0, 3.0
    if "first cut" in faults:
        before = -float(rng.uniform(14.0, 30.0))
    if "last cut" in faults:
        after = -float(rng.uniform(14.0, 30.0))
    if "blank end" in faults:
        after += _PITCH * float(rng.uniform(1.0, 2.0))
    end = starts[-1] + 36.0 + after
    sheet.lay(left - before, top, end + before, _ACROSS, base, film=True)
    for start, density in zip(starts, held, strict=True):
        sheet.lay(left + start, top + 5.5, 36.0, _FRAME, 10.0 ** -float(density), film=True)
    if "overlap" in faults:
        middle = len(held) // 2
        sheet.lay(
            left + starts[middle + 1],
            top + 5.5,
            4.0,
            _FRAME,
            10.0 ** -float(held[middle] + held[middle + 1] - held[0]),
            film=True,
        )
    outside = sheet.light[0, 0]
    hole = np.arange(left - before + 1.5, left + end - 2.5, 4.75)
    bare = 1.0
    for x in hole:
        sheet.lay(x, top + 1.2, 1.98, 2.8, bare)
        sheet.lay(x, top + _ACROSS - 4.0, 1.98, 2.8, bare)
    # What was cut off the film is not there: the bed is.
    if before < 0:
        sheet.lay(left - 1.0, top - 1, -before + 1.0, _ACROSS + 2, outside)
    if after < 0:
        sheet.lay(left + end, top - 1, 40.0, _ACROSS + 2, outside)


def _wedge(sheet: _Sheet, at: tuple[float, float], steps: np.ndarray, covered: bool) -> None:
    left, top = at
    for place, density in enumerate(steps):
        sheet.lay(left + 12.0 * place, top, 12.0, 18.0, 10.0 ** -float(density))
    if covered:
        sheet.lay(left + 12.0 * len(steps) * 0.6, top - 2, 12.0 * len(steps), 22.0, 0.002)


def _turned(light: np.ndarray, degrees: float, bow: float, order: int = 1) -> np.ndarray:
    """Skewed and bowed, as film lies: turned about the middle of the bed."""
    high, wide = light.shape
    rows, columns = np.mgrid[0:high, 0:wide]
    down, along = rows - high / 2, columns - wide / 2
    cosine, sine = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    there = cosine * down + sine * along + bow * high * (0.25 - (along / wide) ** 2)
    across = cosine * along - sine * down
    places = [there + high / 2, across + wide / 2]
    return ndimage.map_coordinates(light, places, order=order, mode="nearest")


def _seen(light: np.ndarray, rng: np.random.Generator, how: Conditions) -> np.ndarray:
    """What the sensor gets: scatter by what lies around, fall-off, photons."""
    high, wide = light.shape
    near = ndimage.gaussian_filter(light, 0.6)
    around = ndimage.uniform_filter(light, max(3, wide // 12))
    veil = 0.6 * around + 0.4 * float(light.mean())
    got = (1 - how.scatter) * near + how.scatter * veil
    rows, columns = np.mgrid[-1 : 1 : high * 1j, -1 : 1 : wide * 1j]
    got *= 1 - how.fall_off * (rows**2 + columns**2) / 2
    counted = rng.poisson(np.clip(got, 0, None) * how.photons) + rng.normal(0.0, 2.0, got.shape)
    return np.asarray(counted / how.photons)


def _dirtied(light: np.ndarray, rng: np.random.Generator, how: Conditions) -> np.ndarray:
    """Dust, scratches, a print of a finger."""
    made, (high, wide) = light.copy(), light.shape
    for _ in range(int(how.dust * high * wide / 6)):
        y, x = int(rng.integers(high - 3)), int(rng.integers(wide - 3))
        made[y : y + int(rng.integers(1, 4)), x : x + int(rng.integers(1, 4))] *= 0.15
    if how.dust:
        y = int(rng.integers(high))
        made[y : y + 1] = np.minimum(1.0, made[y : y + 1] * 1.4)
        rows, columns = np.mgrid[0:high, 0:wide]
        away = np.hypot(rows - rng.integers(high), columns - rng.integers(wide))
        lines = 0.97 + 0.03 * np.cos(away / 1.7)
        made = np.where(away < high / 12, made * lines, made)
    return made


def _toned(light: np.ndarray, how: Conditions) -> np.ndarray:
    """Values from 0 to 1 as a program writes them."""
    white = 0.92 if "auto levels" not in how.faults else 1.0
    values = np.clip(light * white, 0.0, 1.0)
    if how.tone == "gamma":
        values = values ** (1 / 2.2)
    elif how.tone == "srgb":
        values = np.where(values <= 0.0031308, 12.92 * values, 1.055 * values ** (1 / 2.4) - 0.055)
    elif how.tone == "curve":
        plain = values ** (1 / 2.2)
        values = plain + 0.06 * np.sin(2 * np.pi * plain) * -1
        values = np.clip(values, 0.0, 1.0)
    if "sharpened" in how.faults:
        values = np.clip(values + 0.9 * (values - ndimage.gaussian_filter(values, 1.5)), 0, 1)
    if "auto levels" in how.faults:
        low, high = np.percentile(values, [3.0, 97.0])
        values = np.clip((values - low) / (high - low), 0.0, 1.0)
    return np.asarray(1.0 - values if "inverted" in how.faults else values)


def _written(values: np.ndarray, path: Path, how: Conditions) -> Path:
    """A file of grey values, shape (h, w), or of red, green and blue, shape (h, w, 3)."""
    target = path.with_suffix({"float": ".tif"}.get(how.form, f".{how.form}"))
    profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    told = {"icc_profile": profile} if how.profiled else {}
    shallow = np.round(values * 255).astype(np.uint8)
    deep = np.round(values * 65535).astype(np.uint16)
    if how.form == "float":
        tifffile.imwrite(target, values.astype(np.float32))
    elif how.form == "jpg":
        colour = shallow if shallow.ndim == 3 else np.stack([shallow] * 3, axis=2)
        Image.fromarray(colour).save(target, quality=how.quality, **told)
    elif how.bits == 8 or (how.form == "png" and values.ndim == 3):
        Image.fromarray(shallow).save(target, **told)
    elif how.form == "tif":
        tifffile.imwrite(target, deep, iccprofile=profile if told else None)
    else:
        Image.fromarray(deep).save(target)
    return target


def _lying(rng: np.random.Generator, how: Conditions) -> tuple[np.ndarray, np.ndarray]:
    """Densities of a wedge as typed, and as they lie there."""
    steps = np.round(0.05 + 0.15 * np.arange(int(rng.integers(16, 21))), 2)
    typed, lying = steps, steps + rng.normal(0.0, 0.004, len(steps))
    if "wedge short" in how.faults:
        lying = lying[:-2]
    if "no step thinner than typed" in how.faults:
        lying = lying[1:]
    if "wedge typed shifted" in how.faults:
        typed = np.round(steps + 0.15, 2)
    return typed, lying


def scanned(rng: np.random.Generator, fault: str, folder: Path, name: str = "scan") -> Picture:
    """One picture with one fault, or several, and the truth of it."""
    how = drawn_conditions(rng, fault)
    faults = how.faults
    script = int(rng.integers(8, 15))
    present = script + ("one more" in faults) - ("one less" in faults)
    held = _densities(rng, present)
    typed, lying = _lying(rng, how)
    sheet = _laid(rng, how, held, lying)
    mask = _MASK if "orange mask" in faults else (0.0,)
    film = sheet.film.astype(float)
    planes = [_as_lying(sheet.light * 10.0 ** (-over * film), sheet, how) for over in mask]
    dirt = int(rng.integers(1 << 30))
    values = [
        _toned(_seen(_dirtied(p, np.random.default_rng(dirt), how), rng, how), how) for p in planes
    ]
    truth: list[float | None] = [float(d) + mask[len(mask) // 2] for d in held]
    if "first cut" in faults:
        truth[0] = None
    if "last cut" in faults:
        truth[-1] = None
    written = _written(np.stack(values, axis=2) if len(mask) > 1 else values[0], folder / name, how)
    return Picture(written, script, tuple(float(t) for t in typed), truth, how)


def _laid(rng: np.random.Generator, how: Conditions, held: np.ndarray, lying: np.ndarray) -> _Sheet:
    """Film and wedge on the bed."""
    faults, scale = how.faults, 3.2
    length = _PITCH * (len(held) + (2 if "blank end" in faults else 0)) + 12
    wide = max(length, 12.0 * len(lying) + 12) + 16
    margin = 0.0 if "film fills" in faults else 9.0
    if "skewed" in faults:
        margin += abs(np.tan(np.radians(how.skew))) * wide / 2
    dark = "black holder" in faults
    sheet = _Sheet(wide, 2 * margin + _ACROSS + 30, scale, 0.0005 if dark else 1)
    if dark:
        sheet.lay(8.0, margin + _ACROSS + 7, 12.0 * len(lying) + 4, 22.0, 1.0)
    _strip(sheet, rng, (10.0, margin), held, faults)
    if "wedge missing" not in faults:
        at = (10.0, margin + _ACROSS + 9)
        _wedge(sheet, at, lying, "wedge half covered" in faults)
    return sheet


def _as_lying(light: np.ndarray, sheet: _Sheet, how: Conditions) -> np.ndarray:
    """Turned, and cut or turned over as the person did."""
    light, scale = _turned(light, how.skew, how.bow * 0.1), sheet.scale
    if "film fills" in how.faults:
        light = light[: round((_ACROSS + 30) * scale), round(8 * scale) : -round(8 * scale)]
    if "mirrored" in how.faults:
        light = light[:, ::-1]
    if "upside down" in how.faults:
        light = light[::-1, ::-1]
    return light
