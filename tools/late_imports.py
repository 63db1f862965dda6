"""Imports inside functions that could as well stand at the top of their file.

Only two kinds may stand inside: what brings a package that the first window, or a person who
never opens such a file, should not wait for; and what would import in a circle.
``python tools/late_imports.py`` lists the others.
"""

from __future__ import annotations

import ast
import sys
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))
from tools.house_figures import functions, sources, statements  # noqa: E402

SLOW = ("numpy", "scipy", "sqlalchemy", "alembic", "pyqtgraph")
"""Nothing of them before the first window."""
OPTIONAL = (
    "PIL",
    "PyQt6.QtDBus",
    "PyQt6.QtMultimedia",
    "alembic",
    "coloraide",
    "defusedxml",
    "odf",
    "openpyxl",
    "rawpy",
    "reportlab",
    "serial",
    "sqlalchemy",
    "tifffile",
)
"""What some files, papers and instruments need and most starts do not."""
_FIRST = ("vadrin.commands.desktop", "vadrin.ui.stations.shelf.shelf_station")
_ASKED_FOR_BY_NAME = "vadrin.core.planning.test_types."

Imports = dict[str, set[str]]


def _targets(node: ast.Import | ast.ImportFrom, known: set[str]) -> set[str]:
    if isinstance(node, ast.Import):
        return {alias.name for alias in node.names}
    whole = {f"{node.module}.{alias.name}" for alias in node.names}
    return {str(node.module)} | (whole & known)


def _for_checkers(node: ast.stmt) -> bool:
    return isinstance(node, ast.If) and "TYPE_CHECKING" in ast.unparse(node.test)


def _at_top(tree: ast.Module, known: set[str]) -> set[str]:
    found: set[str] = set()
    for node in tree.body:
        body = [node] if not isinstance(node, ast.If | ast.Try) else node.body
        for each in [] if _for_checkers(node) else body:
            if isinstance(each, ast.Import | ast.ImportFrom):
                found |= _targets(each, known)
    return found


def _all_behind(names: set[str], top: Imports) -> set[str]:
    """Everything that is loaded with some modules, the rooms they lie in among it."""
    seen: set[str] = set()
    waiting = list(names)
    while waiting:
        name = waiting.pop()
        if name not in seen:
            seen.add(name)
            waiting += top.get(name, ())
            waiting += [name.rpartition(".")[0]] if "." in name else []
    return seen


def _brought(loaded: set[str], packages: tuple[str, ...]) -> set[str]:
    return {p for p in packages if any(n == p or n.startswith(f"{p}.") for n in loaded)}


def _inside(tree: ast.Module, known: set[str]) -> Iterator[tuple[int, set[str]]]:
    for function in functions(tree):
        for node in statements(function):
            if isinstance(node, ast.Import | ast.ImportFrom):
                yield node.lineno, _targets(node, known)


def needless(trees: dict[str, ast.Module]) -> list[str]:
    """Where an import stands inside a function for no reason: module, line, what it imports."""
    known = set(trees)
    top = {name: _at_top(tree, known) for name, tree in trees.items()}
    by_name = {n for n in known if n.startswith(_ASKED_FOR_BY_NAME)}
    first = _all_behind({n for n in _FIRST if n in known} | by_name, top)
    found = []
    for name, tree in trees.items():
        mine = _all_behind({name}, top)
        for line, targets in _inside(tree, known):
            loaded = _all_behind(targets, top)
            slow = _brought(loaded, SLOW) - _brought(mine, SLOW) if name in first else set()
            if name in loaded or slow or _brought(loaded, OPTIONAL) - _brought(mine, OPTIONAL):
                continue
            found.append(f"{name}:{line} {', '.join(sorted(targets))}")
    return sorted(set(found))


if __name__ == "__main__":
    listed = needless(sources(ROOT))
    print("\n".join(listed) or "every import inside a function has a reason")
    sys.exit(1 if listed else 0)
