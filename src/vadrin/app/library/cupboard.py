"""The kit as forms: which fields a record has, in words, and how they are shown and typed."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from vadrin.app.display.quantities import number_typed
from vadrin.core.exposure.arithmetic import shutter_name
from vadrin.notebook.records.all_records import Record
from vadrin.notebook.records.kit import (
    INSTRUMENT_KINDS,
    ROLES,
    STOCK_KINDS,
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
from vadrin.notebook.store import Notebook

TEXT, NUMBER, WHOLE, SECONDS, DAY, YES, CHOICE, LINK, LAW = (
    "text", "number", "whole", "seconds", "day", "yes", "choice", "link", "law",
)  # fmt: skip


@dataclass(frozen=True)
class FieldOf:
    """One field of a form: its label, how it is typed, its unit, and its bounds."""

    name: str
    label: str
    kind: str = TEXT
    unit: str = ""
    low: float = 0.0
    high: float = 1e6
    choices: tuple[str, ...] = ()
    link: type[Any] | None = None
    optional: bool = True


_NAME, _NOTE = FieldOf("name", "name"), FieldOf("note", "note")

FORMS: dict[str, tuple[type[Any], tuple[FieldOf, ...]]] = {
    "Stocks": (Stock, (
        _NAME, FieldOf("kind", "kind", CHOICE, choices=STOCK_KINDS),
        FieldOf("box_speed", "speed on the box", NUMBER, "ISO", 0.1, 1e5, optional=False),
        FieldOf("base", "base"), FieldOf("reciprocity", "beyond a second it takes", LAW), _NOTE,
    )),
    "Batches": (Batch, (
        FieldOf("stock_id", "stock", LINK, link=Stock, optional=False), _NAME,
        FieldOf("expiry", "expires"), FieldOf("storage", "stored"),
        FieldOf("rolls_left", "rolls left", WHOLE, high=100_000), _NOTE,
    )),
    "Chemistry": (Developer, (
        _NAME, FieldOf("role", "what it is", CHOICE, choices=ROLES),
        FieldOf("dilution", "dilution"), FieldOf("recipe", "recipe"),
        FieldOf("capacity_films", "capacity", NUMBER, "films a litre", 0.01, 1000),
        FieldOf("keeps_days", "keeps", NUMBER, "days", 0.01, 10_000), _NOTE,
    )),
    "Bottles": (Bottle, (
        FieldOf("developer_id", "holds", LINK, link=Developer, optional=False), _NAME,
        FieldOf("mixed_at", "mixed on", DAY),
        FieldOf("volume_ml", "volume", NUMBER, "ml", 1, 1e6),
        FieldOf("films_done", "films done", NUMBER, high=10_000, optional=False), _NOTE,
    )),
    "Processes": (Process, (
        _NAME, FieldOf("developer_id", "developer", LINK, link=Developer),
        FieldOf("temperature_c", "temperature", NUMBER, "°C", 1, 60, optional=False),
        FieldOf("agitation", "agitation"), FieldOf("vessel", "vessel"),
        FieldOf("water", "water"), FieldOf("volume_ml", "volume", NUMBER, "ml", 1, 1e6), _NOTE,
    )),
    "Papers": (Paper, (
        _NAME, FieldOf("grade", "grade or filter"),
        FieldOf("exposure_scale", "exposure scale", NUMBER, "lg H", 0.2, 3),
        FieldOf("full_black_seconds", "time for full black", NUMBER, "s", 0.01, 10_000), _NOTE,
    )),
    "Cameras": (Camera, (
        _NAME, FieldOf("slowest", "slowest shutter mark", SECONDS, optional=False),
        FieldOf("fastest", "fastest shutter mark", SECONDS, optional=False),
        FieldOf("shutter_step", "shutter marks every", NUMBER, "stop", 0.1, 2, optional=False),
        FieldOf("bulb", "holds open as long as pressed", YES),
        FieldOf("dial_low", "meter dial from EI", NUMBER, "", 0.1, 1e6),
        FieldOf("dial_high", "meter dial to EI", NUMBER, "", 0.1, 1e6),
        FieldOf("compensation", "exposure compensation ±", NUMBER, "stops", 0, 10,
                optional=False),
        FieldOf("frame_rate", "frames a second (cine)", NUMBER, "", 0.1, 1000),
        FieldOf("shutter_angle", "shutter angle (cine)", NUMBER, "°", 1, 359), _NOTE,
    )),
    "Measured shutters": (ShutterTime, (
        FieldOf("camera_id", "camera", LINK, link=Camera, optional=False),
        FieldOf("marked", "mark", SECONDS, optional=False),
        FieldOf("measured", "measured", SECONDS, optional=False),
        FieldOf("measured_at", "measured on", DAY), _NOTE,
    )),
    "Lenses": (Lens, (
        _NAME, FieldOf("widest", "widest mark f/", NUMBER, "", 0.5, 128, optional=False),
        FieldOf("smallest", "smallest mark f/", NUMBER, "", 0.7, 512, optional=False),
        FieldOf("aperture_step", "marks every", NUMBER, "stop", 0.1, 2, optional=False),
        FieldOf("light_loss", "passes less than its mark by", NUMBER, "stop", -1, 10,
                optional=False), _NOTE,
    )),
    "Light meters": (LightMeter, (
        _NAME, FieldOf("dial_low", "dial from EI", NUMBER, "", 0.1, 1e6),
        FieldOf("dial_high", "dial to EI", NUMBER, "", 0.1, 1e6),
        FieldOf("constant", "meter constant", NUMBER, "", 1, 50, optional=False), _NOTE,
    )),
    "Instruments": (Instrument, (
        _NAME, FieldOf("kind", "kind", CHOICE, choices=INSTRUMENT_KINDS),
        FieldOf("noise", "reading noise (SD)", NUMBER, "D", 0, 1),
        FieldOf("calibrated_at", "calibrated on", DAY), _NOTE,
    )),
}  # fmt: skip
"""Every kind of kit by its heading, with its record and the fields of its form."""


def title_of(notebook: Notebook, record: Any) -> str:
    """A record's name in a list."""
    owner = next((f for f in FORMS[heading_of(record)][1] if f.kind == LINK), None)
    words = [str(getattr(record, "name", ""))]
    if owner is not None and owner.link is not None and not isinstance(record, Process):
        parent = notebook.get(owner.link, getattr(record, owner.name) or 0)
        words.insert(0, str(getattr(parent, "name", "")))
    if isinstance(record, Developer):
        words.append(record.dilution)
    if isinstance(record, ShutterTime):
        words.append(shutter_name(record.marked))
    return " ".join(w for w in words if w) or "no name yet"


def heading_of(record: Record) -> str:
    """The heading a record stands under."""
    return next(h for h, (kind, _) in FORMS.items() if kind is type(record))


def shown(notebook: Notebook, record: Any, field: FieldOf) -> str:
    """A field's value as it is read and typed."""
    value = getattr(record, field.name)
    if value is None or value == "":
        return ""
    if field.kind == SECONDS:
        return shutter_name(float(value))
    if field.kind == YES:
        return "yes" if value else "no"
    if field.kind == LINK and field.link is not None:
        parent = notebook.get(field.link, int(value))
        return title_of(notebook, parent) if parent else ""
    if field.kind == DAY:
        return str(value)[:10]
    return f"{value:g}" if isinstance(value, float) else str(value)


def seconds_typed(words: str) -> float:
    """A shutter time as typed: ``1/60``, ``2``, ``0,5 s``.

    Raises
    ------
    ValueError
        With words for the person who typed it.
    """
    plain = words.strip().removesuffix("s").strip()
    part = plain.startswith("1/")
    seconds = number_typed(plain[2:] if part else plain)
    if part and seconds:
        seconds = 1.0 / seconds
    if not 1 / 20000 < seconds <= 36000:
        raise ValueError("a shutter time lies between 1/16000 and 36000 s, such as 1/30")
    return seconds


def _bounded(field: FieldOf, words: str) -> float:
    value = number_typed(words)
    if not field.low <= value <= field.high:
        raise ValueError(f"{field.label} lies between {field.low:g} and {field.high:g}")
    return value


def _day(words: str) -> str:
    try:
        return date.fromisoformat(words).isoformat()
    except ValueError as error:
        raise ValueError(f"“{words}” is no date; type it as 2026-11-23") from error


def _law(words: str) -> str:
    # Imported here so that the window need not wait for numpy.
    from vadrin.app.entry.reciprocity_entry import law_words

    return law_words(words)


def _linked(notebook: Notebook, field: FieldOf, words: str) -> int:
    if field.link is None:
        raise ValueError("nothing to choose from")
    for record in notebook.all(field.link):
        if words.lower() in (title_of(notebook, record).lower(), record.name.lower()):
            return int(record.id)
    raise ValueError(f"there is no “{words}” yet; make it first, or step by the arrow keys")


def typed(notebook: Notebook, field: FieldOf, words: str) -> Any:
    """The value of what was typed into a field.

    Raises
    ------
    ValueError
        With words for the person who typed it.
    """
    plain = words.strip()
    if not plain and field.kind not in (TEXT, CHOICE, YES, DAY, LAW):
        if field.optional:
            return None
        raise ValueError(f"{field.label} cannot be left empty")
    readers: dict[str, Callable[[], Any]] = {
        TEXT: lambda: plain,
        NUMBER: lambda: _bounded(field, plain),
        WHOLE: lambda: round(_bounded(field, plain)),
        SECONDS: lambda: seconds_typed(plain),
        DAY: lambda: _day(plain) if plain else "",
        YES: lambda: plain.lower().startswith(("y", "1", "t")),
        CHOICE: lambda: _chosen(field, plain),
        LINK: lambda: _linked(notebook, field, plain),
        LAW: lambda: _law(plain),
    }
    return readers[field.kind]()


def _chosen(field: FieldOf, words: str) -> str:
    found = [c for c in field.choices if words and c.startswith(words.lower())]
    if len(found) != 1:
        raise ValueError(f"{field.label}: one of {', '.join(field.choices)}")
    return found[0]


def steps_of_field(notebook: Notebook, field: FieldOf) -> list[str]:
    """What the arrow keys step through; empty where one types."""
    if field.kind == CHOICE:
        return list(field.choices)
    if field.kind == YES:
        return ["no", "yes"]
    if field.kind == LINK and field.link is not None:
        return [title_of(notebook, r) for r in notebook.all(field.link)]
    return []


def set_field(notebook: Notebook, record: Any, field: FieldOf, words: str) -> Any:
    """Write what was typed into a field, as one edit.

    Raises
    ------
    ValueError
        If it cannot be.
    """
    value = typed(notebook, field, words)
    with notebook.change(f"{field.label} of {title_of(notebook, record)}"):
        return notebook.put(replace(record, **{field.name: value}))


def new_record(notebook: Notebook, heading: str) -> Any:
    """Write a new record with reasonable values under a heading, as one edit.

    Raises
    ------
    ValueError
        If it must belong to something there is none of yet.
    """
    kind, fields = FORMS[heading]
    owners: dict[str, int] = {}
    for field in fields:
        if field.kind == LINK and not field.optional and field.link is not None:
            known = notebook.all(field.link)
            if not known:
                wanted = next(h for h, (k, _) in FORMS.items() if k is field.link)
                raise ValueError(f"make an entry under {wanted} first; this belongs to one")
            owners[field.name] = known[-1].id
    today: dict[str, Any] = {"mixed_at": date.today().isoformat()} if kind is Bottle else {}
    with notebook.change(f"new entry under {heading.lower()}"):
        return notebook.add(kind(**owners, **today))
