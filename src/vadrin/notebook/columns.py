"""What the columns of each record type hold, and how a value is kept in them."""

from __future__ import annotations

import json
import re
from collections.abc import Callable
from dataclasses import dataclass, fields
from enum import StrEnum
from typing import Any

from vadrin.core.channels import Channel
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.origin import Origin
from vadrin.core.planning.plan_request import Arrangement, CameraControl, Compared, FilmUnit
from vadrin.core.planning.test_options import options_from_json
from vadrin.core.process.rules_on_trial import RuleFormula
from vadrin.core.results.hold_rule import HoldRule
from vadrin.notebook.records import PARENTS

ENUMERATIONS: dict[str, type[StrEnum]] = {
    kind.__name__: kind
    for kind in (
        Arrangement,
        CameraControl,
        Channel,
        Compared,
        FilmUnit,
        FrameRole,
        FrameState,
        HoldRule,
        Origin,
        RuleFormula,
    )
}
"""The enumerations that fields of records are of, by the names of their types."""

OPTIONS = "TestOptions"
"""Type of the field that is kept as JSON of its own."""

LISTS = ("tuple[float, ...]", "tuple[str, ...]")
"""Types of fields that are kept as JSON lists."""


@dataclass(frozen=True)
class ColumnField:
    """One column.

    Attributes
    ----------
    name : str
        Of the field and of the column.
    kind : str
        Type of the field as it is written in the record.
    optional : bool
        Whether it may be NULL.
    parent : type or None
        The record type an id points at.
    """

    name: str
    kind: str
    optional: bool
    parent: type[Any] | None


def table_name(record: type[Any]) -> str:
    """The table of a record type: ``MeterReading`` lies in ``meter_reading``."""
    return re.sub(r"(?<!^)(?=[A-Z])", "_", record.__name__).lower()


_KNOWN: dict[type[Any], tuple[ColumnField, ...]] = {}


def columns_of(record: type[Any]) -> tuple[ColumnField, ...]:
    """The columns of a record type, in the order of its fields."""
    if record not in _KNOWN:
        parents = dict(PARENTS.get(record, ()))
        _KNOWN[record] = tuple(
            ColumnField(f.name, str(f.type), "None" in str(f.type), parents.get(f.name))
            for f in fields(record)
        )
    return _KNOWN[record]


def json_list(value: tuple[Any, ...] | None) -> str:
    """A tuple as it is kept."""
    return json.dumps(list(value or ()), ensure_ascii=False)


def _tuple(value: Any) -> tuple[Any, ...]:
    # Most are empty, and very many are read at once.
    held = json.loads(value) if value and value != "[]" else []
    return tuple(held) if isinstance(held, list) else ()


def _member(kind: str) -> Callable[[Any], Any]:
    members = {m.value: m for m in ENUMERATIONS[kind]}
    # A text it does not know stays a text: newer words in an old program lose nothing.
    return lambda value: members.get(value, value)


def readers_of(record: type[Any]) -> list[tuple[int, Callable[[Any], Any]]]:
    """Which columns are not kept as they are, by their places, and how each is read."""
    made: list[tuple[int, Callable[[Any], Any]]] = []
    for place, field in enumerate(columns_of(record)):
        if field.kind == "bool":
            made.append((place, bool))
        elif field.kind in LISTS:
            made.append((place, _tuple))
        elif field.kind in ENUMERATIONS:
            made.append((place, _member(field.kind)))
        elif field.kind == OPTIONS:
            made.append((place, options_from_json))
    return made
