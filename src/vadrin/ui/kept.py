"""Attributes of a page that outlive it: they stand in the session, and pages are made anew."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, Protocol, TypeVar, overload

from vadrin.app.document.workbench import Workbench

T = TypeVar("T")


class _OnTheBench(Protocol):
    bench: Workbench


class OfTest(Generic[T]):
    """What a page keeps of the test on the bench; another test has its own.

    Parameters
    ----------
    begin : callable
        Gives what there is at first.
    """

    def __init__(self, begin: Callable[[], T]) -> None:
        self._begin, self._name = begin, ""

    def __set_name__(self, owner: type, name: str) -> None:
        self._name = name

    def _key(self, page: _OnTheBench) -> str:
        return f"{type(page).__name__}.{self._name}"

    def _place(self, page: _OnTheBench) -> dict[str, Any]:
        loaded = page.bench.loaded
        return page.bench.session.of_test(loaded.test.id if loaded is not None else None)

    @overload
    def __get__(self, page: None, owner: type) -> OfTest[T]: ...

    @overload
    def __get__(self, page: _OnTheBench, owner: type) -> T: ...

    def __get__(self, page: _OnTheBench | None, owner: type) -> OfTest[T] | T:
        if page is None:
            return self
        place, key = self._place(page), self._key(page)
        if key not in place:
            place[key] = self._begin()
        value: T = place[key]
        return value

    def __set__(self, page: _OnTheBench, value: T) -> None:
        self._place(page)[self._key(page)] = value


class OfProgram(OfTest[T]):
    """What a page keeps whatever test is on the bench."""

    def _place(self, page: _OnTheBench) -> dict[str, Any]:
        return page.bench.session.of_program
