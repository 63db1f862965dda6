"""Long computations that can be stopped: they ask now and then whether they are still wanted."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

_asked: ContextVar[Callable[[], None] | None] = ContextVar("asked", default=None)


@contextmanager
def interruptible(ask: Callable[[], None]) -> Iterator[None]:
    """Let what is computed inside be stopped.

    Parameters
    ----------
    ask : callable
        Called often; what it raises ends the computation.
    """
    token = _asked.set(ask)
    try:
        yield
    finally:
        _asked.reset(token)


def checkpoint() -> None:
    """Ask whether to go on; called by loops that may take long."""
    ask = _asked.get()
    if ask is not None:
        ask()
