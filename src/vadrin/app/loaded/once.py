"""What many views ask of a test is worked out once, and kept with it."""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from typing import Any, Concatenate, ParamSpec, TypeVar

O = TypeVar("O")  # noqa: E741
P = ParamSpec("P")
T = TypeVar("T")

_KEPT = "_worked_out"


def once(work: Callable[Concatenate[O, P], T]) -> Callable[Concatenate[O, P], T]:
    """Keep what a function gives with the frozen object that is its first argument.

    Other arguments are told apart by what they are, not by what they equal: they are parts of
    the first one (a strip of a test), too large to be compared at every call.
    """

    @wraps(work)
    def known(owner: O, /, *parts: P.args, **named: P.kwargs) -> T:
        kept: dict[Any, tuple[object, T]] = owner.__dict__.setdefault(_KEPT, {})
        key = (work, *map(id, parts), *((name, id(part)) for name, part in named.items()))
        if key not in kept:
            # The parts are held, too, so that no other object takes the place of one.
            kept[key] = ((parts, named), work(owner, *parts, **named))
        return kept[key][1]

    return known
