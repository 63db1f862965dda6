"""What was said, on a line that is kept and compared: words as a digest, numbers as a sum."""

from __future__ import annotations

import hashlib
import math
from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from enum import Enum
from pathlib import Path
from typing import Any

import numpy as np

_DEEPEST = 12


def parts_of(said: Any, depth: int = 0) -> Iterator[str | float]:
    """All words and numbers in what a function gave, in their order."""
    if depth > _DEEPEST or said is None or isinstance(said, bool | Enum | bytes):
        yield repr(said)
    elif isinstance(said, str):
        yield said
    elif isinstance(said, int | float | np.number):
        yield float(said)
    elif isinstance(said, np.ndarray):
        yield from (float(each) for each in np.asarray(said, dtype=float).ravel()[:200])
    elif isinstance(said, dict):
        for key, value in said.items():
            yield str(key)
            yield from parts_of(value, depth + 1)
    elif isinstance(said, set | frozenset):
        yield from sorted(str(list(parts_of(each, depth + 1))) for each in said)
    elif isinstance(said, list | tuple):
        for each in said:
            yield from parts_of(each, depth + 1)
    elif is_dataclass(said):
        for part in fields(said):
            if part.name not in ("uid",):
                yield from parts_of(getattr(said, part.name), depth + 1)
    else:
        yield type(said).__name__


def line_of(name: str, told: list[str | float]) -> str:
    """A function's line: its words as a digest, its numbers as their count and a sum."""
    words = [part for part in told if isinstance(part, str)]
    numbers = np.array([part for part in told if isinstance(part, float)])
    numbers = np.arcsinh(1e4 * np.nan_to_num(numbers, nan=-1.0, posinf=-2.0, neginf=-3.0))
    # Each weighs otherwise, so that two that change places are seen.
    weights = 1.0 + np.arange(len(numbers)) * math.pi % 1.0
    digest = hashlib.sha256("\x1f".join(words).encode()).hexdigest()[:12]
    return f"{name} {digest} {len(numbers)} {float(numbers @ weights):.4f}"


def same(line: str, other: str) -> bool:
    """Whether two lines say the same, but for the last digits of sums."""
    (*words, total), (*others, mine) = line.split(), other.split()
    near = 1e-6 * max(1.0, float(words[-1]))
    return words == others and abs(float(total) - float(mine)) <= near + 1e-4


def lines_in(text: str) -> dict[str, str]:
    """Lines by the name they begin with."""
    return {line.split()[0]: line for line in text.splitlines()}


def changed(kept: Path, now: str) -> list[str]:
    """Names whose kept line says something else now, or that are only in one of both."""
    before, after = lines_in(kept.read_text("utf-8")), lines_in(now)
    differ = [n for n in before.keys() & after.keys() if not same(before[n], after[n])]
    return sorted([*differ, *(before.keys() ^ after.keys())])
