"""Write down every sentence the program can say, station by station, to be read through.

``python tools/sentences.py`` writes docs/sentences.md, which is made and not committed.
"""

from __future__ import annotations

import ast
import re
import sys
from collections import defaultdict
from collections.abc import Iterator
from functools import lru_cache
from pathlib import Path

ROOT = Path(__file__).parents[1]
PAGE = ROOT / "docs" / "sentences.md"
STATIONS = {
    "Shelf and cupboard": ("app/library", "ui/stations/shelf", "ui/stations/cupboard"),
    "Question": ("app/descriptions", "ui/stations/question", "app/plan/starting_tests.py"),
    "Plan": ("app/plan", "ui/stations/plan", "core/planning"),
    "Expose": ("app/expose", "ui/stations/expose", "core/exposure"),
    "Process": (
        "app/process",
        "ui/stations/process",
        "core/process",
        "app/loaded/reference_temperature.py",
    ),
    "Read": ("app/read", "app/scans", "ui/stations/read", "core/checks"),
    "Curves": ("app/curves", "ui/stations/curves", "ui/plots", "core/curves", "core/fitting"),
    "Finding": ("app/results", "ui/stations/finding", "core/results", "core/materials"),
    "Cards": ("ui/stations/cards", "formats/reports"),
    "Whatever is typed": ("app/entry", "ui/widgets"),
    "Around the stations": ("ui", "app", "core"),
    "Files and the notebook": ("formats", "notebook", "ui/files"),
    "The terminal": ("commands",),
}
"""Headings, and the folders whose words stand under each; the first that fits has them."""

_NOT_SAID = re.compile(r"^\s*(SELECT|INSERT|PRAGMA|UPDATE|DELETE|ALTER|CREATE)\b|[{};]\s*\n|^%")
_SAID = re.compile(r"[^\W\d_]{2,}.*\s.*[^\W\d_]|^[A-Z][a-z]{2,}…?$", re.DOTALL)
_SILENT_CALLS = {"setProperty", "getattr", "setattr", "setObjectName", "TypeVar", "strftime"}


def _template(node: ast.JoinedStr) -> str:
    """Its words, with what is filled in as it stands in the code, in braces."""
    said = ""
    for part in node.values:
        if isinstance(part, ast.Constant):
            said += str(part.value)
        elif isinstance(part, ast.FormattedValue):
            form = part.format_spec
            how = f":{_template(form)}" if isinstance(form, ast.JoinedStr) else ""
            said += f"{{{ast.unparse(part.value)}{how}}}"
    return said


def _unsaid_below(node: ast.AST) -> Iterator[ast.AST]:
    """What nobody reads of a node: a docstring, an annotation, the name of a thing, a style."""
    if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
        yield node.value
    elif isinstance(node, ast.FormattedValue | ast.JoinedStr):
        parts = node.values if isinstance(node, ast.JoinedStr) else [node.format_spec]
        yield from (p for p in parts if isinstance(p, ast.Constant | ast.JoinedStr))
    elif isinstance(node, ast.Call):
        if getattr(node.func, "attr", getattr(node.func, "id", "")) in _SILENT_CALLS:
            yield from node.args
    elif isinstance(node, ast.FunctionDef) and "style" in node.name:
        yield from ast.iter_child_nodes(node)
    for hint in (getattr(node, "annotation", None), getattr(node, "returns", None)):
        if hint is not None:
            yield hint


def _texts(node: ast.AST, silent: bool = False) -> Iterator[ast.JoinedStr | ast.Constant]:
    """The texts below a node that are read, in one walk."""
    plain = isinstance(node, ast.Constant) and isinstance(node.value, str)
    if not silent and (plain or isinstance(node, ast.JoinedStr)):
        yield node  # type: ignore[misc]
    unsaid = {id(below) for below in _unsaid_below(node)}
    for below in ast.iter_child_nodes(node):
        yield from _texts(below, silent or id(below) in unsaid)


def sentences_in(source: str) -> list[str]:
    """The texts of one module that a person can come to read, in order, without repeats."""
    found = sorted((n.lineno, n.col_offset, _words(n)) for n in _texts(ast.parse(source)))
    said = (words for _, _, words in found)
    return list(dict.fromkeys(w for w in said if _SAID.search(w) and not _NOT_SAID.search(w)))


def _words(node: ast.JoinedStr | ast.Constant) -> str:
    return _template(node) if isinstance(node, ast.JoinedStr) else str(node.value)


@lru_cache(maxsize=1)
def by_station(root: Path) -> dict[str, dict[str, list[str]]]:
    """Sentences by station and module."""
    told: dict[str, dict[str, list[str]]] = defaultdict(dict)
    package = root / "src" / "vadrin"
    for path in sorted(package.rglob("*.py")):
        name = path.relative_to(package).as_posix()
        if name.startswith(("app/demo/", "core/simulation/", "notebook/migrations/")):
            continue
        station = next((s for s, rooms in STATIONS.items() if name.startswith(rooms)), None)
        words = sentences_in(path.read_text(encoding="utf-8"))
        if station and words:
            told[station][name] = words
    return told


def page(root: Path = ROOT) -> str:
    """The whole page."""
    told = by_station(root)
    lines = [
        "# Every sentence",
        "",
        "Made by `python tools/sentences.py` from the code; change the words there. What stands "
        "in braces is filled in.",
        "",
    ]
    for station in STATIONS:
        lines += [f"## {station}", ""]
        for name, words in told.get(station, {}).items():
            lines += [f"`{name}`", ""]
            lines += ["- " + " ".join(w.split()).replace("|", "\\|") for w in words]
            lines.append("")
    return "\n".join(lines).rstrip() + "\n"


if __name__ == "__main__":
    PAGE.write_text(page(), encoding="utf-8")
    print(f"{PAGE.relative_to(ROOT)} written", file=sys.stderr)
