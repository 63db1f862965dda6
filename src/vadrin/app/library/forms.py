"""The kit as forms: which fields a record has, in words, and how each is typed."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum
from typing import Any

from vadrin.app.document.stations import instruments_heard
from vadrin.core.limits import EXPOSURE_INDEX
from vadrin.core.process.process_kinds import KINDS as PROCESS_KINDS
from vadrin.core.process.rules_on_trial import RuleFormula
from vadrin.notebook.records import (
    Batch,
    Bottle,
    Camera,
    Developer,
    Enlarger,
    Instrument,
    Lens,
    LightMeter,
    Paper,
    PaperGrade,
    Process,
    ProcessStep,
    Rule,
    ShutterTime,
    Stock,
)
from vadrin.notebook.records.kit import DROPS, INSTRUMENT_KINDS, ROLES, RULE_TAKES, STOCK_KINDS


class FieldKind(Enum):
    """How a field of a form is typed."""

    TEXT = "text"
    NUMBER = "number"
    WHOLE = "whole"
    SHARE = "share"
    SECONDS = "seconds"
    DAY = "day"
    YES = "yes"
    CHOICE = "choice"
    LINK = "link"
    RECIPROCITY = "reciprocity"
    METER_CONSTANT = "meter constant"


MAY_BE_EMPTY = (
    FieldKind.TEXT,
    FieldKind.CHOICE,
    FieldKind.YES,
    FieldKind.DAY,
    FieldKind.RECIPROCITY,
)
"""Kinds for which nothing typed is a value too."""


_EI = (EXPOSURE_INDEX.low, EXPOSURE_INDEX.high)


@dataclass(frozen=True)
class FormField:
    """One field of a form: its label, how it is typed, its unit, and its bounds."""

    name: str
    label: str
    kind: FieldKind = FieldKind.TEXT
    unit: str = ""
    low: float = 0.0
    high: float = 1e6
    choices: tuple[str, ...] = ()
    link: type[Any] | None = None
    optional: bool = True


_INSTRUMENTS = tuple(dict.fromkeys((*INSTRUMENT_KINDS, *instruments_heard())))
_NAME, _NOTE = FormField("name", "name"), FormField("note", "note")

_PAPERS_TESTED = "Papers tested"
OWN_VALUES: dict[str, dict[str, str]] = {_PAPERS_TESTED: {"kind": "paper"}}
"""What tells the records of a heading from others of their sort, which stand under the first
heading of it. A paper that was tested is kept as film is, and is not what film is printed on."""
_STOCK = (
    _NAME,
    FormField("kind", "kind", FieldKind.CHOICE, choices=STOCK_KINDS),
    FormField("box_speed", "speed on the box", FieldKind.NUMBER, "ISO", 0.1, 1e5, optional=False),
    FormField("base", "base"),
    FormField("reciprocity", "reciprocity correction beyond 1 s", FieldKind.RECIPROCITY),
    _NOTE,
)

FORMS: dict[str, tuple[type[Any], tuple[FormField, ...]]] = {
    "Films": (Stock, _STOCK),
    "Batches": (
        Batch,
        (
            FormField("stock_id", "film", FieldKind.LINK, link=Stock, optional=False),
            _NAME,
            FormField("expiry", "expires"),
            FormField("storage", "stored"),
            FormField("rolls_left", "rolls left", FieldKind.WHOLE, high=100_000),
            _NOTE,
        ),
    ),
    "Chemicals": (
        Developer,
        (
            _NAME,
            FormField("role", "what it is", FieldKind.CHOICE, choices=ROLES),
            FormField("dilution", "dilution"),
            FormField("recipe", "recipe"),
            FormField("capacity_films", "capacity", FieldKind.NUMBER, "films a litre", 0.01, 1000),
            FormField("keeps_days", "keeps", FieldKind.NUMBER, "days", 0.01, 10_000),
            FormField("least_ml", "each film needs", FieldKind.NUMBER, "ml", 0.1, 5000),
            _NOTE,
        ),
    ),
    "Bottles": (
        Bottle,
        (
            FormField("developer_id", "holds", FieldKind.LINK, link=Developer, optional=False),
            _NAME,
            FormField("mixed_at", "mixed on", FieldKind.DAY),
            FormField("volume_ml", "volume", FieldKind.NUMBER, "ml", 1, 1e6),
            FormField("films_done", "films done", FieldKind.NUMBER, high=10_000, optional=False),
            FormField(
                "fresh_clearing_s",
                "clearing or bleaching time, fresh",
                FieldKind.NUMBER,
                "s",
                1,
                3600,
            ),
            FormField(
                "clearing_s", "clearing or bleaching time, now", FieldKind.NUMBER, "s", 1, 3600
            ),
            FormField("clearing_at", "that was tried on", FieldKind.DAY),
            FormField("drop_test", "a drop of test solution", FieldKind.CHOICE, choices=DROPS),
            FormField("drop_at", "the drop was tried on", FieldKind.DAY),
            _NOTE,
        ),
    ),
    "Processes": (
        Process,
        (
            _NAME,
            FormField("kind", "kind", FieldKind.CHOICE, choices=tuple(PROCESS_KINDS)),
            FormField("developer_id", "developer", FieldKind.LINK, link=Developer),
            FormField(
                "temperature_c", "temperature", FieldKind.NUMBER, "°C", 1, 60, optional=False
            ),
            FormField("agitation", "agitation"),
            FormField("vessel", "vessel"),
            FormField("water", "water"),
            FormField("volume_ml", "volume", FieldKind.NUMBER, "ml", 1, 1e6),
            FormField("q10", "faster for 10 K by", FieldKind.NUMBER, "times", 1.2, 5),
            _NOTE,
        ),
    ),
    "Steps of processes": (
        ProcessStep,
        (
            FormField("process_id", "process", FieldKind.LINK, link=Process, optional=False),
            FormField("position", "position", FieldKind.WHOLE, "", 0, 60, optional=False),
            _NAME,
            FormField(
                "seconds",
                "lasts",
                FieldKind.NUMBER,
                "s (0: time from the test)",
                0,
                604_800,
                optional=False,
            ),
            FormField("temperature_c", "at", FieldKind.NUMBER, "°C", 1, 60),
            FormField("tolerance_k", "within", FieldKind.NUMBER, "K", 0.05, 10),
            FormField("agitation", "agitated"),
            FormField("develops", "develops", FieldKind.YES),
            FormField("may_pause", "can be paused", FieldKind.YES),
            _NOTE,
        ),
    ),
    "Papers": (
        Paper,
        (
            _NAME,
            FormField("grade", "grade or filter"),
            FormField("exposure_scale", "exposure scale", FieldKind.NUMBER, "log H", 0.2, 3),
            FormField(
                "full_black_seconds", "time for maximum black", FieldKind.NUMBER, "s", 0.01, 10_000
            ),
            _NOTE,
        ),
    ),
    "Grades of papers": (
        PaperGrade,
        (
            FormField("paper_id", "paper", FieldKind.LINK, link=Paper, optional=False),
            FormField("grade", "grade or filter"),
            FormField("exposure_scale", "exposure scale", FieldKind.NUMBER, "log H", 0.2, 3),
            FormField("factor", "takes", FieldKind.NUMBER, "times the exposure", 0.05, 100),
            FormField("measured", "measured here", FieldKind.YES),
            _NOTE,
        ),
    ),
    _PAPERS_TESTED: (Stock, _STOCK),
    "Enlargers": (
        Enlarger,
        (
            _NAME,
            FormField("head", "head", FieldKind.CHOICE, choices=("diffuse", "condenser")),
            FormField("lens", "lens"),
            _NOTE,
        ),
    ),
    "Cameras": (
        Camera,
        (
            _NAME,
            FormField("slowest", "slowest shutter speed", FieldKind.SECONDS, optional=False),
            FormField("fastest", "fastest shutter speed", FieldKind.SECONDS, optional=False),
            FormField(
                "shutter_step",
                "shutter speeds every",
                FieldKind.NUMBER,
                "stop",
                0.1,
                2,
                optional=False,
            ),
            FormField("bulb", "has B (bulb)", FieldKind.YES),
            FormField("dial_low", "meter dial from EI", FieldKind.NUMBER, "", *_EI),
            FormField("dial_high", "meter dial to EI", FieldKind.NUMBER, "", *_EI),
            FormField(
                "compensation",
                "exposure compensation ±",
                FieldKind.NUMBER,
                "stops",
                0,
                10,
                optional=False,
            ),
            FormField("frame_rate", "frames a second (cine)", FieldKind.NUMBER, "", 0.1, 1000),
            FormField("shutter_angle", "shutter angle (cine)", FieldKind.NUMBER, "°", 1, 359),
            _NOTE,
        ),
    ),
    "Measured shutters": (
        ShutterTime,
        (
            FormField("camera_id", "camera", FieldKind.LINK, link=Camera, optional=False),
            FormField("marked", "mark", FieldKind.SECONDS, optional=False),
            FormField("measured", "measured", FieldKind.SECONDS, optional=False),
            FormField("measured_at", "measured on", FieldKind.DAY),
            _NOTE,
        ),
    ),
    "Lenses": (
        Lens,
        (
            _NAME,
            FormField("widest", "widest mark f/", FieldKind.NUMBER, "", 0.5, 128, optional=False),
            FormField(
                "smallest", "smallest mark f/", FieldKind.NUMBER, "", 0.7, 512, optional=False
            ),
            FormField(
                "aperture_step", "marks every", FieldKind.NUMBER, "stop", 0.1, 2, optional=False
            ),
            FormField(
                "light_loss", "transmission loss", FieldKind.NUMBER, "stop", -1, 10, optional=False
            ),
            _NOTE,
        ),
    ),
    "Light meters": (
        LightMeter,
        (
            _NAME,
            FormField("dial_low", "dial from EI", FieldKind.NUMBER, "", *_EI),
            FormField("dial_high", "dial to EI", FieldKind.NUMBER, "", *_EI),
            FormField(
                "constant", "meter constant", FieldKind.METER_CONSTANT, "lx s", optional=False
            ),
            _NOTE,
        ),
    ),
    "Instruments": (
        Instrument,
        (
            _NAME,
            FormField("kind", "kind", FieldKind.CHOICE, choices=_INSTRUMENTS),
            FormField("noise", "reading noise (SD)", FieldKind.NUMBER, "D", 0, 1),
            FormField("calibrated_at", "calibrated on", FieldKind.DAY),
            FormField("port", "serial port or folder"),
            FormField("line_format", "line format, with {number} for the value"),
            _NOTE,
        ),
    ),
    "Rules of thumb": (
        Rule,
        (
            _NAME,
            FormField("takes", "it is given", FieldKind.CHOICE, choices=RULE_TAKES),
            FormField(
                "formula", "it says", FieldKind.CHOICE, choices=tuple(str(f) for f in RuleFormula)
            ),
            FormField("amount", "number", FieldKind.SHARE, "", 0.001, 1000, optional=False),
            FormField("whose", "whose it is"),
            _NOTE,
        ),
    ),
}
"""Every kind of kit by its heading, with its record and the fields of its form."""
