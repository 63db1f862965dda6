"""Records of the darkroom: steps of processes, and runs as they really went."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.core.origin import Origin


@dataclass(frozen=True)
class ProcessStep:
    """One step of a process; `seconds` 0 for what the test decides, its developing time."""

    id: int = 0
    process_id: int = 0
    position: int = 0
    name: str = ""
    seconds: float = 0.0
    temperature_c: float | None = None
    tolerance_k: float | None = None
    agitation: str = ""
    develops: bool = False
    may_pause: bool = False
    note: str = ""


@dataclass(frozen=True)
class DarkroomRun:
    """A run by the clock; `steps` as they were when it began (JSON)."""

    id: int = 0
    test_id: int = 0
    started_at: str = ""
    steps: str = ""
    reference_c: float = 20.0
    q10: float = 2.5
    confirmed: bool = False
    note: str = ""


@dataclass(frozen=True)
class RunEvent:
    """What happened in a run, by the wall's clock and by one that never jumps.

    `uptime` counts seconds since the machine was started, asleep or not; `boot` says which
    start that was.
    """

    id: int = 0
    run_id: int = 0
    happened_at: str = ""
    uptime: float = 0.0
    boot: str = ""
    what: str = ""
    value: float | None = None
    strip: str = ""
    value_from: Origin = Origin.UNKNOWN


@dataclass(frozen=True)
class RuleTrial:
    """What a rule predicted, sealed with its date, and what was measured afterwards."""

    id: int = 0
    rule_id: int = 0
    test_id: int | None = None
    given: float = 0.0
    usual_min: float | None = None
    predicted_min: float = 0.0
    predicted_at: str = ""
    measured_min: float | None = None
    measured_at: str = ""
    note: str = ""


@dataclass(frozen=True)
class ControlStrip:
    """A strip from one pre-exposed batch that went with a run: densities of its patches.

    Those marked `reference` say where the process should be.
    """

    id: int = 0
    process_id: int = 0
    run_id: int | None = None
    batch: str = ""
    read_at: str = ""
    fog: float = 0.0
    low: float = 0.0
    high: float = 0.0
    reference: bool = False
    note: str = ""
