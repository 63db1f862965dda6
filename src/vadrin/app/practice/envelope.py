"""The envelope: the truth of a practice film, sealed so that nobody reads it by chance.

Sealed is not secret: who has the seed and this program can make the film again. The digest shows
that what is opened is what was sealed.
"""

from __future__ import annotations

import base64
import hashlib
import json
import zlib
from pathlib import Path
from typing import Any

from vadrin.app.practice.practice_place import TRUTH
from vadrin.errors import FormatError

SCHEMA = "vadrin-practice/1"
_LONGEST = 200_000
"""Bytes of an envelope, and of what it holds."""


def sealed(truth: dict[str, Any]) -> dict[str, str]:
    """A truth as it is written into a file: nothing of it can be read, and its digest.

    Parameters
    ----------
    truth : dict
        Plain JSON data.
    """
    plain = json.dumps(truth, sort_keys=True).encode("utf-8")
    return {
        "schema": SCHEMA,
        "sealed": base64.b64encode(zlib.compress(plain, 9)).decode("ascii"),
        "sha256": hashlib.sha256(plain).hexdigest(),
    }


def opened(text: str, name: str) -> dict[str, Any]:
    """The truth out of an envelope.

    Parameters
    ----------
    text : str
        Of the file.
    name : str
        Of the file, for what is said of it.

    Raises
    ------
    FormatError
        If it is no envelope, or another than was sealed.
    """
    try:
        told = json.loads(text) if len(text) <= _LONGEST else {}
        if not isinstance(told, dict) or told.get("schema") != SCHEMA:
            raise FormatError(f"{name}: no envelope of a practice film")
        unpacking = zlib.decompressobj()
        plain = unpacking.decompress(base64.b64decode(str(told["sealed"])), _LONGEST)
        if hashlib.sha256(plain).hexdigest() != told.get("sha256"):
            raise FormatError(f"{name}: changed since it was sealed; make the film again")
        truth = json.loads(plain)
    except (ValueError, KeyError, zlib.error, RecursionError) as error:
        raise FormatError(f"{name}: damaged; make the film again from its seed") from error
    if not isinstance(truth, dict):
        raise FormatError(f"{name}: damaged; make the film again from its seed")
    return truth


def open_envelope(folder: Path) -> dict[str, Any]:
    """The truth of a practice film, out of its envelope.

    Raises
    ------
    FormatError
        If there is none, or it was changed.
    """
    path = folder / TRUTH
    try:
        text = path.read_text("utf-8")
    except (OSError, UnicodeDecodeError) as error:
        raise FormatError(f"{path}: no envelope to open here; name its folder") from error
    return opened(text, str(path))
