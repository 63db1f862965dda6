"""Runs one hostile case under limits of time and memory, and tells how it ended."""

from __future__ import annotations

import resource
import signal
import traceback
from collections import Counter
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field

from vadrin.errors import VadrinError

SECONDS, WAITED = 5, 120
"""Of processor time, and by the wall's clock: a busy machine is no fault of a file's."""
MEGABYTES = 500


class TooLong(BaseException):
    """A case took longer than it may; no handler for ordinary errors catches it."""


@dataclass
class Counts:
    """What happened, counted; the first of each fault is kept with its case."""

    of: Counter[str] = field(default_factory=Counter)
    first: dict[str, str] = field(default_factory=dict)

    def add(self, what: str, case: str = "", count: int = 1) -> None:
        self.of[what] += count
        if case:
            self.first.setdefault(what, case)

    def lines(self) -> list[str]:
        return [
            f"    {what:<44}{count:>7}   {self.first.get(what, '')}".rstrip()
            for what, count in sorted(self.of.items())
        ]


def limit_memory() -> None:
    """No more than so much beyond what the program has loaded already."""
    with open("/proc/self/statm") as file:
        have = int(file.read().split()[0]) * resource.getpagesize()
    most = have + MEGABYTES * 2**20
    resource.setrlimit(resource.RLIMIT_AS, (most, resource.getrlimit(resource.RLIMIT_AS)[1]))


def _too_long(*_: object) -> None:
    raise TooLong


_allowed = float(SECONDS)


def allow(seconds: float) -> None:
    """What takes so long with nothing hostile may take as long with it: on a slow machine more."""
    global _allowed
    _allowed = max(_allowed, seconds)


def guarded(act: Callable[[], object], counts: Counts, case: str) -> object:
    """What an act gives; None where it refused, and a fault counted where it did worse."""
    signal.signal(signal.SIGALRM, _too_long)
    signal.signal(signal.SIGPROF, _too_long)
    signal.alarm(WAITED)
    signal.setitimer(signal.ITIMER_PROF, _allowed)
    try:
        return act()
    except VadrinError as refusal:
        words = str(refusal)
        counts.add("refused")
        if "\n" in words or not words:
            counts.add("refused in other than one line", case)
    except TooLong:
        counts.add(f"FAULT over {_allowed:.0f} s", case)
    except MemoryError:
        counts.add(f"FAULT over {MEGABYTES} MB", case)
    except Exception as error:
        place = traceback.extract_tb(error.__traceback__)[-1]
        counts.add(f"FAULT {type(error).__name__}", f"{case} ({place.filename}:{place.lineno})")
    finally:
        _call_off()
    return None


def _call_off() -> None:
    """No signal any more; one that comes in this very moment is for nobody."""
    for _ in range(3):
        with suppress(TooLong):
            signal.setitimer(signal.ITIMER_PROF, 0)
            signal.alarm(0)
            signal.signal(signal.SIGPROF, signal.SIG_IGN)
            signal.signal(signal.SIGALRM, signal.SIG_IGN)
            return


def faults_in(counts: Counts) -> int:
    """How many faults of any kind were counted."""
    return sum(count for what, count in counts.of.items() if what.startswith("FAULT"))
