"""Office files are zip archives from anywhere: looked over before anything is unpacked."""

from __future__ import annotations

import zipfile
from pathlib import Path

from vadrin.errors import FormatError

LARGEST_SHEET_FILE = 20_000_000
_LARGEST_INSIDE = 40_000_000
_MOST_PARTS = 2000
_FORBIDDEN = (
    b"<!DOCTYPE",
    b"<!ENTITY",
    "<!DOCTYPE".encode("utf-16-le"),
    "<!DOCTYPE".encode("utf-16-be"),
)


def look_over(path: Path) -> None:
    """Refuse an archive that unpacks to too much, or whose XML declares entities.

    Raises
    ------
    FormatError
        In one line.
    """
    name = path.name
    try:
        if path.exists() and not path.is_file():
            raise FormatError(f"{name}: a directory or a device, no file; check the path")
        if path.stat().st_size > LARGEST_SHEET_FILE:
            raise FormatError(
                f"{name}: larger than {LARGEST_SHEET_FILE // 1_000_000} MB; split the file"
            )
        with zipfile.ZipFile(path) as archive:
            parts = archive.infolist()
            if len(parts) > _MOST_PARTS or sum(p.file_size for p in parts) > _LARGEST_INSIDE:
                raise FormatError(
                    f"{name}: unpacks to far too much for a readings table; "
                    "check where it comes from"
                )
            for part in parts:
                if part.filename.lower().endswith((".xml", ".rels")):
                    _refuse_entities(archive.read(part), name)
    except FormatError:
        raise
    except OSError as error:
        reason = (error.strerror or "cannot be read").lower()
        raise FormatError(f"{name}: {reason}; check the path") from error
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, ValueError, EOFError) as error:
        raise FormatError(f"{name}: not a spreadsheet, or cut short; save it again") from error
    except Exception as error:  # the unpackers raise errors of their own kinds
        raise FormatError(f"{name}: damaged inside; save it again") from error


def _refuse_entities(data: bytes, name: str) -> None:
    if any(mark in data for mark in _FORBIDDEN):
        raise FormatError(f"{name}: declares XML entities, which no spreadsheet needs; refused")
