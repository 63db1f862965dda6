"""Times that were planned and that nobody noted: told apart from what strips really got."""

from __future__ import annotations

from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.stations import key_to
from vadrin.app.sheets.test_sheet import TestSheet
from vadrin.core.diagnostic import Diagnostic, Severity
from vadrin.core.wording import list_text


def planned_diagnostics(sheet: TestSheet) -> tuple[Diagnostic, ...]:
    """What is to be minded of strips whose time is only what was planned, one each."""
    return tuple(
        Diagnostic(
            "time planned",
            Severity.SERIOUS,
            f"Nobody noted how long strip {strip.strip.label} was developed: "
            f"{minutes_text(strip.strip.planned_min or 0.0, exact=True)} min is only what was "
            "planned.",
            f"Write the real time of strip {strip.strip.label} down at Process "
            f"({key_to('process')}).",
            strip.strip.label,
        )
        for strip in sheet.strips
        if strip.strip.label in sheet.only_planned()
    )


PLANNED = "planned, not noted"
"""Stands beside a time that nobody noted."""


def planned_words(sheet: TestSheet) -> str:
    """Which times are only planned, in a clause; empty where all were noted."""
    labels = sheet.only_planned()
    if not labels:
        return ""
    strips = "strip" if len(labels) == 1 else "strips"
    return f"time of {strips} {list_text(labels)} {PLANNED}"
