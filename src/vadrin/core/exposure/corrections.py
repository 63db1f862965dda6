"""What stands between the meter's word and the film: filters, bellows, T-stops, shutters.

Sources: ISO 2720 for the meter constant; the rest is geometry.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import log2

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.exposure.arithmetic import METER_CONSTANT, exact_aperture, log_h_of_frame
from vadrin.core.exposure.reciprocity import Reciprocity, stops_lost
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.figure import Figure, absent


@dataclass(frozen=True)
class Corrections:
    """Light lost between the setting and the film.

    Attributes
    ----------
    filter_factor : float
        Times the exposure a filter asks for, 1 for none.
    bellows_extension, focal_length : float
        In the same unit; 0 for a lens at infinity.
    t_stop, f_stop : float
        The lens's T-number at a marked f-number; 0 where not known.
    marked_s, measured_s : float
        A shutter mark and what it was measured to give; 0 where not measured.
    exposed_s : float
        Real time of the exposure, for reciprocity; 0 leaves that out.
    reciprocity : Reciprocity or None
    """

    filter_factor: float = 1.0
    bellows_extension: float = 0.0
    focal_length: float = 0.0
    t_stop: float = 0.0
    f_stop: float = 0.0
    marked_s: float = 0.0
    measured_s: float = 0.0
    exposed_s: float = 0.0
    reciprocity: Reciprocity | None = None


def stops_of(corrections: Corrections) -> float:
    """Stops lost on the way to the film; minus is a gain.

    Raises
    ------
    ValueError
        If a filter factor is not positive.
    """
    c = corrections
    if c.filter_factor <= 0:
        raise ValueError("a filter factor is above 0")
    lost = log2(c.filter_factor)
    if c.focal_length > 0 and c.bellows_extension > 0:
        lost += 2 * log2((c.focal_length + c.bellows_extension) / c.focal_length)
    if c.t_stop > 0 and c.f_stop > 0:
        lost += 2 * log2(c.t_stop / exact_aperture(c.f_stop))
    if c.marked_s > 0 and c.measured_s > 0:
        lost += log2(exact_shutter(c.marked_s) / c.measured_s)
    if c.reciprocity is not None and c.exposed_s > 0:
        lost += stops_lost(c.reciprocity, c.exposed_s)
    return lost


def frame_log_h(
    exposure_index: float,
    stops: float,
    corrections: Corrections,
    meter_constant: float = METER_CONSTANT,
) -> float:
    """Lg exposure (lg lux s) of a frame of a metered even target, all corrections taken."""
    return log_h_of_frame(exposure_index, stops - stops_of(corrections), meter_constant)


def shutter_of_frame_rate(shutter_angle_deg: float, frames_per_second: float) -> float:
    """Seconds a cine frame is exposed: angle / (360 fps)."""
    if not (0 < shutter_angle_deg <= 360 and frames_per_second > 0):
        raise ValueError("a shutter angle lies above 0 and up to 360, a frame rate above 0")
    return shutter_angle_deg / (360.0 * frames_per_second)


def ei_of_chosen_exposure(
    metered_ei: float,
    metered_s: float,
    metered_f: float,
    chosen_s: float,
    chosen_f: float,
    filter_factor: float = 1.0,
) -> float:
    """The EI at which the meter would have asked for the exposure that looked best.

    EI = S0 F (t0 / N0**2) / (t / N**2), marks translated first.
    """
    asked = exact_shutter(metered_s) / exact_aperture(metered_f) ** 2
    given = exact_shutter(chosen_s) / exact_aperture(chosen_f) ** 2
    return metered_ei * filter_factor * asked / given


def calibrated_meter_constant(exposure_index: Array, lux_seconds: Array) -> Figure:
    """A tester's own meter constant from frames whose exposure was measured.

    k = EI H, the geometric mean with its 95 % range.

    Parameters
    ----------
    exposure_index, lux_seconds : ndarray, shape (n,)
        EI on the meter, and measured exposure at the film for what it asked.
    """
    if len(exposure_index) == 0:
        return absent("no measured exposure to calibrate by")
    logs = np.log(exposure_index * lux_seconds)
    value = float(np.exp(logs.mean()))
    if len(logs) < 3:
        return Figure(value)
    half = 1.96 * float(logs.std(ddof=1)) / len(logs) ** 0.5
    return Figure(value, value * float(np.exp(-half)), value * float(np.exp(half)))


def with_flare(log_h: Array, flare: float) -> Array:
    """Lg exposure at the film with camera flare, H + f mean(H).

    Parameters
    ----------
    log_h : ndarray, shape (n,)
        Lg exposures of the scene's parts.
    flare : float
        f, 0 for contact work, about 0.005 to 0.02 in cameras.
    """
    exposure = 10.0 ** np.asarray(log_h, dtype=np.float64)
    return np.asarray(np.log10(exposure + flare * exposure.mean()))


@dataclass(frozen=True)
class MeterSetting:
    """How to set a camera whose dial ends below the EI wanted.

    Attributes
    ----------
    dial : float
        EI to set.
    compensation : float
        Stops of exposure compensation, minus for less exposure.
    left : float
        Stops of compensation still free on that side.
    short : float
        Stops that cannot be reached at all.
    """

    dial: float
    compensation: float
    left: float
    short: float


def meter_setting_for(
    wanted: float, lowest: float, highest: float, compensation: float
) -> MeterSetting:
    """Set the dial as far as it goes, and the rest by exposure compensation.

    Parameters
    ----------
    wanted : float
        EI.
    lowest, highest : float
        Ends of the dial.
    compensation : float
        Stops the camera compensates either way.
    """
    dial = min(max(wanted, lowest), highest)
    needed = -log2(wanted / dial)
    used = min(max(needed, -compensation), compensation)
    return MeterSetting(dial, used, compensation - abs(used), abs(needed - used))


def daylight_excess(exposure_index: float, fastest_s: float, smallest_f: float) -> float:
    """Stops by which sunlit daylight overexposes at the camera's least exposure.

    Sunlight asks for 1/EI s at f/16; 0 or less means the camera can cope.
    """
    needed = log2((1.0 / exposure_index) / 16.0**2)
    return log2(exact_shutter(fastest_s) / exact_aperture(smallest_f) ** 2) - needed
