"""Tables nobody should have to read: made, read under limits, and what came of it compared."""

from __future__ import annotations

import csv
import io
import random
import re
import zipfile
from pathlib import Path

from tools.hostile_guard import Counts, guarded
from vadrin.errors import FormatError, UnmatchedColumnsError
from vadrin.formats.readings.any_file import read_readings, write_readings
from vadrin.formats.readings.readings_table import ReadingsTable, TableRow
from vadrin.formats.readings.row_reading import KNOWN

NASTY = (
    "",
    " ",
    "1,600",
    "1_0",
    "1e9999",
    "nan",
    "inf",
    "-0",
    "1.234,5",
    "0x10",
    "１２",
    "²",
    "−1",
    "=1+1",
    "\x00",
    "'; drop table reading",
    "<b>x</b>",
    "a" * 5000,
    "\ud83d",
    "1,234,567",
    '"',
    "''",
    "\n",
    "\r",
    "\t",
    ";",
    "#N/A",
    "-",
    "2,5",
    "100",
    "0,49",
    "blank",
    "b1",
    "12,800",
)
HEADINGS = ("", "strip", "Density", "EI", "lg H", "grain size", "d_vis", "450", "LAB_L", "note")
XML_NUMBERS = ("0", "-1", "1", "2", "2000000000", "99999999999999999999", "x", "", "1.5", "40001")
KINDS = (".csv", ".tsv", ".cgats", ".xlsx", ".ods", ".json")


def honest(rng: random.Random) -> ReadingsTable:
    """A table as a tester might have it."""
    rows = []
    for strip in "ABCD"[: rng.randint(1, 4)]:
        for i in range(rng.randint(2, 9)):
            exposed = {"ei": float(rng.choice((50, 64, 1600))), "stops": rng.randint(-5, 5) / 2}
            if rng.random() < 0.5:
                exposed = {"log_h": round(rng.uniform(-3, 1), 3)}
            rows.append(
                TableRow(
                    len(rows) + 2,
                    strip,
                    str(i + 1),
                    round(rng.uniform(0.05, 2.5), 3),
                    time_min=6.5,
                    temperature_c=20.0,
                    channel=rng.choice(("visual", "red")),
                    note=rng.choice(("", "dust", "x, y", 'a "b"', "é\r1")),
                    extra={"grain size": rng.choice(("", "3", "fine"))},
                    **exposed,
                )
            )
    return ReadingsTable("made", tuple(rows), (), ("grain size",))


def spoilt_cells(data: bytes, rng: random.Random) -> bytes:
    """Delimited text with some cells, headings and lines changed."""
    rows = list(csv.reader(io.StringIO(data.decode(), newline="")))
    for _ in range(rng.randint(1, 4)):
        row = rng.randrange(len(rows))
        act = rng.randrange(6)
        if act == 0 and row:
            rows.insert(row, list(rows[row]))
        elif act == 1 and len(rows) > 1:
            rows[row] = rows[row][: rng.randint(0, len(rows[row]))]
        elif act == 2:
            rows[row] = [*rows[row], rng.choice(NASTY)]
        elif act == 3 and rows[0]:
            rows[0][rng.randrange(len(rows[0]))] = rng.choice(HEADINGS)
        elif rows[row]:
            rows[row][rng.randrange(len(rows[row]))] = rng.choice(NASTY)
    out = io.StringIO(newline="")
    mark = rng.choice((",", ";", "\t"))
    csv.writer(out, delimiter=mark, quoting=rng.choice((0, 1))).writerows(rows)
    encoding = rng.choice(("utf-8", "utf-8", "utf-8-sig", "utf-16", "latin-1"))
    return out.getvalue().encode(encoding, "replace")


def spoilt_bytes(data: bytes, rng: random.Random) -> bytes:
    """Flips, cuts, and pieces put in twice."""
    made = bytearray(data)
    for _ in range(rng.randint(1, 6)):
        at = rng.randrange(max(len(made), 1))
        act = rng.randrange(4)
        if act == 0 and made:
            made[at] = rng.randrange(256)
        elif act == 1:
            made = made[:at]
        elif act == 2:
            made[at:at] = made[at : at + rng.randint(1, 400)]
        else:
            made[at:at] = rng.choice(NASTY).encode("utf-8", "replace")[:60]
    return bytes(made)


def spoilt_archive(data: bytes, rng: random.Random) -> bytes:
    """An archive whole as such, with numbers and pieces of its sheets changed."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as source, zipfile.ZipFile(out, "w") as made:
        for item in source.infolist():
            inside = source.read(item)
            if item.filename.endswith((".xml", ".rels")) and rng.random() < 0.5:
                inside = _spoilt_xml(inside.decode(), rng).encode("utf-8", "replace")
            made.writestr(item.filename, inside)
    return out.getvalue()


def _spoilt_xml(text: str, rng: random.Random) -> str:
    act = rng.randrange(6)
    if act == 0:
        numbers = list(re.finditer(r'(?:\br|repeated|ref|value)="([^"]*)"', text))
        if numbers:
            found = rng.choice(numbers)
            text = text[: found.start(1)] + rng.choice(XML_NUMBERS) + text[found.end(1) :]
    elif act == 1:
        text = re.sub(r"<row ", '<row r="1" ', text, count=rng.randint(1, 3))
    elif act == 2:
        text = text.replace('state="visible"', 'state="hidden"')
    elif act == 3:
        text = '<!DOCTYPE x [<!ENTITY a "b">]>' + text
    elif act == 4:
        text = re.sub(r'(<c r=")[A-Z]+', r"\1XFD", text, count=rng.randint(1, 5))
    else:
        many = rng.choice(XML_NUMBERS)
        cell = f'<table:table-cell table:number-columns-repeated="{many}"'
        text = text.replace("<table:table-cell", cell, rng.randint(1, 3))
    return text


def lost_in(data: bytes, table: ReadingsTable) -> list[str]:
    """Cells of delimited text that are neither in the table, nor named as not to be read."""
    text = data.decode("utf-16" if data[:2] in (b"\xff\xfe", b"\xfe\xff") else "utf-8-sig")
    first = text.splitlines()[0] if text.strip() else ""
    mark = max("\t;,", key=first.count)
    rows = list(csv.reader(io.StringIO(text, newline=""), delimiter=mark))
    headings = [h.strip().lower() or f"column {i}" for i, h in enumerate(rows[0], start=1)]
    said = {p.row for p in table.problems}
    by_row = {r.row: r for r in table.rows}
    lost = []
    for number, cells in enumerate(rows[1:], start=2):
        if number in said or not any(c.strip() for c in cells):
            continue
        kept = by_row.get(number)
        for heading, cell in zip(headings, cells, strict=False):
            if cell.strip() and not _holds(kept, heading, cell.strip()):
                lost.append(f"row {number} {heading} {cell[:20]!r}")
    return lost


def _holds(row: TableRow | None, heading: str, cell: str) -> bool:
    if row is None:
        return False
    if heading not in KNOWN:
        return row.extra.get(heading, "").strip() == cell
    value = getattr(row, heading)
    if value is None:
        # A blank that names the meter's EI has no exposure all the same.
        return heading == "ei"
    if isinstance(value, str):
        return value.lower() == cell.lower()
    return abs(float(cell.replace("−", "-").replace(",", ".")) - value) < 1e-12


def one_table(seed: int, folder: Path, counts: Counts) -> None:
    """Make one table, spoil it, read it, and write what was read out and in again."""
    rng = random.Random(seed)
    kind = rng.choice(KINDS)
    path = folder / f"case{seed}{kind}"
    write_readings(honest(rng), path)
    data = path.read_bytes()
    as_cells = kind == ".csv" and rng.random() < 0.8
    if as_cells:
        data = spoilt_cells(data, rng)
    elif kind in (".xlsx", ".ods") and rng.random() < 0.8:
        data = spoilt_archive(data, rng)
    else:
        data = spoilt_bytes(data, rng)
    path.write_bytes(data)
    case = f"table {seed} {kind}"
    table = guarded(lambda: read_readings(path), counts, case)
    if path.read_bytes() != data:
        counts.add("FAULT original changed", case)
    if isinstance(table, ReadingsTable):
        counts.add("read")
        lost = lost_in(data, table) if as_cells else []
        if lost:
            counts.add("FAULT cells dropped or altered", f"{case}: {lost[0]}")
        _there_and_back(table, rng.choice(KINDS), folder, counts, case)
    path.unlink()


def _there_and_back(
    table: ReadingsTable, kind: str, folder: Path, counts: Counts, case: str
) -> None:
    """What it reads it writes, and what it writes it reads."""
    if not table.rows:
        return
    path = folder / f"back{kind}"
    case = f"{case} to {kind}"
    guarded(lambda: write_readings(table, path), counts, case)
    if not path.exists():
        return
    try:
        again = guarded(lambda: read_readings(path), counts, case)
    except (FormatError, UnmatchedColumnsError):
        again = None
    path.unlink()
    if not isinstance(again, ReadingsTable):
        counts.add("FAULT does not read what it wrote", case)
        return
    plain = [_plain(r) for r in table.rows]
    back = [_plain(r) for r in again.rows]
    if kind == ".cgats":
        plain, back = sorted(plain, key=repr), sorted(back, key=repr)
    if plain != back:
        first = next(((a, b) for a, b in zip(plain, back, strict=False) if a != b), "count")
        counts.add("FAULT comes back altered", f"{case}: {first}"[:300])


def _plain(row: TableRow) -> tuple[object, ...]:
    """What a row says, but for its place and spaces that some formats can't hold."""
    bare = row._replace(row=0, extra={}, note="")
    words = (
        *(
            " ".join(re.sub(r"[\x00-\x1f\ufffe\uffff]", " ", v).split())
            for v in (row.strip, row.frame)
        ),
    )
    unknown = sum(bool(v.strip()) for v in row.extra.values())
    return (
        *words,
        bare.density,
        bare.time_min,
        bare.temperature_c,
        bare.log_h,
        bare.ei,
        bare.stops_told,
        bare.channel,
        unknown,
    )
