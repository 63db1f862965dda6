"""A file whose list of tables is lost, given that of a fresh notebook.

Every notebook of a format that was made new has its tables at the same pages, so a fresh one tells
where they begin. Pages of the list itself, and those that the end of the file took, come from it.
Source: the SQLite database file format, sections 1.3 and 1.6.
"""

from __future__ import annotations

import struct
from pathlib import Path
from tempfile import TemporaryDirectory

from vadrin.notebook.file import prepare

_HEADER = 100
_INTERIOR, _LEAF = 5, 13
_DEEPEST = 6


def _pages_of_list(data: bytes, size: int, page: int = 1, depth: int = 0) -> list[int]:
    """Numbers of the pages that hold the list of tables."""
    start = (page - 1) * size
    head = start + (_HEADER if page == 1 else 0)
    kind, cells = data[head], struct.unpack(">H", data[head + 3 : head + 5])[0]
    if kind == _LEAF or depth > _DEEPEST:
        return [page]
    children = [struct.unpack(">I", data[head + 8 : head + 12])[0]]
    for i in range(cells):
        place = start + struct.unpack(">H", data[head + 12 + 2 * i : head + 14 + 2 * i])[0]
        children.append(struct.unpack(">I", data[place : place + 4])[0])
    found = [page]
    for child in children:
        found += _pages_of_list(data, size, child, depth + 1)
    return found


def grafted(damaged: Path, folder: Path) -> Path | None:
    """A copy of a damaged notebook that has the list of tables of a fresh one.

    Parameters
    ----------
    damaged : Path
    folder : Path
        Where the copy goes.

    Returns
    -------
    Path or None
        None where the pages are of another size.
    """
    with TemporaryDirectory() as place:
        fresh = Path(place) / "fresh.vadrin"
        prepare(fresh)
        whole = fresh.read_bytes()
    made = bytearray(damaged.read_bytes())
    size = struct.unpack(">H", whole[16:18])[0]
    if len(made) >= 18 and struct.unpack(">H", made[16:18])[0] not in (size, 0):
        return None
    made += whole[len(made) :]
    made += bytes(-len(made) % size)
    for page in _pages_of_list(whole, size):
        start = (page - 1) * size
        made[start : start + size] = whole[start : start + size]
    # The count of pages, and no list of free ones.
    made[28:32] = struct.pack(">I", len(made) // size)
    made[32:40] = bytes(8)
    copy = folder / "grafted.vadrin"
    copy.write_bytes(made)
    return copy
