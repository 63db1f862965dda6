"""Tables of the notebook, one a record type, with the record's own fields as columns."""

from __future__ import annotations

import json
import re
from dataclasses import fields
from enum import StrEnum
from typing import Any

from sqlalchemy import (
    Boolean,
    Column,
    Float,
    ForeignKey,
    Integer,
    LargeBinary,
    MetaData,
    Table,
    Text,
)
from sqlalchemy.types import TypeDecorator, TypeEngine

from vadrin.core.channels import Channel
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.planning.plan_request import Arrangement, CameraControl, Compared, FilmUnit
from vadrin.notebook.records import PARENTS, RECORDS, Record

METADATA = MetaData()


class EnumText(TypeDecorator[StrEnum]):
    """A member of an enumeration, kept as its text; a text it does not know stays a text."""

    impl = Text
    cache_ok = True

    def __init__(self, members: type[StrEnum]) -> None:
        super().__init__()
        self._members = {m.value: m for m in members}

    def process_bind_param(self, value: StrEnum | str | None, dialect: Any) -> str | None:
        """As it is written."""
        return None if value is None else str(value)

    def process_result_value(self, value: Any, dialect: Any) -> Any:
        """As it is read."""
        return self._members.get(value, value)


class JsonTuple(TypeDecorator[tuple[Any, ...]]):
    """A tuple of numbers or texts, kept as a JSON list."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: tuple[Any, ...] | None, dialect: Any) -> str:
        """As it is written."""
        return json.dumps(list(value or ()), ensure_ascii=False)

    def process_result_value(self, value: Any, dialect: Any) -> tuple[Any, ...]:
        """As it is read."""
        held = json.loads(value) if value else []
        return tuple(held) if isinstance(held, list) else ()


ENUMERATIONS: dict[str, type[StrEnum]] = {
    kind.__name__: kind
    for kind in (
        Arrangement, CameraControl, Channel, Compared, FilmUnit, FrameRole, FrameState,
    )
}  # fmt: skip
"""The enumerations that fields of records are of, by the names of their types."""

_TYPES: dict[str, tuple[TypeEngine[Any], bool]] = {
    "int": (Integer(), False),
    "int | None": (Integer(), True),
    "float": (Float(), False),
    "float | None": (Float(), True),
    "str": (Text(), False),
    "bool": (Boolean(), False),
    "bytes": (LargeBinary(), False),
    "tuple[float, ...]": (JsonTuple(), False),
    "tuple[str, ...]": (JsonTuple(), False),
    **{name: (EnumText(kind), False) for name, kind in ENUMERATIONS.items()},
}


def table_name(record: type[Any]) -> str:
    """The table of a record type: ``MeterReading`` lies in ``meter_reading``."""
    return re.sub(r"(?<!^)(?=[A-Z])", "_", record.__name__).lower()


def _table(record: type[Record]) -> Table:
    parents = dict(PARENTS.get(record, ()))
    columns: list[Column[Any]] = []
    for field in fields(record):
        kind, optional = _TYPES[str(field.type)]
        if field.name == "id":
            columns.append(Column("id", kind, primary_key=True))
        elif field.name in parents:
            link = ForeignKey(f"{table_name(parents[field.name])}.id")
            columns.append(Column(field.name, kind, link, nullable=optional, index=True))
        else:
            columns.append(Column(field.name, kind, nullable=optional))
    return Table(table_name(record), METADATA, *columns)


TABLES: dict[type[Any], Table] = {record: _table(record) for record in RECORDS}
