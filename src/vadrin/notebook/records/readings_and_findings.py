"""What was read, what was decided on it, and what else is kept with a test."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.core.channels import Channel


@dataclass(frozen=True)
class Reading:
    """One density reading; `extra` holds a file's unknown columns as JSON.

    `deviation` is its standard deviation where it is not the instrument's; `low` and `high` are
    the steps of a wedge it was found between; `way` is how it was read.
    """

    id: int = 0
    frame_id: int = 0
    position: int = 0
    density: float = 0.0
    channel: Channel = Channel.VISUAL
    read_at: str = ""
    left_out: bool = False
    note: str = ""
    extra: str = ""
    deviation: float | None = None
    low: float | None = None
    high: float | None = None
    way: str = ""


@dataclass(frozen=True)
class Judgement:
    """What an eye said of a frame, or of a whole strip.

    `asked` is the question (told from the blank, shadows, fault, clip …), `answer` one of its
    scale, `way` how it was looked at, `place` where on the film; `value` and `reference` are
    numbers where the question has them, `detail` whatever else it has, as JSON.
    """

    id: int = 0
    strip_id: int | None = None
    frame_id: int | None = None
    position: int = 0
    asked: str = ""
    answer: str = ""
    way: str = ""
    place: str = ""
    value: float | None = None
    reference: float | None = None
    detail: str = ""
    judged_at: str = ""
    left_out: bool = False
    note: str = ""


@dataclass(frozen=True)
class Finding:
    """What was decided for a test.

    `report` is the report it rested on and `basis` the readings and settings behind it, both
    as JSON; `card` is what stood on its card; `decided_by` is who signed it.
    """

    id: int = 0
    test_id: int = 0
    decided_at: str = ""
    exposure_index: float = 0.0
    time_min: float = 0.0
    temperature_c: float = 20.0
    target_kind: str = ""
    target_value: float = 0.0
    report: str = ""
    basis: str = ""
    card: str = ""
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
    """A file kept with a test or a stock: a picture, a traced data sheet.

    One too large to be kept lies at `path`; it is known again by `checksum` and `size`, and
    `data` is then a small preview of it. A scan is of the strip `strip_id`.
    """

    id: int = 0
    test_id: int | None = None
    stock_id: int | None = None
    name: str = ""
    media_type: str = ""
    added_at: str = ""
    data: bytes = b""
    strip_id: int | None = None
    path: str = ""
    checksum: str = ""
    size: int | None = None


@dataclass(frozen=True)
class ColumnMatching:
    """How the columns of a foreign spreadsheet were matched, by its header row as JSON."""

    id: int = 0
    headers: str = ""
    columns: str = ""
