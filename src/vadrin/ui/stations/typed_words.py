"""Words half typed, and where the keyboard is: kept while the widgets are made anew."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtWidgets import QApplication, QLineEdit, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.line_field import Field


@dataclass(frozen=True)
class TypedWords:
    """What stands in a field that nobody took yet; with the reason, where it was refused."""

    place: tuple[str, int]
    words: str
    why_refused: str = ""


@dataclass(frozen=True)
class TypedAt:
    """A station's half-typed words, and the part of it that has the keyboard."""

    typed: tuple[TypedWords, ...]
    keyboard: tuple[str, int] | None
    cursor: int = 0


def _places(station: QWidget) -> dict[tuple[str, int], QWidget]:
    """What can be typed in or focused, by its name and its place among those of that name.

    Parts that Qt makes for itself inside others are left alone: they go when it likes.
    """
    found: dict[tuple[str, int], QWidget] = {}
    counts: dict[str, int] = {}
    own = [part for part in station.findChildren(QWidget) if type(part) is not QWidget]
    for part in own:
        name = part.accessibleName()
        if name:
            found[(name, counts.get(name, 0))] = part
            counts[name] = counts.get(name, 0) + 1
    return found


def _words_in(place: tuple[str, int], part: QWidget) -> TypedWords | None:
    if isinstance(part, WordField):
        unsent = part.unsent
        return TypedWords(place, part.unsent_words, part.why_refused) if unsent else None
    if isinstance(part, Field) and part.text():
        return TypedWords(place, part.text())
    return None


def keep_typed(bench: Workbench, name: str, station: QWidget) -> None:
    """Put what is half typed at a station into the session of the test."""
    places = _places(station)
    made = (_words_in(place, part) for place, part in places.items())
    held = QApplication.focusWidget()
    keyboard = next((place for place, part in places.items() if part is held), None)
    cursor = held.cursorPosition() if isinstance(held, QLineEdit) else 0
    for part in places.values():
        # What is half typed is not taken because its field goes.
        part.blockSignals(isinstance(part, Field))
    kept = TypedAt(tuple(w for w in made if w is not None), keyboard, cursor)
    loaded = bench.loaded
    bench.session.of_test(loaded.test.id if loaded else None)[f"typed at {name}"] = kept


def give_back_typed(bench: Workbench, name: str, station: QWidget) -> None:
    """Put half-typed words and the keyboard back where they were."""
    loaded = bench.loaded
    session = bench.session.of_test(loaded.test.id if loaded else None)
    kept = session.pop(f"typed at {name}", None)
    if not isinstance(kept, TypedAt):
        return
    places = _places(station)
    holds = places.get(kept.keyboard) if kept.keyboard is not None else None
    if holds is not None:
        holds.setFocus()
    for typed in kept.typed:
        part = places.get(typed.place)
        if isinstance(part, WordField):
            part.take_back(typed.words, typed.why_refused)
        elif isinstance(part, Field):
            part.setText(typed.words)
    if isinstance(holds, QLineEdit) and kept.keyboard in [
        t.place for t in kept.typed if not t.why_refused
    ]:
        # Typing goes on where it was; in a word that is in force the next one takes its place.
        holds.setCursorPosition(kept.cursor)
