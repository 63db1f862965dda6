"""``vadrin bench``: how fast the work goes."""

from collections.abc import Callable

from tools.bench.fits import fit_rows
from tools.bench.pictures import picture_rows
from tools.bench.rows import row_rows
from tools.bench.scans import scan_rows
from tools.bench.shelf import shelf_rows
from tools.bench.window import window_rows

PARTS: tuple[Callable[[], list[str]], ...] = (
    fit_rows,
    picture_rows,
    window_rows,
    row_rows,
    shelf_rows,
    scan_rows,
)


def run() -> int:
    """Print the table, part by part."""
    for rows in PARTS:
        print("\n".join(rows()), flush=True)
        print()
    return 0
