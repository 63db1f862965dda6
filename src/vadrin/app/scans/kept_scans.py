"""Scans that readings came from: kept by reference, known again by their checksum."""

from __future__ import annotations

import io
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np
from PIL import Image

from vadrin.app.loaded.loaded_test import LoadedStrip
from vadrin.app.stamps import now
from vadrin.errors import EntryError
from vadrin.formats.pictures.picture_reader import checksum
from vadrin.notebook.records import Attachment
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.arrays import Array

SCAN_TYPE = "image/jpeg; preview"
_PREVIEW_WIDE, _QUALITY = 900, 80
_MOST_LOOKED_AT = 400
"""Files looked at where a scan is not where it was."""


def preview_of(small: Array) -> bytes:
    """A small picture to be kept with the notebook, as an eye sees it."""
    share = np.clip(small / max(float(small.max()), 1e-9), 0, 1) ** (1 / 2.2)
    image = Image.fromarray((255 * share).astype(np.uint8))
    if image.width > _PREVIEW_WIDE:
        image = image.resize((_PREVIEW_WIDE, max(1, image.height * _PREVIEW_WIDE // image.width)))
    made = io.BytesIO()
    image.save(made, "JPEG", quality=_QUALITY)
    return made.getvalue()


def scans_of(notebook: Notebook, strip: LoadedStrip) -> list[Attachment]:
    """The scans of a strip, the newest last."""
    return [a for a in notebook.all(Attachment, strip_id=strip.strip.id) if a.path]


def keep_scan(
    notebook: Notebook, strip: LoadedStrip, path: Path, digest: str, preview: bytes
) -> None:
    """Remember which picture a strip was read from, and where it lies; once for each picture."""
    known = next((a for a in scans_of(notebook, strip) if a.checksum == digest), None)
    where = str(path.resolve())
    with notebook.change(f"keep {path.name}"):
        if known is None:
            notebook.add(
                Attachment(
                    test_id=strip.strip.test_id,
                    strip_id=strip.strip.id,
                    name=path.name,
                    media_type=SCAN_TYPE,
                    added_at=now(),
                    data=preview,
                    path=where,
                    checksum=digest,
                    size=path.stat().st_size,
                )
            )
        elif known.path != where:
            notebook.put(replace(known, path=where))


def picture_file(notebook: Notebook, kept: Attachment) -> Path:
    """Where a scan lies now: where it was, or near the notebook under any name.

    Raises
    ------
    EntryError
        If it is not there, or is another picture by now.
    """
    before = Path(kept.path)
    if before.is_file():
        if checksum(before) == kept.checksum:
            return before
        raise EntryError(f"{kept.name} is not the picture that was read. Open it again")
    for near in _near(before, notebook.path):
        if near.stat().st_size == kept.size and checksum(near) == kept.checksum:
            with notebook.change(f"{kept.name} was moved"):
                notebook.put(replace(kept, path=str(near)))
            return near
    raise EntryError(f"{kept.name} is not at {before.parent} any more: show where it is")


def _near(before: Path, notebook: Path) -> list[Path]:
    """Files where a moved scan may be: in the folders it was under, and by the notebook."""
    folders = [before.parent, before.parent.parent, notebook.parent]
    found: list[Path] = []
    for folder in dict.fromkeys(f for f in folders if f.is_dir()):
        for path in (*sorted(folder.iterdir()), *sorted(folder.glob("*/*"))):
            if len(found) >= _MOST_LOOKED_AT:
                return found
            if path.is_file() and path.suffix == before.suffix and path not in found:
                found.append(path)
    return found
