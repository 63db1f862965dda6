"""How readings come off wires and folders: ``python tools/wires.py [HISTORIES] [SEED]``.

Programs of instruments write files in every way such programs do: a line appended in pieces, a
file written anew with one line, longer, shorter, of the same length or alike, put in place by a
rename, a log that loses its first lines, ends of lines of three kinds, three encodings, beside
thousands of other files. What was measured is written down here as it is measured, and laid
beside what arrives. Lines like the example, and lines that only look like it, are read too, and
their time is taken. Leaves with 1 where a reading came wrong, twice or not at all in silence.
"""

from __future__ import annotations

import os
import sys
import tempfile
import time
from collections import Counter
from pathlib import Path

import numpy as np

from vadrin.instruments.line_format import LineFormat
from vadrin.instruments.watched_folder import WatchedFolder

_NEVER_S = 3600.0
_LOOKS = 5
ENDS = ("\n", "\r\n", "\r")
CODES = ("utf-8", "utf-8-sig", "utf-16")


class Program:
    """One instrument's program: how it writes, and what it measured so far."""

    def __init__(self, rng: np.random.Generator, folder: Path, way: str) -> None:
        self.rng, self.way, self.path = rng, way, folder / f"{way.replace(' ', '-')}.txt"
        self.end = ENDS[int(rng.integers(3))]
        self.code = CODES[int(rng.integers(3))]
        self.measured: list[float] = []
        self.lines: list[str] = []

    def _line(self) -> str:
        value = round(float(self.rng.uniform(0.05, 3.2)), 3)
        if self.way == "alike" and self.measured and self.rng.random() < 0.5:
            value = self.measured[-1]
        digits = int(self.rng.integers(1, 4)) if self.way == "one line" else 3
        value = round(value, digits)
        self.measured.append(value)
        return f"D {value:.{digits}f}"

    def _bytes(self, words: str) -> bytes:
        return words.encode(self.code)

    def measure(self, pause: object) -> None:
        """Measure once, and write it down as this program does."""
        line = self._line()
        self.lines.append(line)
        if self.way == "pieces":
            self._in_pieces(line, pause)
        elif self.way in ("one line", "alike"):
            self.path.write_bytes(self._bytes(line + self.end))
        elif self.way == "no end":
            self.path.write_bytes(self._bytes(line))
        elif self.way == "rename":
            part = self.path.with_suffix(".part")
            part.write_bytes(self._bytes("".join(x + self.end for x in self.lines)))
            part.replace(self.path)
        elif self.way == "log cut":
            kept = self.lines[-6:]
            self.path.write_bytes(self._bytes("".join(x + "\n" for x in kept)))
        else:
            with self.path.open("ab") as file:
                file.write((line + self.end).encode("utf-8"))

    def _in_pieces(self, line: str, pause: object) -> None:
        whole = (line + self.end).encode("utf-8")
        at = int(self.rng.integers(1, len(whole)))
        for piece in (whole[:at], whole[at:]):
            with self.path.open("ab") as file:
                file.write(piece)
                os.fsync(file.fileno())
            assert callable(pause)
            pause()


WAYS = ("append", "pieces", "one line", "alike", "no end", "rename", "log cut")


def history(seed: int, way: str, counts: Counter[str]) -> None:
    """One program at work beside one watcher."""
    rng = np.random.default_rng(seed)
    with tempfile.TemporaryDirectory() as scratch:
        folder = Path(scratch)
        (folder / "old.txt").write_text("D 9.9\nD 8.8\n")
        program = Program(rng, folder, way)
        if rng.random() < 0.5:
            program.measure(lambda: None)
        before = len(program.measured)
        watcher = WatchedFolder(str(folder), LineFormat("D {1.23}"), _NEVER_S)
        came: list[float] = []

        def look(times: int = 1) -> None:
            for _ in range(times):
                watcher.look(watcher.marks())
            came.extend(r.value for r in watcher.take_all())

        for _ in range(8):
            # A piece's pause is shorter than the time a line without an end is waited for.
            program.measure(look)
            look(_LOOKS)
        told = watcher.passed_over.take()
        watcher.close()
        wanted = program.measured[before:]
        counts[f"{way}: {_judged(wanted, came, told)}"] += 1


def _judged(wanted: list[float], came: list[float], told: str) -> str:
    if came == wanted:
        return "right"
    return "told" if told else "WRONG IN SILENCE"


LINES = (
    # Example, line, and what it means; None where it is no line like the example.
    ("0.30 {0.31}", "0.305", None),
    ("0.30 {0.31}", "0.30 0.312", 0.312),
    ("{0.31}", "0.312", 0.312),
    ("{0.31}", "0.3.12", None),
    ("D {1.23}", "D 2.00.312", None),
    ("D {1.23}", "D 12", 12.0),
    ("D {1.23} ok", "D 0.31 0.32 ok", None),
    ("T= {20.4} C", "T= 2", None),
    ("T= {20.4} C", "T=20,4C", 20.4),
    ("1 {0.31} 2", "10.312", None),
    ("{0.31} {0.32}".replace(" {0.32}", " 0.32"), "0.310.32", None),
    ("{1.0}", "1" * 250, None),
    ("a {1} b", "a " + "1" * 190 + " c", None),
    ("{1} 2 3 4 5 6 7 8 9", "1 " * 90, None),
)


def lines(counts: Counter[str]) -> None:
    """Lines that are like an example, or only nearly."""
    for example, line, wanted in LINES:
        begun = time.perf_counter()
        read = LineFormat(example).read(line)
        spent = time.perf_counter() - begun
        found = None if read is None else read.value
        counts[f"lines: {'right' if found == wanted else 'WRONG IN SILENCE'}"] += 1
        if found != wanted:
            print(f"{example!r} on {line[:40]!r}: {found}, wanted {wanted}")
        if spent > 0.05:
            counts["lines: SLOW"] += 1


def many_files(counts: Counter[str], files: int = 5000) -> float:
    """Milliseconds of a look over so many files; what comes after the five hundredth counts."""
    with tempfile.TemporaryDirectory() as scratch:
        folder = Path(scratch)
        for number in range(files):
            (folder / f"{number:05}.txt").write_text("D 1.0\n")
        watcher = WatchedFolder(str(folder), LineFormat("D {1.23}"), _NEVER_S)
        (folder / "zz new.txt").write_text("D 0.417\n")
        begun = time.perf_counter()
        for _ in range(_LOOKS):
            watcher.look(watcher.marks())
        spent = (time.perf_counter() - begun) / _LOOKS
        came = [r.value for r in watcher.take_all()]
        watcher.close()
        counts[f"{files} files: {'right' if came == [0.417] else 'WRONG IN SILENCE'}"] += 1
        return 1000 * spent


def main(histories: int = 210, seed: int = 1) -> int:
    """Print the table; 1 where anything was wrong in silence."""
    counts: Counter[str] = Counter()
    for number in range(histories):
        history(seed * 10_000 + number, WAYS[number % len(WAYS)], counts)
    lines(counts)
    spent = many_files(counts)
    for what, count in sorted(counts.items()):
        print(f"{what:<40}{count:>6}")
    print(f"a look over 5,000 files, off the screen's thread: {spent:.0f} ms")
    return int(any("WRONG" in what or "SLOW" in what for what in counts))


if __name__ == "__main__":
    sys.exit(main(*(int(word) for word in sys.argv[1:])))
