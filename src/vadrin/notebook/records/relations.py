"""All records together: their order, and which field of one points at which other."""

from __future__ import annotations

from typing import Any

from vadrin.notebook.records.darkroom import (
    ControlStrip,
    DarkroomRun,
    ProcessStep,
    RuleTrial,
    RunEvent,
)
from vadrin.notebook.records.exposed_film import Exposure, Frame, MeterReading, Strip
from vadrin.notebook.records.film_test import Test
from vadrin.notebook.records.history import Rewrite, WritingSession
from vadrin.notebook.records.kit import (
    KIT,
    Batch,
    Bottle,
    Camera,
    Developer,
    Enlarger,
    Instrument,
    Lens,
    LightMeter,
    MakerTime,
    Paper,
    Process,
    Rule,
    ShutterTime,
    Stock,
)
from vadrin.notebook.records.print_room import PaperGrade, PrintSetup, PrintStrip, Workprint
from vadrin.notebook.records.readings_and_findings import (
    Attachment,
    ColumnMatching,
    Finding,
    Judgement,
    Note,
    Reading,
)

Record = (
    Stock
    | Batch
    | Developer
    | Bottle
    | Process
    | Paper
    | Camera
    | ShutterTime
    | Lens
    | LightMeter
    | Instrument
    | Test
    | Strip
    | Frame
    | Exposure
    | MeterReading
    | Reading
    | Finding
    | Note
    | Attachment
    | ColumnMatching
    | ProcessStep
    | DarkroomRun
    | RunEvent
    | Rule
    | RuleTrial
    | MakerTime
    | ControlStrip
    | Judgement
    | Enlarger
    | PaperGrade
    | PrintSetup
    | PrintStrip
    | Workprint
    | WritingSession
    | Rewrite
)
RECORDS: tuple[type[Record], ...] = (
    *KIT,
    PaperGrade,
    ProcessStep,
    Test,
    Strip,
    Frame,
    Exposure,
    MeterReading,
    Reading,
    Finding,
    Note,
    Attachment,
    ColumnMatching,
    DarkroomRun,
    RunEvent,
    RuleTrial,
    ControlStrip,
    Judgement,
    PrintSetup,
    PrintStrip,
    Workprint,
)
"""Owners before what belongs to them."""

PARENTS: dict[type[Record], tuple[tuple[str, type[Record]], ...]] = {
    Batch: (("stock_id", Stock),),
    Bottle: (("developer_id", Developer),),
    Process: (("developer_id", Developer),),
    ShutterTime: (("camera_id", Camera),),
    Test: (
        ("stock_id", Stock),
        ("batch_id", Batch),
        ("developer_id", Developer),
        ("like_id", Test),
        ("camera_id", Camera),
        ("lens_id", Lens),
        ("meter_id", LightMeter),
        ("instrument_id", Instrument),
        ("paper_id", Paper),
        ("process_id", Process),
        ("bottle_id", Bottle),
        ("twin_id", Camera),
    ),
    Strip: (
        ("test_id", Test),
        ("stock_id", Stock),
        ("batch_id", Batch),
        ("developer_id", Developer),
        ("camera_id", Camera),
        ("process_id", Process),
    ),
    Frame: (("strip_id", Strip),),
    Exposure: (("frame_id", Frame),),
    MeterReading: (("test_id", Test), ("frame_id", Frame)),
    Reading: (("frame_id", Frame),),
    Finding: (("test_id", Test),),
    Note: (("test_id", Test), ("frame_id", Frame)),
    Attachment: (("test_id", Test), ("stock_id", Stock), ("strip_id", Strip)),
    ProcessStep: (("process_id", Process),),
    DarkroomRun: (("test_id", Test),),
    RunEvent: (("run_id", DarkroomRun),),
    RuleTrial: (("rule_id", Rule), ("test_id", Test)),
    MakerTime: (("stock_id", Stock), ("developer_id", Developer)),
    ControlStrip: (("process_id", Process), ("run_id", DarkroomRun)),
    Judgement: (("strip_id", Strip), ("frame_id", Frame)),
    PaperGrade: (("paper_id", Paper),),
    PrintSetup: (("test_id", Test), ("enlarger_id", Enlarger), ("paper_id", Paper)),
    PrintStrip: (("setup_id", PrintSetup), ("strip_id", Strip), ("frame_id", Frame)),
    Workprint: (("setup_id", PrintSetup), ("frame_id", Frame)),
}
"""Which field of a record points at which other record."""

OWNED: set[tuple[type[Any], str]] = {
    (Batch, "stock_id"),
    (Bottle, "developer_id"),
    (ShutterTime, "camera_id"),
    (Strip, "test_id"),
    (Frame, "strip_id"),
    (Exposure, "frame_id"),
    (MeterReading, "test_id"),
    (Reading, "frame_id"),
    (Finding, "test_id"),
    (Note, "test_id"),
    (Attachment, "test_id"),
    (Attachment, "stock_id"),
    (ProcessStep, "process_id"),
    (DarkroomRun, "test_id"),
    (RunEvent, "run_id"),
    (RuleTrial, "rule_id"),
    (MakerTime, "stock_id"),
    (MakerTime, "developer_id"),
    (ControlStrip, "process_id"),
    (Judgement, "strip_id"),
    (Judgement, "frame_id"),
    (PaperGrade, "paper_id"),
    (PrintSetup, "test_id"),
    (PrintStrip, "setup_id"),
    (Workprint, "setup_id"),
}
"""What goes away together with the record it points at; other links are only let loose."""
