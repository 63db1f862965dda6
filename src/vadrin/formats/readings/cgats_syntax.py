"""CGATS.17 text (ISO 28178): any well-formed file in, as tables of named text fields."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from vadrin.errors import FormatError

_MOST_FIELDS = 2000
_MOST_VALUES = 4_000_000
_TOKEN = re.compile(r'"((?:[^"]|"")*)"|(\S+)')
_SECTIONS = {
    "BEGIN_DATA_FORMAT",
    "END_DATA_FORMAT",
    "BEGIN_DATA",
    "END_DATA",
    "NUMBER_OF_FIELDS",
    "NUMBER_OF_SETS",
}


@dataclass(frozen=True)
class CgatsTable:
    """One table: its keywords, field names, and sets with the line each began on."""

    keywords: dict[str, str]
    fields: tuple[str, ...]
    sets: tuple[tuple[int, tuple[str, ...]], ...]


@dataclass
class _Gathered:
    """What was read of the table at hand."""

    keywords: dict[str, str] = field(default_factory=dict)
    fields: list[str] = field(default_factory=list)
    values: list[tuple[int, str]] = field(default_factory=list)
    section: str = ""


def _lines(text: str) -> Iterator[tuple[int, list[str]]]:
    """Tokens of each line, without comments; quoted strings are one token."""
    for number, line in enumerate(text.splitlines(), start=1):
        tokens: list[str] = []
        for quoted, plain in _TOKEN.findall(line):
            if plain.startswith("#"):
                break
            tokens.append(plain if plain else quoted.replace('""', '"'))
        if tokens:
            yield number, tokens


def _finished(name: str, table: _Gathered, line: int) -> CgatsTable:
    width = len(table.fields)
    if not width:
        raise FormatError(f"{name}, row {line}: data without BEGIN_DATA_FORMAT before it")
    if len(table.values) % width:
        raise FormatError(
            f"{name}, row {table.values[-1][0]}: {len(table.values)} values do not make whole "
            f"rows of {width} fields; check the rows there"
        )
    sets = tuple(
        (table.values[i][0], tuple(v for _, v in table.values[i : i + width]))
        for i in range(0, len(table.values), width)
    )
    return CgatsTable(dict(table.keywords), tuple(table.fields), sets)


def _keyword(table: _Gathered, tokens: list[str]) -> None:
    if tokens[0] == "KEYWORD" or tokens[0] in _SECTIONS:
        return
    table.keywords[tokens[0]] = " ".join(tokens[1:])


def parse_cgats(text: str, name: str) -> tuple[CgatsTable, ...]:
    """Read all tables of a file.

    Parameters
    ----------
    text : str
    name : str
        The file's name, for errors.

    Raises
    ------
    FormatError
        If it holds no data, or rows that do not fill their fields.
    """
    tables: list[CgatsTable] = []
    here, line = _Gathered(), 0
    for line, tokens in _lines(text):
        word = tokens[0]
        if word == "BEGIN_DATA_FORMAT":
            here.section, here.fields = "format", list(tokens[1:])
        elif word == "BEGIN_DATA":
            here.section, here.values = "data", [(line, t) for t in tokens[1:]]
        elif word in ("END_DATA_FORMAT", "END_DATA"):
            if word == "END_DATA":
                tables.append(_finished(name, here, line))
                # A later table may leave its format out and mean the one before.
                here = _Gathered(fields=list(here.fields))
            here.section = ""
        elif here.section == "format":
            here.fields += tokens
        elif here.section == "data":
            here.values += [(line, t) for t in tokens]
        else:
            _keyword(here, tokens)
        if len(here.fields) > _MOST_FIELDS or len(here.values) > _MOST_VALUES:
            raise FormatError(f"{name}, row {line}: far too many fields for a readings table")
    if here.section:
        raise FormatError(f"{name}, row {line}: ends inside a table; END_DATA is missing")
    if not tables:
        raise FormatError(f"{name}, row {line}: no BEGIN_DATA; not a CGATS table")
    return tuple(tables)


def looks_like_cgats(text: str) -> bool:
    """Whether text is a CGATS file, whatever it is called."""
    return "BEGIN_DATA_FORMAT" in text[:200_000] or text.startswith("CGATS")
