"""Everything hostile that Vadrin may be given, from a seed: ``hostile.py [--tables 6000] ...``.

Prints counts of what happened; lines that begin with FAULT are defects.
"""

from __future__ import annotations

import argparse
import sys
import tempfile
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from pathlib import Path

ROOT = Path(__file__).parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

from tools.hostile_guard import Counts, faults_in, limit_memory  # noqa: E402
from tools.hostile_notebooks import damaged_notebook, hostile_notebook  # noqa: E402
from tools.hostile_tables import one_table  # noqa: E402
from tools.killed_statements import ACTS, killed_at_every_statement  # noqa: E402

Case = Callable[[int, Path, Counts], None]


def _some(case: Case, seeds: range) -> Counts:
    """Run cases one after the other in a process of their own."""
    limit_memory()
    counts = Counts()
    with tempfile.TemporaryDirectory() as folder:
        for seed in seeds:
            case(seed, Path(folder), counts)
    return counts


def counted(case: Case, many: int, first: int = 0, at_once: int = 100) -> Counts:
    """Counts over many seeds, two processes at a time."""
    last = first + many
    seeds = [range(s, min(s + at_once, last)) for s in range(first, last, at_once)]
    total = Counts()
    with ProcessPoolExecutor(2, max_tasks_per_child=1) as pool:
        for part in pool.map(partial(_some, case), seeds):
            for what, count in part.of.items():
                total.add(what, part.first.get(what, ""), count)
    return total


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--tables", type=int, default=6000)
    parser.add_argument("--notebooks", type=int, default=300)
    parser.add_argument("--damaged", type=int, default=400)
    parser.add_argument("--statements", type=int, default=1, help="kill at every so many; 0: none")
    parser.add_argument("--seed", type=int, default=0)
    options = parser.parse_args()
    faults = 0
    for name, case, many in (
        ("tables", one_table, options.tables),
        ("hostile notebooks", hostile_notebook, options.notebooks),
        ("damaged notebooks", damaged_notebook, options.damaged),
    ):
        counts = counted(case, many, options.seed)
        faults += faults_in(counts)
        print(f"{many} {name}", *counts.lines(), sep="\n", flush=True)
    for act in ACTS if options.statements else ():
        counts = killed_at_every_statement(act, options.statements)
        faults += faults_in(counts)
        print(f"killed at a statement of: {act}", *counts.lines(), sep="\n", flush=True)
    print(f"{faults} faults")
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main())
