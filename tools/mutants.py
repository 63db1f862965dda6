"""Plant small faults in the code, one at a time, and count how many the tests notice.

``python tools/mutants.py --map`` runs the suite once and keeps which test runs which line (some
fifteen minutes). ``python tools/mutants.py [--seed N] [--core N] [--app N]`` then draws places
of ``core`` and of ``app``, changes each in a copy of the repository and runs the tests that come
by that line: numbers are raised by one, or tenfold, conditions turned round, sums and calls
changed or left out. What no test noticed is listed with its line before and after.
Leaves with 1 where fewer than 85 of 100 were noticed.
"""

from __future__ import annotations

import argparse
import ast
import json
import os
import re
import shutil
import sqlite3
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue
from random import Random

ROOT = Path(__file__).resolve().parent.parent
ROOMS = ("core", "app")
WANTED = 0.85
_SAID = "tests/app/test_said_of_demo.py::test_every_function_says_of_the_demo_what_it_said"
_FOUND = "tests/core/test_found_of_films.py::test_what_is_found_of_made_up_films_is_what_it_was"
"""Come by nearly every line, one in a program of its own: always among those that are run."""
MOST_TESTS, MOST_SECONDS = 160, 120.0
"""Run for one place: half of them the quickest, half drawn from the others."""
KEPT = ROOT / ".mutants"

_COMPARED: dict[type[ast.cmpop], str] = {
    ast.Lt: ">=",
    ast.LtE: ">",
    ast.Gt: "<=",
    ast.GtE: "<",
    ast.Eq: "!=",
    ast.NotEq: "==",
    ast.Is: "is not",
    ast.IsNot: "is",
    ast.In: "not in",
    ast.NotIn: "in",
}
_ARITHMETIC: dict[type[ast.operator], str] = {
    ast.Add: "-",
    ast.Sub: "+",
    ast.Mult: "/",
    ast.Div: "*",
    ast.FloorDiv: "*",
    ast.Pow: "*",
}


@dataclass(frozen=True)
class Fault:
    """One change: the file, the bytes that are replaced, and by what."""

    path: Path
    line: int
    start: int
    end: int
    words: str
    in_function: bool

    def planted(self, source: bytes) -> bytes:
        """Give the file with the fault in it."""
        return source[: self.start] + self.words.encode() + source[self.end :]


class _Places(ast.NodeVisitor):
    """Every place of a module that can be changed to mean something else."""

    def __init__(self, path: Path, source: str) -> None:
        self.path, self.source = path, source
        self.starts = [0]
        for line in source.encode().splitlines(keepends=True):
            self.starts.append(self.starts[-1] + len(line))
        self.faults: list[Fault] = []
        self.depth = 0

    def at(self, line: int, column: int) -> int:
        return self.starts[line - 1] + column

    def text(self, node: ast.expr) -> str:
        return ast.get_source_segment(self.source, node) or ""

    def put(self, node: ast.expr | ast.stmt, words: str) -> None:
        start = self.at(node.lineno, node.col_offset)
        end = self.at(node.end_lineno or node.lineno, node.end_col_offset or 0)
        self.faults.append(Fault(self.path, node.lineno, start, end, words, self.depth > 0))

    def visit_FunctionDef(self, node: ast.FunctionDef) -> None:
        for value in [*node.args.defaults, *node.args.kw_defaults]:
            if value is not None:
                self.visit(value)
        self.depth += 1
        for statement in node.body:
            self.visit(statement)
        self.depth -= 1

    def visit_AnnAssign(self, node: ast.AnnAssign) -> None:
        if node.value is not None:
            self.visit(node.value)

    def visit_If(self, node: ast.If) -> None:
        if self.text(node.test) != "TYPE_CHECKING":
            self.put(node.test, f"(not ({self.text(node.test)}))")
            self.generic_visit(node)

    def visit_IfExp(self, node: ast.IfExp) -> None:
        self.put(node.test, f"(not ({self.text(node.test)}))")
        self.generic_visit(node)

    def visit_Compare(self, node: ast.Compare) -> None:
        if len(node.ops) == 1 and type(node.ops[0]) in _COMPARED:
            left, right = self.text(node.left), self.text(node.comparators[0])
            self.put(node, f"({left} {_COMPARED[type(node.ops[0])]} {right})")
        self.generic_visit(node)

    def visit_BinOp(self, node: ast.BinOp) -> None:
        words = _ARITHMETIC.get(type(node.op))
        if words and not isinstance(node.right, ast.Constant | ast.JoinedStr | ast.List):
            self.put(node, f"(({self.text(node.left)}) {words} ({self.text(node.right)}))")
        self.generic_visit(node)

    def visit_BoolOp(self, node: ast.BoolOp) -> None:
        joined = " or " if isinstance(node.op, ast.And) else " and "
        self.put(node, "(" + joined.join(f"({self.text(part)})" for part in node.values) + ")")
        self.generic_visit(node)

    def visit_UnaryOp(self, node: ast.UnaryOp) -> None:
        if isinstance(node.op, ast.Not | ast.USub):
            self.put(node, f"({self.text(node.operand)})")
        self.generic_visit(node)

    def visit_Constant(self, node: ast.Constant) -> None:
        if isinstance(node.value, bool):
            self.put(node, repr(not node.value))
        elif isinstance(node.value, int):
            self.put(node, repr(node.value + 1))
        elif isinstance(node.value, float) and node.value:
            self.put(node, repr(node.value * 10.0))

    def visit_keyword(self, node: ast.keyword) -> None:
        """Change what a word of a call says; that ends of a zip are alike is no sum."""
        if node.arg != "strict":
            self.generic_visit(node)

    def visit_ClassDef(self, node: ast.ClassDef) -> None:
        """Change what a class holds, not how it is declared."""
        for statement in node.body:
            self.visit(statement)

    def visit_Return(self, node: ast.Return) -> None:
        if node.value is not None and not isinstance(node.value, ast.Constant):
            self.put(node.value, "None")
        self.generic_visit(node)

    def visit_Expr(self, node: ast.Expr) -> None:
        if isinstance(node.value, ast.Call):
            self.put(node, "pass")
        if not isinstance(node.value, ast.Constant):
            self.generic_visit(node)

    def visit_JoinedStr(self, node: ast.JoinedStr) -> None:
        """Leave sentences alone: how a thing is worded is looked at elsewhere."""

    def visit_Dict(self, node: ast.Dict) -> None:
        for value in node.values:
            self.visit(value)


def faults_of(path: Path) -> list[Fault]:
    """Every fault that can be planted in a file."""
    source = path.read_text(encoding="utf-8")
    places = _Places(path, source)
    places.visit(ast.parse(source))
    return places.faults


def drawn(room: str, count: int, random: Random) -> list[Fault]:
    """Draw places of a room, each as likely as any other."""
    found: list[Fault] = []
    for path in sorted((ROOT / "src" / "vadrin" / room).rglob("*.py")):
        found += faults_of(path)
    return random.sample(found, min(count, len(found)))


class TestsByLine:
    """Which tests come by a line, and how long each takes."""

    def __init__(self, coverage: Path, seconds: dict[str, float]) -> None:
        self.database = sqlite3.connect(coverage, check_same_thread=False)
        self.seconds = seconds

    def covering(self, fault: Fault) -> list[str]:
        """Give the tests that run the line, quickest first; of what runs while modules load, its
        file's, and of a file that holds nothing else, its folder's."""
        name = fault.path.relative_to(ROOT)
        tests = self._running(f"%/{name}", fault.line if fault.in_function else None)
        tests = tests or self._running(f"%/{name}", None)
        tests = tests or self._running(f"%/{name.parent}/%", None)
        return sorted(tests, key=lambda test: (self.seconds.get(test, 0.0), test))

    def _running(self, files: str, line: int | None) -> set[str]:
        """Tests that run a line of some files, or any line of them."""
        rows = self.database.execute(
            "SELECT context.context, numbits FROM line_bits JOIN file ON file.id = file_id"
            " JOIN context ON context.id = context_id WHERE file.path LIKE ?",
            (files,),
        )
        tests = set()
        for context, bits in rows:
            byte, bit = divmod(line or 0, 8)
            met = line is None or (byte < len(bits) and bits[byte] >> bit & 1)
            if met and "|" in context:
                tests.add(context.rsplit("|", 1)[0])
        return tests

    def chosen(self, fault: Fault) -> list[str]:
        """Leave out what would take too long: the longest of many, but for one."""
        every = self.covering(fault)
        half = MOST_TESTS // 2
        others = Random(fault.start).sample(every[half:], min(half, len(every[half:])))
        taken, total = [], 0.0
        for test in dict.fromkeys([*every[:half], _FOUND, _SAID, *others]):
            total += self.seconds.get(test, 0.0)
            if taken and total > MOST_SECONDS:
                break
            taken.append(test)
        return taken


def make_map() -> None:
    """Run the suite once, and keep which test ran which line."""
    KEPT.mkdir(exist_ok=True)
    rooms = [f"--cov=src/vadrin/{room}" for room in ROOMS]
    words = [sys.executable, "-m", "pytest", *rooms, "--cov-context=test", "--cov-report="]
    environment = _environment() | {"COVERAGE_FILE": str(KEPT / "coverage")}
    log = subprocess.run(
        [*words, "--durations=0", "-vv"], cwd=ROOT, env=environment, capture_output=True, text=True
    )
    keep_seconds(log.stdout)


def keep_seconds(log: str) -> None:
    """Keep how long each test took, from what the test runner said."""
    seconds: dict[str, float] = {}
    for found in re.finditer(r"^([\d.]+)s (?:call|setup) +(\S+.*)$", log, re.MULTILINE):
        seconds[found[2]] = seconds.get(found[2], 0.0) + float(found[1])
    (KEPT / "seconds.json").write_text(json.dumps(seconds), encoding="utf-8")


def _environment() -> dict[str, str]:
    return os.environ | {"QT_QPA_PLATFORM": "offscreen", "PYTHONDONTWRITEBYTECODE": "1"}


def noticed(copy: Path, fault: Fault, tests: list[str]) -> bool:
    """Plant a fault in a copy, run the tests, and take it away again."""
    target = copy / fault.path.relative_to(ROOT)
    source = target.read_bytes()
    target.write_bytes(fault.planted(source))
    words = [sys.executable, "-m", "pytest", "-x", "-n0", "-p", "no:cacheprovider", *tests]
    try:
        done = subprocess.run(
            words, cwd=copy, env=_environment(), capture_output=True, timeout=4 * MOST_SECONDS
        )
    except subprocess.TimeoutExpired:
        return True  # it goes on for ever: nobody would miss that
    finally:
        target.write_bytes(source)
    return done.returncode != 0


def copies(folder: Path, count: int) -> Iterator[Path]:
    """Make copies of the repository as it is, for as many workers."""
    kept_out = shutil.ignore_patterns(".git", ".venv", ".mutants", "__pycache__", ".*_cache")
    for number in range(count):
        yield Path(shutil.copytree(ROOT, folder / f"{number}" / "main", ignore=kept_out))


def _shown(fault: Fault) -> str:
    source = fault.path.read_bytes()
    first = source.rfind(b"\n", 0, fault.start) + 1
    last = source.find(b"\n", fault.end)
    before, after = source[first:last], fault.planted(source)[first:]
    after = after[: last - first + len(fault.words.encode()) - (fault.end - fault.start)]
    where = f"{fault.path.relative_to(ROOT)}:{fault.line}"
    return f"{where}\n    {before.decode().strip()}\n    {after.decode().strip()}"


def main(arguments: list[str]) -> int:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("--map", action="store_true", help="run the suite, keep who runs what")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--core", type=int, default=100)
    parser.add_argument("--app", type=int, default=100)
    parser.add_argument("--workers", type=int, default=2)
    options = parser.parse_args(arguments)
    if options.map:
        make_map()
        return 0
    seconds = json.loads((KEPT / "seconds.json").read_text(encoding="utf-8"))
    known = TestsByLine(KEPT / "coverage", seconds)
    held = True
    with tempfile.TemporaryDirectory() as folder:
        waiting: Queue[Path] = Queue()
        for copy in copies(Path(folder), options.workers):
            waiting.put(copy)
        for room in ROOMS:
            faults = drawn(room, getattr(options, room), Random(options.seed))
            held &= _report(room, faults, known, waiting, options.workers)
    return 0 if held else 1


def _report(
    room: str, faults: list[Fault], known: TestsByLine, waiting: Queue[Path], workers: int
) -> bool:
    def tried(fault: Fault) -> tuple[Fault, bool, int]:
        tests = known.chosen(fault)
        copy = waiting.get()
        try:
            return fault, bool(tests) and noticed(copy, fault, tests), len(tests)
        finally:
            waiting.put(copy)

    killed = 0
    with ThreadPoolExecutor(workers) as pool:
        for fault, seen, tests in pool.map(tried, faults):
            killed += seen
            if not seen:
                print(f"{room}: not noticed by {tests} tests: {_shown(fault)}", flush=True)
    print(f"{room}: {killed} of {len(faults)} noticed", flush=True)
    return killed >= WANTED * len(faults)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
