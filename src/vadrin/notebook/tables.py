"""Tables of the notebook, one a record type, with the record's own fields as columns."""

from __future__ import annotations

from dataclasses import fields
from typing import Any

from sqlalchemy import Boolean, Column, Float, ForeignKey, Integer, MetaData, Table, Text
from sqlalchemy.types import TypeEngine

from vadrin.notebook.records import PARENTS, RECORDS, Record

METADATA = MetaData()

_TYPES: dict[str, tuple[type[TypeEngine[Any]], bool]] = {
    "int": (Integer, False),
    "int | None": (Integer, True),
    "float": (Float, False),
    "float | None": (Float, True),
    "str": (Text, False),
    "bool": (Boolean, False),
}


def _table(record: type[Record]) -> Table:
    parents = dict(PARENTS.get(record, ()))
    columns: list[Column[Any]] = []
    for field in fields(record):
        kind, optional = _TYPES[str(field.type)]
        if field.name == "id":
            columns.append(Column("id", kind, primary_key=True))
        elif field.name in parents:
            link = ForeignKey(f"{parents[field.name].__name__.lower()}.id")
            columns.append(Column(field.name, kind, link, nullable=optional, index=True))
        else:
            columns.append(Column(field.name, kind, nullable=optional))
    return Table(record.__name__.lower(), METADATA, *columns)


TABLES: dict[type[Any], Table] = {record: _table(record) for record in RECORDS}
