"""Records of what a tester owns: film, chemistry, cameras and instruments.

Nothing here must be filled in before work can start; empty and None mean "not said".
"""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.core.process.rules_on_trial import RuleFormula

COLOUR_NEGATIVE = "colour negative"
STOCK_KINDS = ("black-and-white negative", COLOUR_NEGATIVE, "reversal", "paper")
RULE_TAKES = ("seconds", "stops", "degrees", "minutes")
DROPS = ("stays clear", "clouds")
"""What a drop of test solution does in a fixer; it clouds where too much silver is held."""
ROLES = ("developer", "stop bath", "fixer", "bleach", "wash aid", "other")
INSTRUMENT_KINDS = (
    "densitometer",
    "scanner",
    "camera on a stand",
    "light box and eye",
    "thermometer",
)


@dataclass(frozen=True)
class Stock:
    """A kind of film as it is sold; `box_speed` is the marked speed, `base` its carrier.

    `reciprocity` is what long exposures take, as it is typed: ``t^1.3``, ``+0.15 t^1.4`` or
    ``1: 1.5, 10: 25``.
    """

    id: int = 0
    name: str = ""
    kind: str = STOCK_KINDS[0]
    box_speed: float = 100.0
    note: str = ""
    base: str = ""
    reciprocity: str = ""


@dataclass(frozen=True)
class Batch:
    """Film of one stock that was made and kept together."""

    id: int = 0
    stock_id: int = 0
    name: str = ""
    expiry: str = ""
    storage: str = ""
    rolls_left: int | None = None
    note: str = ""


@dataclass(frozen=True)
class Developer:
    """A developer, or other chemistry, at the dilution it is used at.

    `capacity_films` is how many films one litre of working solution does; `keeps_days` how
    long a mixed bottle keeps; `least_ml` the concentrate each film needs.
    """

    id: int = 0
    name: str = ""
    dilution: str = ""
    note: str = ""
    role: str = ROLES[0]
    recipe: str = ""
    capacity_films: float | None = None
    keeps_days: float | None = None
    least_ml: float | None = None

    @property
    def bath(self) -> str:
        """Name and dilution, as it is spoken of."""
        return f"{self.name} {self.dilution}".strip()


@dataclass(frozen=True)
class Bottle:
    """One mixed bottle; `films_done` counts up to the chemistry's capacity.

    Of fixer, `fresh_clearing_s` is how long a scrap of film took to clear when it was mixed, and
    `clearing_s` the last time it was tried, on the day `clearing_at`; `drop_test` is what a drop
    of test solution did in it, one of `DROPS`, on `drop_at`.
    """

    id: int = 0
    developer_id: int = 0
    name: str = ""
    mixed_at: str = ""
    volume_ml: float | None = None
    films_done: float = 0.0
    note: str = ""
    fresh_clearing_s: float | None = None
    clearing_s: float | None = None
    clearing_at: str = ""
    drop_test: str = ""
    drop_at: str = ""


@dataclass(frozen=True)
class Process:
    """A way of developing that is used again and again.

    `kind` is one of the kinds of process; `q10` how much faster it goes for each 10 K warmer,
    None for the usual factor.
    """

    id: int = 0
    name: str = ""
    developer_id: int | None = None
    temperature_c: float = 20.0
    agitation: str = ""
    vessel: str = ""
    water: str = ""
    volume_ml: float | None = None
    note: str = ""
    kind: str = "negative"
    q10: float | None = None


@dataclass(frozen=True)
class Paper:
    """An enlarging paper; `exposure_scale` is its range R / 100 in lg exposure."""

    id: int = 0
    name: str = ""
    grade: str = ""
    exposure_scale: float | None = None
    full_black_seconds: float | None = None
    note: str = ""


@dataclass(frozen=True)
class Enlarger:
    """An enlarger; its `head` is diffuse or a condenser, `lens` what it projects with."""

    id: int = 0
    name: str = ""
    head: str = ""
    lens: str = ""
    note: str = ""


@dataclass(frozen=True)
class Camera:
    """What a camera can be set to.

    `slowest` and `fastest` are marked shutter times in seconds, `shutter_step` and
    `dial_step` are in stops; `compensation` is how far it reaches to either side. A cine
    camera has a frame rate and a largest shutter angle in degrees.
    """

    id: int = 0
    name: str = ""
    slowest: float = 1.0
    fastest: float = 1 / 1000
    shutter_step: float = 1.0
    bulb: bool = True
    dial_low: float | None = None
    dial_high: float | None = None
    dial_step: float = 1 / 3
    compensation: float = 0.0
    frame_rate: float | None = None
    shutter_angle: float | None = None
    note: str = ""


@dataclass(frozen=True)
class ShutterTime:
    """One measured shutter time beside its mark, in seconds."""

    id: int = 0
    camera_id: int = 0
    marked: float = 1 / 60
    measured: float = 1 / 60
    measured_at: str = ""
    note: str = ""


@dataclass(frozen=True)
class Lens:
    """A lens: its aperture marks run from `widest` to `smallest` in `aperture_step` stops.

    `light_loss` is how many stops less than its mark it passes (T-stop, bellows).
    """

    id: int = 0
    name: str = ""
    widest: float = 2.0
    smallest: float = 16.0
    aperture_step: float = 0.5
    light_loss: float = 0.0
    note: str = ""


@dataclass(frozen=True)
class LightMeter:
    """A light meter, the EIs it can be set to, and its constant."""

    id: int = 0
    name: str = ""
    dial_low: float | None = None
    dial_high: float | None = None
    constant: float = 8.125
    note: str = ""


@dataclass(frozen=True)
class Instrument:
    """What is read with; `calibration` is kept as JSON, `noise` is its SD.

    One that speaks over a line has a `port`, and a `line_format`: a line of its with the number
    in braces.
    """

    id: int = 0
    name: str = ""
    kind: str = INSTRUMENT_KINDS[0]
    noise: float | None = None
    calibrated_at: str = ""
    calibration: str = ""
    port: str = ""
    line_format: str = ""
    note: str = ""


@dataclass(frozen=True)
class MakerTime:
    """One line of a maker's table: a time for a film in a developer, at stops from its speed, at
    an EI, or at a temperature; what is None is the table's normal."""

    id: int = 0
    stock_id: int = 0
    developer_id: int = 0
    stops: float | None = None
    exposure_index: float | None = None
    temperature_c: float | None = None
    time_min: float = 0.0
    source: str = ""
    note: str = ""


@dataclass(frozen=True)
class Rule:
    """A rule of thumb for a time: `takes` what it is given, `formula` how it comes to minutes."""

    id: int = 0
    name: str = ""
    takes: str = RULE_TAKES[0]
    formula: RuleFormula = RuleFormula.FACTOR
    amount: float = 1.0
    whose: str = ""
    note: str = ""


KIT = (
    Stock,
    Batch,
    Developer,
    Bottle,
    Process,
    Paper,
    Enlarger,
    Camera,
    ShutterTime,
    Lens,
    LightMeter,
    Instrument,
    Rule,
    MakerTime,
)
"""Owners before what belongs to them."""
