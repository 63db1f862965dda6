"""Readings from CGATS tables, and readings written as CGATS tables."""

from __future__ import annotations

import re
from collections.abc import Callable

import numpy as np

from vadrin.core.materials.spectral import (
    density_of_luminance,
    luminance_of_lightness,
    visual_density,
)
from vadrin.errors import FormatError
from vadrin.formats.readings.cell_numbers import number_of
from vadrin.formats.readings.cgats_syntax import CgatsTable, parse_cgats
from vadrin.formats.readings.column_matching import RawTable, one_development_each, table_of
from vadrin.formats.readings.readings_table import CellProblem, ReadingsTable, TableRow
from vadrin.formats.readings.row_reading import KNOWN

_DENSITIES = {"D_VIS": "visual", "D_RED": "red", "D_GREEN": "green", "D_BLUE": "blue", "D_UV": "uv"}
_FIELD_OF = {channel: name for name, channel in _DENSITIES.items()}
_NAMES = ("SAMPLE_ID", "SAMPLE_NAME", "SAMPLEID", "SAMPLE", "PATCH_ID", "ID")
_SPECTRAL = re.compile(r"^(?:SPECTRAL_(?:NM_?)?|SPEC_?|NM_?|T_)?(\d{3})(?:NM)?(?:\.0+)?$")
_OWN = {"STRIP", "FRAME", "TIME_MIN", "TEMPERATURE_C", "LOG_H", "EI", "STOPS", "NOTE"}
_FOREIGN = "X_"
"""Begins the field of an unknown column whose own name would mean something here."""
_NO_VALUE = {"", "-", "--", "n/a", "nan"}
_IN_WORDS = {"STRIP", "FRAME", "NOTE"}


def _spectral_columns(table: CgatsTable) -> tuple[list[int], np.ndarray]:
    found = {int(m[1]): i for i, f in enumerate(table.fields) if (m := _SPECTRAL.match(f.upper()))}
    nm = sorted(w for w in found if 300 <= w <= 1100)
    return [found[w] for w in nm], np.array(nm, dtype=np.float64)


def _share(values: list[float]) -> float:
    """What 100 % is: files give colour values and spectra as shares or in per cent."""
    return 100.0 if values and max(values) > 2.0 else 1.0


def _floats(texts: list[str]) -> list[float]:
    kept = []
    for text in texts:
        try:
            kept.append(number_of(text))
        except ValueError:
            continue
    return kept


def _density_of(table: CgatsTable) -> dict[str, Callable[[tuple[str, ...]], str]]:
    """For every channel the table can tell, how a set's density is found, as text."""
    upper = [f.upper() for f in table.fields]
    found: dict[str, Callable[[tuple[str, ...]], str]] = {}
    for name, channel in _DENSITIES.items():
        if name in upper:
            found[channel] = _taker(upper.index(name))
    if "D_MAJOR_FILTER" in upper and not found:
        found["visual"] = _taker(upper.index("D_MAJOR_FILTER"))
    if "visual" in found:
        return found
    columns, nm = _spectral_columns(table)
    if len(columns) >= 8 and nm[0] <= 450 and nm[-1] >= 650:
        whole = _share(_floats([row[c] for _, row in table.sets for c in columns]))
        found["visual"] = lambda row: _from_spectrum(row, columns, nm, whole)
    elif "XYZ_Y" in upper:
        at = upper.index("XYZ_Y")
        share = _share(_floats([row[at] for _, row in table.sets]))
        found["visual"] = lambda row: repr(density_of_luminance(number_of(row[at]) / share))
    elif "LAB_L" in upper:
        light = upper.index("LAB_L")
        found["visual"] = lambda row: repr(
            density_of_luminance(luminance_of_lightness(number_of(row[light])))
        )
    return found


def _taker(column: int) -> Callable[[tuple[str, ...]], str]:
    return lambda row: row[column]


def _from_spectrum(row: tuple[str, ...], columns: list[int], nm: np.ndarray, whole: float) -> str:
    light = np.array([number_of(row[c]) for c in columns]) / whole
    return repr(float(visual_density(nm, light)))


def _named(table: CgatsTable, row: tuple[str, ...], label: str) -> dict[str, str]:
    """What a set says besides its densities, under the readings table's names."""
    cells = {"strip": label}
    for field, value in zip(table.fields, row, strict=True):
        name = field.upper()
        if name in _OWN:
            # A frame may be called "-": only where a number belongs does that stand for none.
            none = name not in _IN_WORDS and value.lower() in _NO_VALUE
            cells[name.lower()] = "" if none else value
        elif not name.startswith(("D_", "XYZ_", "LAB_")) and not _SPECTRAL.match(name):
            cells.setdefault(name.removeprefix(_FOREIGN).lower(), value)
    if "frame" not in cells:
        first = next((n.lower() for n in _NAMES if n.lower() in cells), "")
        cells["frame"] = cells.get(first, "")
    for used in _NAMES:
        if cells.get(used.lower()) == cells["frame"] or used == "SAMPLE_ID":
            cells.pop(used.lower(), None)
    return cells


def _rows_of(
    table: CgatsTable, label: str, name: str
) -> tuple[list[TableRow], list[CellProblem], set[str]]:
    rows: list[TableRow] = []
    problems: list[CellProblem] = []
    extra: set[str] = set()
    takers = _density_of(table)
    for line, values in table.sets:
        for channel, take in takers.items():
            try:
                density = take(values)
            except (ValueError, OverflowError):
                problems.append(
                    CellProblem(line, channel, values[0], "no density can be made of this set")
                )
                continue
            if density.lower() in _NO_VALUE:
                continue
            cells = {**_named(table, values, label), "density": density, "channel": channel}
            read = table_of(
                RawTable(name, tuple(cells), ((line, tuple(cells.values())),)), tuple(cells)
            )
            rows += read.rows
            problems += read.problems
            extra |= {c for c in cells if c not in KNOWN}
    return rows, problems, extra


def parse_cgats_readings(text: str, name: str) -> ReadingsTable:
    """Read every density, spectrum or colour value of a file as readings.

    Parameters
    ----------
    text : str
    name : str

    Returns
    -------
    ReadingsTable
        Tables without a strip field become strips A, B, C …; foreign fields are kept.

    Raises
    ------
    FormatError
        If nothing in it can be made a density.
    """
    rows: list[TableRow] = []
    problems: list[CellProblem] = []
    extra: set[str] = set()
    for place, table in enumerate(parse_cgats(text, name)):
        label = chr(65 + place % 26) + (str(place // 26 + 1) if place >= 26 else "")
        more, faults, fields = _rows_of(table, label, name)
        rows += more
        problems += faults
        extra |= fields
    if not rows and not problems:
        raise FormatError(
            f"{name}: no densities, spectra or colour values; it needs D_VIS or one like it"
        )
    rows, split = one_development_each(rows)
    return ReadingsTable(name, tuple(rows), (*problems, *split), tuple(sorted(extra)))


def _quoted(value: str | float | None) -> str:
    if value is None:
        return '""'
    if isinstance(value, float):
        return repr(value)
    return '"' + re.sub(r"\s+", " ", value).replace('"', '""') + '"'


def _field_of(column: str) -> str:
    """The field an unknown column becomes, which no reader takes for a known one."""
    name = re.sub(r"[^A-Z0-9_.-]+", "_", column.upper()) or "COLUMN"
    meant = name.startswith(("D_", "XYZ_", "LAB_", _FOREIGN)) or _SPECTRAL.match(name)
    return _FOREIGN + name if meant or name in (*_OWN, *_NAMES) else name


def _fields_of(columns: tuple[str, ...]) -> dict[str, str]:
    """The field of each unknown column, each another."""
    made: dict[str, str] = {}
    for column in columns:
        name, number = _field_of(column), 1
        while name in made.values():
            number += 1
            name = f"{_field_of(column)}_{number}"
        made[column] = name
    return made


def _table_text(rows: list[TableRow], channel: str, extra: tuple[str, ...]) -> list[str]:
    foreign = tuple(_fields_of(extra).values())
    own = ("STRIP", "FRAME", "TIME_MIN", "TEMPERATURE_C", "LOG_H", "EI", "STOPS")
    custom = [*own, *(["D_UV"] if channel == "uv" else []), "NOTE", *foreign]
    fields = ["SAMPLE_ID", *own, _FIELD_OF[channel], "NOTE", *foreign]
    lines = [f'KEYWORD "{name}"' for name in custom]
    lines += [f"NUMBER_OF_FIELDS {len(fields)}", "BEGIN_DATA_FORMAT", "\t".join(fields)]
    lines += ["END_DATA_FORMAT", f"NUMBER_OF_SETS {len(rows)}", "BEGIN_DATA"]
    for number, r in enumerate(rows, start=1):
        values = (
            r.strip,
            r.frame,
            r.time_min,
            r.temperature_c,
            r.log_h,
            r.ei,
            r.stops_told,
            r.density,
            r.note,
            *(r.extra.get(e, "") for e in extra),
        )
        lines.append("\t".join([str(number), *(_quoted(v) for v in values)]))
    return [*lines, "END_DATA"]


def cgats_text(table: ReadingsTable) -> str:
    """A readings table as CGATS.17, one table a channel, numbers to their last digit."""
    extra = table.extra_columns
    lines = [
        "CGATS.17",
        'ORIGINATOR "Vadrin"',
        f"DESCRIPTOR {_quoted('film readings from ' + table.source)}",
    ]
    for channel in _FIELD_OF:
        rows = [r for r in table.rows if r.channel == channel]
        if rows:
            lines += ["", *_table_text(rows, channel, extra)]
    return "\n".join(lines) + "\n"
