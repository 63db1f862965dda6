"""Tables of the notebook, one a record type, with the record's own fields as columns."""

from __future__ import annotations

import re
from dataclasses import fields
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
from sqlalchemy.types import TypeEngine

from vadrin.notebook.records.all_records import PARENTS, RECORDS, Record

METADATA = MetaData()

_TYPES: dict[str, tuple[type[TypeEngine[Any]], bool]] = {
    "int": (Integer, False),
    "int | None": (Integer, True),
    "float": (Float, False),
    "float | None": (Float, True),
    "str": (Text, False),
    "bool": (Boolean, False),
    "bytes": (LargeBinary, False),
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
