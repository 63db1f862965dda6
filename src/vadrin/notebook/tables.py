"""Tables of the notebook for SQLAlchemy, one a record type, as `columns` has them."""

from __future__ import annotations

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

from vadrin.core.planning.test_options import NO_OPTIONS, TestOptions, options_to_json
from vadrin.notebook.columns import ENUMERATIONS, LISTS, OPTIONS, columns_of, json_list, table_name
from vadrin.notebook.records import RECORDS
from vadrin.notebook.records.history import HISTORY

METADATA = MetaData()


class EnumText(TypeDecorator[StrEnum]):
    """A member of an enumeration, kept as its text."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: StrEnum | str | None, dialect: Any) -> str | None:
        """As it is written."""
        return None if value is None else str(value)


class JsonTuple(TypeDecorator[tuple[Any, ...]]):
    """A tuple of numbers or texts, kept as a JSON list."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: tuple[Any, ...] | None, dialect: Any) -> str:
        """As it is written."""
        return json_list(value)


class OptionsText(TypeDecorator[TestOptions]):
    """Options of a test, kept as JSON."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: TestOptions | None, dialect: Any) -> str:
        """As it is written."""
        return options_to_json(value or NO_OPTIONS)


_TYPES: dict[str, TypeEngine[Any]] = {
    "int": Integer(),
    "float": Float(),
    "str": Text(),
    "bool": Boolean(),
    "bytes": LargeBinary(),
    OPTIONS: OptionsText(),
    **{kind: JsonTuple() for kind in LISTS},
    **{name: EnumText() for name in ENUMERATIONS},
}


def _table(record: type[Any]) -> Table:
    made: list[Column[Any]] = []
    for field in columns_of(record):
        kind = _TYPES[field.kind.removesuffix(" | None")]
        if field.name == "id":
            made.append(Column("id", kind, primary_key=True))
        elif field.parent is not None:
            link = ForeignKey(f"{table_name(field.parent)}.id")
            made.append(Column(field.name, kind, link, nullable=field.optional, index=True))
        else:
            made.append(Column(field.name, kind, nullable=field.optional))
    return Table(table_name(record), METADATA, *made)


TABLES: dict[type[Any], Table] = {record: _table(record) for record in (*RECORDS, *HISTORY)}
