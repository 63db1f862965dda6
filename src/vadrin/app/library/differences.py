"""What was different between two tests or strips, and what that lets one conclude."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import list_text
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.core.exposure.shutter_dial import shutter_name
from vadrin.notebook.records import (
    Batch,
    Camera,
    Developer,
    Instrument,
    Lens,
    LightMeter,
    Process,
    Stock,
)
from vadrin.notebook.store import Notebook

Conditions = dict[str, str]
"""Every condition of a run by its name in words; what was never said is an empty text."""

NOT_SAID = "not set"


@dataclass(frozen=True)
class Difference:
    """One condition that is not the same on both sides."""

    name: str
    left: str
    right: str


def _named(notebook: Notebook, kind: type, record_id: int | None) -> str:
    record = notebook.get(kind, record_id) if record_id else None
    return str(getattr(record, "name", ""))


def _common(values: Sequence[str]) -> str:
    """One value for all strips, or all of them."""
    seen = list(dict.fromkeys(v for v in values if v))
    return seen[0] if len(seen) == 1 else ", ".join(seen)


def _degrees(strips: Sequence[LoadedStrip]) -> str:
    return _common([f"{s.strip.temperature_c:g} °C" for s in strips if s.strip.temperature_c])


def conditions_of(notebook: Notebook, loaded: LoadedTest, label: str = "") -> Conditions:
    """Conditions of a whole test, or of its strip with a label.

    Development times are a condition of a strip only; of a test they are its question.
    """
    test = loaded.test
    strips = [s for s in loaded.strips if not label or s.strip.label == label]
    one = strips[0].strip if label and strips else None
    developer = loaded.developer
    if one and one.developer_id:
        developer = notebook.get(Developer, one.developer_id) or developer
    found = {
        "film": _named(notebook, Stock, one.stock_id if one else None) or loaded.stock.name,
        "batch": _named(notebook, Batch, (one and one.batch_id) or test.batch_id),
        "developer": developer.name,
        "dilution": developer.dilution,
        "process": _named(notebook, Process, (one and one.process_id) or test.process_id),
        "temperature": _degrees(strips),
        "agitation": (one.agitation if one else "") or test.agitation,
        "vessel": test.vessel,
        "water": test.water,
        "camera": _named(notebook, Camera, (one and one.camera_id) or test.camera_id),
        "lens": _named(notebook, Lens, test.lens_id),
        "light meter": _named(notebook, LightMeter, test.meter_id),
        "instrument": _named(notebook, Instrument, test.instrument_id),
        "light": test.light,
        "target": test.subject,
        "EI on the meter": f"{test.exposure_index:g}",
        "metered exposure": f"{shutter_name(test.metered_seconds)} at f/{test.aperture:g}",
        "meter constant": f"{test.meter_constant:g}",
    }
    if label:
        minutes = strips[0].minutes if strips else None
        found["development time"] = f"{minutes_text(minutes)} min" if minutes else ""
    return found


def differences(left: Conditions, right: Conditions) -> tuple[Difference, ...]:
    """The conditions that differ, in the order they are listed."""
    names = [*left, *(n for n in right if n not in left)]
    return tuple(
        Difference(n, left.get(n) or NOT_SAID, right.get(n) or NOT_SAID)
        for n in names
        if left.get(n, "") != right.get(n, "")
    )


def verdict(found: Sequence[Difference]) -> str:
    """What the differences let one conclude, and the single run that would tell more."""
    if not found:
        return (
            "No recorded condition differs. The difference may be normal scatter, or something "
            "nobody recorded."
        )
    if len(found) == 1:
        only = found[0]
        return f"Of the conditions recorded only the {only.name} differs; it is the likely cause."
    names = [d.name for d in found]
    listed = list_text(names)
    first = found[0]
    words = (
        f"{len(found)} conditions differ ({listed}), so their effects cannot be separated. One "
        f"test would show what the {first.name} does: like the first, but with {first.name} "
        f"{first.right}."
    )
    if len(found) > 2:
        words += f" Separating them takes {len(found) - 1} more tests, changing one condition each."
    return words
