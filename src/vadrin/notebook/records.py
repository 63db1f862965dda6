"""Records of the notebook as frozen data. A record with id 0 has not been written yet."""

from __future__ import annotations

from dataclasses import dataclass

PLANNED, EXPOSED, DOUBLED, SKIPPED = "planned", "exposed", "doubled", "skipped"
"""States of a frame."""


@dataclass(frozen=True)
class Stock:
    """A kind of film as it is sold; `box_speed` is the marked speed."""

    id: int = 0
    name: str = ""
    kind: str = "black-and-white negative"
    box_speed: float = 100.0
    note: str = ""


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
    """A developer at the dilution it is used at."""

    id: int = 0
    name: str = ""
    dilution: str = ""
    note: str = ""


@dataclass(frozen=True)
class Test:
    """One film test and how it was planned.

    `exposure_index` is what the meter was set to; `metered_seconds` and `aperture` are what
    it asked for; `first_stop` to `last_stop` in `step` is the bracket. `created_at` is UTC.
    """

    __test__ = False

    id: int = 0
    kind: str = "time"
    stock_id: int = 0
    batch_id: int | None = None
    developer_id: int = 0
    created_at: str = ""
    exposure_index: float = 100.0
    metered_seconds: float = 1 / 30
    aperture: float = 5.6
    first_stop: float = -6.0
    last_stop: float = 5.0
    step: float = 1.0
    blanks: int = 2
    agitation: str = ""
    target_kind: str = "average_gradient"
    target_value: float = 0.58
    school: str = "shadow"
    meter_constant: float = 8.125
    note: str = ""


@dataclass(frozen=True)
class Strip:
    """One strip of a test: `planned_min` as planned, `time_min` as it really was."""

    id: int = 0
    test_id: int = 0
    position: int = 0
    label: str = ""
    planned_min: float | None = None
    time_min: float | None = None
    temperature_c: float | None = None
    note: str = ""


@dataclass(frozen=True)
class Frame:
    """One frame of a strip, in the order shot.

    Its exposure is `log_h`, or `exposure_index` and `stops` from the meter reading; a blank
    frame has neither.
    """

    id: int = 0
    strip_id: int = 0
    position: int = 0
    name: str = ""
    log_h: float | None = None
    exposure_index: float | None = None
    stops: float | None = None
    state: str = PLANNED
    exposed_at: str = ""
    note: str = ""

    @property
    def blank(self) -> bool:
        """Whether the frame was kept from light."""
        return self.log_h is None and self.exposure_index is None


@dataclass(frozen=True)
class Reading:
    """One density reading; `extra` holds a file's unknown columns as JSON."""

    id: int = 0
    frame_id: int = 0
    position: int = 0
    density: float = 0.0
    channel: str = "visual"
    read_at: str = ""
    left_out: bool = False
    note: str = ""
    extra: str = ""


@dataclass(frozen=True)
class Finding:
    """What was decided for a test, and the report it rested on as JSON in `grounds`."""

    id: int = 0
    test_id: int = 0
    decided_at: str = ""
    exposure_index: float = 0.0
    time_min: float = 0.0
    temperature_c: float = 20.0
    target_kind: str = ""
    target_value: float = 0.0
    grounds: str = ""


Record = Stock | Batch | Developer | Test | Strip | Frame | Reading | Finding
RECORDS: tuple[type[Record], ...] = (
    Stock, Batch, Developer, Test, Strip, Frame, Reading, Finding,
)  # fmt: skip
PARENTS: dict[type[Record], tuple[tuple[str, type[Record]], ...]] = {
    Batch: (("stock_id", Stock),),
    Test: (("stock_id", Stock), ("batch_id", Batch), ("developer_id", Developer)),
    Strip: (("test_id", Test),),
    Frame: (("strip_id", Strip),),
    Reading: (("frame_id", Frame),),
    Finding: (("test_id", Test),),
}
"""Which field of a record points at which other record."""
