"""Records of the notebook as frozen data. A record with id 0 has not been written yet."""

from vadrin.notebook.records.darkroom import (
    ControlStrip,
    DarkroomRun,
    ProcessStep,
    RuleTrial,
    RunEvent,
)
from vadrin.notebook.records.exposed_film import Exposure, Frame, MeterReading, Strip
from vadrin.notebook.records.film_test import Test
from vadrin.notebook.records.kit import (
    KIT,
    Batch,
    Bottle,
    Camera,
    Developer,
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
from vadrin.notebook.records.readings_and_findings import (
    Attachment,
    ColumnMatching,
    Finding,
    Judgement,
    Note,
    Reading,
)
from vadrin.notebook.records.relations import OWNED, PARENTS, RECORDS, Record

__all__ = [
    "KIT",
    "OWNED",
    "PARENTS",
    "RECORDS",
    "Attachment",
    "Batch",
    "Bottle",
    "Camera",
    "ColumnMatching",
    "ControlStrip",
    "DarkroomRun",
    "Developer",
    "Exposure",
    "Finding",
    "Frame",
    "Instrument",
    "Judgement",
    "Lens",
    "LightMeter",
    "MakerTime",
    "MeterReading",
    "Note",
    "Paper",
    "Process",
    "ProcessStep",
    "Reading",
    "Record",
    "Rule",
    "RuleTrial",
    "RunEvent",
    "ShutterTime",
    "Stock",
    "Strip",
    "Test",
]
