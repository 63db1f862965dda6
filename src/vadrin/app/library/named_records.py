"""Film, chemistry and kit by the names a tester types; what is new is written."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.display.marks import marked_ei
from vadrin.errors import EditRefusedError
from vadrin.notebook.records import PARENTS, Batch, Camera, Developer, Lens, Stock, Test
from vadrin.notebook.store import Notebook

NO_FILM, NO_DEVELOPER = "a film", "a developer"
"""What a test is of until somebody says."""


def stock_named(
    notebook: Notebook, name: str, box_speed: float | None = None, kind: str = ""
) -> Stock:
    """The stock with a name, written if it is new. Inside `Notebook.change`.

    Where nobody said the speed on the box of a new one, it is the number in its name, if any;
    it is of a kind of material where that is known, else of the usual one.
    """
    known = notebook.all(Stock, name=name)
    if known:
        return known[0]
    new = Stock(name=name, box_speed=box_speed or speed_in(name) or 100.0)
    return notebook.add(replace(new, kind=kind) if kind else new)


def speed_in(name: str) -> float | None:
    """The speed a film is named after: ``Brannock 400`` is 400."""
    numbers = [float(word) for word in name.split() if word.isdecimal()]
    return next((n for n in reversed(numbers) if n > 0 and marked_ei(n) == n), None)


def developer_named(notebook: Notebook, name: str, dilution: str = "") -> Developer:
    """The developer with a name and dilution, written if it is new. Inside `change`."""
    known = notebook.all(Developer, name=name, dilution=dilution)
    return known[0] if known else notebook.add(Developer(name=name, dilution=dilution))


def leave_placeholders(notebook: Notebook, before: Test) -> None:
    """Take away what stood for the film and developer of a test until they were named.

    A developer whose dilution was only named afterwards counts too: left behind, its bare name
    would mean that one ever after. Inside `change`.
    """
    stock, bath = notebook.get(Stock, before.stock_id), notebook.get(Developer, before.developer_id)
    after = notebook.get(Test, before.id)
    now = notebook.get(Developer, after.developer_id) if after else None
    if stock is not None and stock.name == NO_FILM:
        _remove_unless_needed(notebook, stock)
    if bath is None or now is None or bath.id == now.id:
        return
    diluted = bath.name == now.name and bath == Developer(id=bath.id, name=bath.name)
    if diluted or bath.name == NO_DEVELOPER:
        _remove_unless_needed(notebook, bath)


def _remove_unless_needed(notebook: Notebook, record: Stock | Developer) -> None:
    """Remove a record nothing refers to."""
    for child, parents in PARENTS.items():
        for name, parent in parents:
            if parent is type(record) and notebook.all_of(child, name, [record.id]):
                return
    notebook.remove(record)


def developer_phrased(notebook: Notebook, words: str) -> Developer:
    """The developer of a phrase whose last word is its dilution, as in ``Tarn 1+9``.

    The bare name will do where there is one dilution of it.

    Raises
    ------
    EditRefusedError
        If the bare name may mean several.
    """
    plain = words.strip()
    for developer in notebook.all(Developer):
        if developer.bath == plain:
            return developer
    alike = notebook.all(Developer, name=plain)
    if len(alike) > 1:
        which = ", ".join(d.bath for d in alike)
        raise EditRefusedError(f"“{plain}”: which dilution? There are {which}")
    if alike:
        return alike[0]
    name, _, dilution = plain.rpartition(" ")
    if not name or not any(sign in dilution for sign in "+:"):
        return developer_named(notebook, plain)
    return developer_named(notebook, name, dilution)


def batch_named(notebook: Notebook, stock_id: int, name: str) -> Batch:
    """The batch of a stock with a name, written if it is new. Inside `change`."""
    known = notebook.all(Batch, stock_id=stock_id, name=name)
    return known[0] if known else notebook.add(Batch(stock_id=stock_id, name=name))


def camera_named(notebook: Notebook, name: str) -> int | None:
    """The id of the camera with a name, written if it is new; None for no name."""
    if not name.strip():
        return None
    known = notebook.all(Camera, name=name.strip())
    return known[0].id if known else notebook.add(Camera(name=name.strip())).id


def lens_named(notebook: Notebook, name: str) -> int | None:
    """The id of the lens with a name, written if it is new; None for no name."""
    if not name.strip():
        return None
    known = notebook.all(Lens, name=name.strip())
    return known[0].id if known else notebook.add(Lens(name=name.strip())).id
