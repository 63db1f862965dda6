"""Records of the print room: what the enlarger was set to, strips made at it, and prints."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class PaperGrade:
    """One grade of a paper: its exposure scale in lg H, and how many times longer it takes.

    `measured` tells a scale from one's own paper test from what the paper's sheet says.
    """

    id: int = 0
    paper_id: int = 0
    grade: str = ""
    exposure_scale: float | None = None
    factor: float | None = None
    measured: bool = False
    note: str = ""


@dataclass(frozen=True)
class PrintSetup:
    """What must not move while prints are compared; `closed_at` where it was changed after all.

    The shortest time for maximum black is `black_s`, between `black_low_s` and `black_high_s`,
    found `black_way`, through film whose base plus fog is `base_fog`.
    """

    id: int = 0
    test_id: int = 0
    enlarger_id: int | None = None
    paper_id: int | None = None
    image_size: str = ""
    aperture: float | None = None
    grade: str = ""
    paper_batch: str = ""
    developer: str = ""
    developer_s: float | None = None
    locked_at: str = ""
    closed_at: str = ""
    black_s: float | None = None
    black_low_s: float | None = None
    black_high_s: float | None = None
    black_way: str = ""
    base_fog: float | None = None
    note: str = ""


@dataclass(frozen=True)
class PrintStrip:
    """A test strip of paper: what it was for, its exposures as they were asked for.

    `step` is in seconds or in stops, as `step_unit` says; `way` is how it was covered.
    `chosen` is the exposure picked, counted from 1; of a half-covered strip `answer` tells
    whether the frame could be told. `densities` are read by reflection, where they were.
    """

    id: int = 0
    setup_id: int = 0
    position: int = 0
    purpose: str = ""
    strip_id: int | None = None
    frame_id: int | None = None
    base_s: float = 0.0
    step: float = 0.0
    step_unit: str = "stops"
    pieces: int = 1
    way: str = ""
    chosen: int | None = None
    answer: str = ""
    densities: tuple[float, ...] = ()
    made_at: str = ""
    note: str = ""


@dataclass(frozen=True)
class Workprint:
    """One print of a frame: grade, seconds, what was done to it by hand, and what it came to."""

    id: int = 0
    setup_id: int = 0
    frame_id: int | None = None
    grade: str = ""
    seconds: float = 0.0
    work: str = ""
    verdict: str = ""
    picture: str = ""
    made_at: str = ""
    note: str = ""
