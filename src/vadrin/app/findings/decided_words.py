"""What was decided for a test, in a phrase."""

from __future__ import annotations

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.findings.kept_report import KeptReport
from vadrin.notebook.records import Finding

OWN_WORDS = "its own words"
"""Stands for a target where a kind of test answered something else than an EI and a time."""


def decided_text(finding: Finding) -> str:
    """``EI 125, 8:00 min``; what the kind said where it asks for something else."""
    if finding.target_kind == OWN_WORDS or finding.exposure_index <= 0:
        return _said(finding)
    index = f"EI {marked_ei(finding.exposure_index)}"
    return f"{index}, {minutes_text(finding.time_min)} min" if finding.time_min > 0 else index


def _said(finding: Finding) -> str:
    answer = KeptReport.from_json(finding.report).answer
    return "what its card says" if answer is None else answer.says
