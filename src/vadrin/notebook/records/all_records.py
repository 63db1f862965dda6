"""Records of the notebook as frozen data. A record with id 0 has not been written yet."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.notebook.records.kit import (
    KIT,
    Batch,
    Bottle,
    Camera,
    Developer,
    Instrument,
    Lens,
    LightMeter,
    Paper,
    Process,
    ShutterTime,
    Stock,
)

PLANNED, EXPOSED, DOUBLED, SKIPPED = "planned", "exposed", "doubled", "skipped"
"""States of a frame."""

BRACKET, BLANK, FOGGED, CHECK, LOST = "bracket", "blank", "fogged", "check", "lost"
"""What a frame is for; a check repeats the first exposure, a lost piece goes to a cut."""


@dataclass(frozen=True)
class Test:
    """One film test, how it was planned and under which conditions it was run.

    `exposure_index` is what the meter was set to; `metered_seconds` and `aperture` are what
    it asked for; `first_stop` to `last_stop` in `step` is the bracket. `created_at` is UTC.
    `uid` tells the same test apart in two notebooks; `like_id` is the test it was started
    from with one thing changed. `leader` and `holder` are frames kept for both; `compared` is
    ``developers``, ``stocks`` or ``batches``, `against` their names, and `twin_id` the camera
    that every other strip is shot with.
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
    uid: str = ""
    like_id: int | None = None
    camera_id: int | None = None
    lens_id: int | None = None
    meter_id: int | None = None
    instrument_id: int | None = None
    paper_id: int | None = None
    process_id: int | None = None
    bottle_id: int | None = None
    light: str = ""
    subject: str = "plain target"
    water: str = ""
    vessel: str = ""
    film_form: str = ""
    prefer: str = "shutter"
    filter_stops: float = 0.0
    check_last: bool = False
    arrangement: str = ""
    second: str = ""
    against: str = ""
    tablet: str = ""
    leader: int = 0
    holder: int = 0
    compared: str = "developers"
    twin_id: int | None = None


@dataclass(frozen=True)
class Strip:
    """One strip of a test: `planned_min` as planned, `time_min` as it really was.

    What is None or empty is as the test says; `push` is stops from the test's EI.
    """

    id: int = 0
    test_id: int = 0
    position: int = 0
    label: str = ""
    planned_min: float | None = None
    time_min: float | None = None
    temperature_c: float | None = None
    note: str = ""
    roll: int = 1
    push: float | None = None
    stock_id: int | None = None
    batch_id: int | None = None
    developer_id: int | None = None
    camera_id: int | None = None
    agitation: str = ""


@dataclass(frozen=True)
class Frame:
    """One frame of a strip, in the order shot.

    Its exposure is `log_h`, or `exposure_index` and `stops` from the meter reading; a blank
    frame has neither. `wanted_stops`, `seconds`, `aperture`, `filter_stops`, `dial_index` and
    `compensation` are what the script asked for, as marked on the camera; `turn` orders the
    shooting across strips.
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
    role: str = BRACKET
    wanted_stops: float | None = None
    seconds: float | None = None
    aperture: float | None = None
    filter_stops: float = 0.0
    dial_index: float | None = None
    compensation: float | None = None
    turn: int = 0

    @property
    def blank(self) -> bool:
        """Whether the frame was kept from light."""
        unlit = self.log_h is None and self.exposure_index is None
        return unlit and self.role not in (FOGGED, LOST)


@dataclass(frozen=True)
class Exposure:
    """One opening of the shutter on a frame; a frame exposed twice has two."""

    id: int = 0
    frame_id: int = 0
    position: int = 0
    exposed_at: str = ""
    stops: float | None = None
    seconds: float | None = None
    aperture: float | None = None
    note: str = ""


@dataclass(frozen=True)
class MeterReading:
    """What the meter said during a roll, in stops from the first reading."""

    id: int = 0
    test_id: int = 0
    frame_id: int | None = None
    taken_at: str = ""
    stops: float = 0.0
    note: str = ""


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
    """What was decided for a test.

    `grounds` is the report it rested on and `question` the readings and settings, both as
    JSON; `decided_by` is who signed it.
    """

    id: int = 0
    test_id: int = 0
    decided_at: str = ""
    exposure_index: float = 0.0
    time_min: float = 0.0
    temperature_c: float = 20.0
    target_kind: str = ""
    target_value: float = 0.0
    grounds: str = ""
    question: str = ""
    decided_by: str = ""
    note: str = ""


@dataclass(frozen=True)
class Note:
    """Words about a test, or about one of its frames."""

    id: int = 0
    test_id: int = 0
    frame_id: int | None = None
    written_at: str = ""
    words: str = ""


@dataclass(frozen=True)
class Attachment:
    """A file kept with a test or a stock: a picture, a traced data sheet."""

    id: int = 0
    test_id: int | None = None
    stock_id: int | None = None
    name: str = ""
    media_type: str = ""
    added_at: str = ""
    data: bytes = b""


@dataclass(frozen=True)
class Matching:
    """How the columns of a foreign spreadsheet were matched, by its header row as JSON."""

    id: int = 0
    headers: str = ""
    columns: str = ""


Record = (
    Stock | Batch | Developer | Bottle | Process | Paper | Camera | ShutterTime | Lens
    | LightMeter | Instrument | Test | Strip | Frame | Exposure | MeterReading | Reading
    | Finding | Note | Attachment | Matching
)  # fmt: skip
RECORDS: tuple[type[Record], ...] = (
    *KIT, Test, Strip, Frame, Exposure, MeterReading, Reading, Finding, Note, Attachment, Matching,
)  # fmt: skip
"""Owners before what belongs to them."""

PARENTS: dict[type[Record], tuple[tuple[str, type[Record]], ...]] = {
    Batch: (("stock_id", Stock),),
    Bottle: (("developer_id", Developer),),
    Process: (("developer_id", Developer),),
    ShutterTime: (("camera_id", Camera),),
    Test: (
        ("stock_id", Stock), ("batch_id", Batch), ("developer_id", Developer),
        ("like_id", Test), ("camera_id", Camera), ("lens_id", Lens), ("meter_id", LightMeter),
        ("instrument_id", Instrument), ("paper_id", Paper), ("process_id", Process),
        ("bottle_id", Bottle), ("twin_id", Camera),
    ),
    Strip: (
        ("test_id", Test), ("stock_id", Stock), ("batch_id", Batch),
        ("developer_id", Developer), ("camera_id", Camera),
    ),
    Frame: (("strip_id", Strip),),
    Exposure: (("frame_id", Frame),),
    MeterReading: (("test_id", Test), ("frame_id", Frame)),
    Reading: (("frame_id", Frame),),
    Finding: (("test_id", Test),),
    Note: (("test_id", Test), ("frame_id", Frame)),
    Attachment: (("test_id", Test), ("stock_id", Stock)),
}  # fmt: skip
"""Which field of a record points at which other record."""
