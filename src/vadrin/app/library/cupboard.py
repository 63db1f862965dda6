"""Records of the kit shown and typed field by field, each change one edit."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import date
from typing import Any

from vadrin.app.display.marks import shutter_name
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.numbers import number_typed, number_within
from vadrin.app.entry.reciprocity_entry import reciprocity_words
from vadrin.app.entry.times import day_typed, seconds_typed
from vadrin.app.library.forms import FORMS, MAY_BE_EMPTY, OWN_VALUES, FieldKind, FormField
from vadrin.app.library.meter_constant import (
    MeterConstant,
    meter_constant_typed,
    set_meter_constant,
)
from vadrin.errors import EditRefusedError, EntryError
from vadrin.notebook.records import Bottle, Developer, PaperGrade, Process, Record, ShutterTime
from vadrin.notebook.store import Notebook


def title_of(notebook: Notebook, record: Any) -> str:
    """A record's name in a list."""
    owner = next((f for f in FORMS[heading_of(record)][1] if f.kind is FieldKind.LINK), None)
    words = [str(getattr(record, "name", ""))]
    if owner is not None and owner.link is not None and not isinstance(record, Process):
        parent = notebook.get(owner.link, getattr(record, owner.name) or 0)
        words.insert(0, str(getattr(parent, "name", "")))
    if isinstance(record, Developer):
        words.append(record.dilution)
    if isinstance(record, PaperGrade):
        words.append(record.grade)
    if isinstance(record, ShutterTime):
        words.append(shutter_name(record.marked))
    return " ".join(w for w in words if w) or "no name yet"


def heading_of(record: Record) -> str:
    """The heading a record stands under."""
    of_its_sort = [h for h, (kind, _) in FORMS.items() if kind is type(record)]
    own = (h for h in of_its_sort if h in OWN_VALUES and _has(record, OWN_VALUES[h]))
    return next(own, of_its_sort[0])


def _has(record: Record, values: dict[str, str]) -> bool:
    return all(getattr(record, name) == value for name, value in values.items())


def shown(notebook: Notebook, record: Any, field: FormField) -> str:
    """A field's value as it is read and typed."""
    value = getattr(record, field.name)
    if value is None or value == "":
        return ""
    if field.kind is FieldKind.SECONDS:
        return shutter_name(float(value))
    if field.kind is FieldKind.YES:
        return "yes" if value else "no"
    if field.kind is FieldKind.LINK and field.link is not None:
        parent = notebook.get(field.link, int(value))
        return title_of(notebook, parent) if parent else ""
    if field.kind is FieldKind.DAY:
        return str(value)[:10]
    return f"{value:g}" if isinstance(value, float) else str(value)


def _bounded(field: FormField, words: str) -> float:
    refusal = f"{field.label} lies between {field.low:g} and {field.high:g}"
    return number_within(words, field.low, field.high, refusal, f"{max(field.low, 1.0):g}")


def _share(field: FormField, words: str) -> float:
    """A number that may be said in hundredths: ``33 %`` is 0.33."""
    plain = words.removesuffix("%")
    per_cent = plain != words
    return _bounded(field, f"{number_typed(plain) / 100:g}" if per_cent else words)


def _reciprocity(words: str) -> str:
    return reciprocity_words(words)


def _linked(notebook: Notebook, field: FormField, words: str) -> int:
    records = notebook.all(field.link) if field.link else []
    titles = {r.id: title_of(notebook, r) for r in records}
    plain = words.lower()
    found = [r for r in records if plain == titles[r.id].lower()]
    found = found or [r for r in records if plain == r.name.lower()]
    found = found or [r for r in records if titles[r.id].lower().startswith(plain)]
    if len(found) > 1:
        which = ", ".join(titles[r.id] for r in found)
        raise EntryError(f"“{words}”: which one? There are {which}")
    if not found:
        raise EntryError(f"there is no “{words}” yet; make it first, or step by the arrow keys")
    return int(found[0].id)


def _chosen(field: FormField, words: str) -> str:
    try:
        return choice_typed(words, field.choices)
    except EntryError as error:
        raise EntryError(f"{field.label}: {error}") from error


def typed(notebook: Notebook, field: FormField, words: str) -> Any:
    """The value of what was typed into a field.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    plain = words.strip()
    if not plain and field.kind not in MAY_BE_EMPTY:
        if field.optional:
            return None
        raise EntryError(f"{field.label} cannot be left empty")
    readers: dict[FieldKind, Callable[[], Any]] = {
        FieldKind.TEXT: lambda: plain,
        FieldKind.NUMBER: lambda: _bounded(field, plain),
        FieldKind.WHOLE: lambda: round(_bounded(field, plain)),
        FieldKind.SECONDS: lambda: seconds_typed(plain),
        FieldKind.DAY: lambda: day_typed(plain),
        FieldKind.YES: lambda: choice_typed(plain, ("no", "yes")) == "yes",
        FieldKind.SHARE: lambda: _share(field, plain),
        FieldKind.CHOICE: lambda: _chosen(field, plain),
        FieldKind.LINK: lambda: _linked(notebook, field, plain),
        FieldKind.RECIPROCITY: lambda: _reciprocity(plain),
        FieldKind.METER_CONSTANT: lambda: meter_constant_typed(plain),
    }
    return readers[field.kind]()


def steps_of_field(notebook: Notebook, field: FormField) -> list[str]:
    """What the arrow keys step through; empty where one types."""
    if field.kind is FieldKind.CHOICE:
        return list(field.choices)
    if field.kind is FieldKind.YES:
        return ["no", "yes"]
    if field.kind is FieldKind.LINK and field.link is not None:
        return [title_of(notebook, r) for r in notebook.all(field.link)]
    return []


def set_field(notebook: Notebook, record: Any, field: FormField, words: str) -> Any:
    """Write what was typed into a field, as one edit.

    Raises
    ------
    EntryError
        If it cannot be.
    """
    value = typed(notebook, field, words)
    if isinstance(value, MeterConstant):
        return set_meter_constant(notebook, record, value)
    with notebook.change(f"{field.label} of {title_of(notebook, record)}"):
        return notebook.put(replace(record, **{field.name: value}))


def new_record(notebook: Notebook, heading: str) -> Any:
    """Write a new record with reasonable values under a heading, as one edit.

    Raises
    ------
    EditRefusedError
        If it must belong to something there is none of yet.
    """
    kind, fields = FORMS[heading]
    owners: dict[str, int] = {}
    for field in fields:
        if field.kind is FieldKind.LINK and not field.optional and field.link is not None:
            known = notebook.all(field.link)
            if not known:
                wanted = next(h for h, (k, _) in FORMS.items() if k is field.link)
                raise EditRefusedError(f"add a {wanted} entry first")
            owners[field.name] = known[-1].id
    today: dict[str, Any] = {"mixed_at": date.today().isoformat()} if kind is Bottle else {}
    own = OWN_VALUES.get(heading, {})
    with notebook.change(f"new entry under {heading.lower()}"):
        return notebook.add(kind(**owners, **today, **own))


def remove_record(notebook: Notebook, record: Record) -> bool:
    """Remove a record and what belongs to it, as one edit.

    Raises
    ------
    RecordInUseError
        If tests or other kit need it.
    """
    with notebook.change(f"remove {title_of(notebook, record)}"):
        notebook.remove(record)
    return True


def records_under(notebook: Notebook, heading: str) -> list[tuple[int, str]]:
    """Ids and titles of the records under a heading."""
    known = notebook.all(FORMS[heading][0])
    return [(r.id, title_of(notebook, r)) for r in known if heading_of(r) == heading]


def record_under(notebook: Notebook, heading: str, record_id: int) -> Any:
    """The record with an id under a heading; None where it is gone."""
    return notebook.get(FORMS[heading][0], record_id)
