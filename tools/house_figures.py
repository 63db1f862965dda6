"""How the code is kept: sizes, circles of imports, names used twice, functions nobody calls.

``python tools/house_figures.py [REPOSITORY ...]`` prints a column for each repository, so that
a change can be seen beside what was before.
"""

from __future__ import annotations

import ast
import io
import re
import statistics
import sys
import tokenize
from collections import Counter
from collections.abc import Callable, Iterator
from pathlib import Path

LONG_FUNCTION, LONG_FILE, FULL_FOLDER = 30, 300, 15
_KEPT_FOR_LATER = re.compile(r"`(?:vadrin\.)?([\w.]+)`")
_FRAMEWORK = re.compile(
    r"^(visit_|test_|__|upgrade$|downgrade$|[a-z]+[A-Z])|^(data|event|flags|paint|count|run|ticks|process_bind_param|process_result_value)$"
)
"""Names that a framework calls: Qt's, SQLAlchemy's, alembic's, Python's own."""


def sources(root: Path) -> dict[str, ast.Module]:
    """Every module of ``src`` by its dotted name."""
    base = root / "src"
    found = {}
    for path in sorted(base.rglob("*.py")):
        name = ".".join(path.relative_to(base).with_suffix("").parts)
        found[name.removesuffix(".__init__")] = ast.parse(path.read_text(encoding="utf-8"))
    return found


def statements(tree: ast.AST) -> Iterator[ast.AST]:
    """Every statement, at any depth; a tenth of what all nodes are."""
    waiting = [tree]
    while waiting:
        node = waiting.pop()
        for part in ("body", "orelse", "finalbody", "handlers", "cases"):
            inner = getattr(node, part, None)
            if isinstance(inner, list):
                yield from inner
                waiting += inner


def functions(tree: ast.Module) -> Iterator[ast.FunctionDef | ast.AsyncFunctionDef]:
    """Every function and method."""
    for node in statements(tree):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
            yield node


def _lines(node: ast.FunctionDef | ast.AsyncFunctionDef) -> int:
    """Lines of a function without its docstring."""
    whole = (node.end_lineno or node.lineno) - node.lineno + 1
    first = node.body[0]
    if isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant):
        whole -= (first.end_lineno or first.lineno) - first.lineno + 1
    return whole


def imported(name: str, tree: ast.Module, known: set[str]) -> set[str]:
    """Modules a module imports when it is loaded; names for type checkers do not count."""
    found: set[str] = set()
    for node in tree.body:
        if isinstance(node, ast.ImportFrom) and node.module:
            for alias in node.names:
                whole = f"{node.module}.{alias.name}"
                found.add(whole if whole in known else node.module)
        elif isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
    return (found & known) - {name}


def circles(trees: dict[str, ast.Module]) -> int:
    """Groups of modules, and of rooms beside each other, that import each other in a circle."""
    graph = {n: imported(n, t, set(trees)) for n, t in trees.items()}
    rooms: dict[str, set[str]] = {}
    for name, others in graph.items():
        for other in others:
            mine, theirs = name.split("."), other.split(".")
            depth = next(
                (i for i, (a, b) in enumerate(zip(mine, theirs, strict=False)) if a != b), None
            )
            if depth is not None:
                rooms.setdefault(".".join(mine[: depth + 1]), set()).add(
                    ".".join(theirs[: depth + 1])
                )
    return _knots(graph) + _knots(rooms)


def _knots(graph: dict[str, set[str]]) -> int:
    """Strongly connected groups of more than one."""
    reach = {n: _reachable(n, graph) for n in graph}
    groups = {frozenset(m for m in reach[n] if n in reach.get(m, set())) for n in graph}
    return sum(len(g) > 1 for g in groups)


def _reachable(start: str, graph: dict[str, set[str]]) -> set[str]:
    seen: set[str] = set()
    waiting = list(graph[start])
    while waiting:
        name = waiting.pop()
        if name not in seen:
            seen.add(name)
            waiting += graph.get(name, ())
    return seen


def _defined(tree: ast.Module) -> Iterator[str]:
    for node in tree.body:
        if isinstance(node, ast.FunctionDef | ast.ClassDef):
            yield node.name
        elif isinstance(node, ast.Assign):
            yield from (t.id for t in node.targets if isinstance(t, ast.Name))


def defined_twice(trees: dict[str, ast.Module]) -> list[str]:
    """Public names that more than one module defines."""
    counts = Counter(n for t in trees.values() for n in set(_defined(t)) if not n.startswith("_"))
    shared = {
        "DESCRIPTION",
        "TYPE",
        "view",
        "revision",
        "down_revision",
        "upgrade",
        "downgrade",
        "branch_labels",
        "depends_on",
    }
    return sorted(n for n, count in counts.items() if count > 1 and n not in shared)


def file_names_used_twice(root: Path) -> list[str]:
    """Names of modules that stand in more than one folder; a type of test has one in each layer."""
    counted = (p for p in (root / "src").rglob("*.py") if p.name != "__init__.py")
    names = Counter(p.name for p in counted if "test_types" not in p.parts)
    return sorted(name for name, count in names.items() if count > 1)


def without_caller(root: Path, trees: dict[str, ast.Module]) -> list[str]:
    """Functions that no line of ``src`` or of its commands names, less those kept for later."""
    named: Counter[str] = Counter()
    tools = (root / "tools").glob("[bds]*/*.py"), (root / "tools").glob("snapshot.py")
    commands = [ast.parse(path.read_text(encoding="utf-8")) for each in tools for path in each]
    for tree in [*trees.values(), *commands]:
        for node in ast.walk(tree):
            if isinstance(node, ast.Name):
                named[node.id] += 1
            elif isinstance(node, ast.Attribute):
                named[node.attr] += 1
            elif isinstance(node, ast.Constant) and isinstance(node.value, str):
                named.update(re.findall(r"\w+", node.value) if len(node.value) < 40 else ())
    document = root / "docs" / "architecture.md"
    kept = (
        _KEPT_FOR_LATER.findall(document.read_text(encoding="utf-8")) if document.exists() else []
    )
    later = {name.rsplit(".", 1)[-1] for name in kept}
    made = {(m, f.name) for m, t in trees.items() for f in functions(t)}
    return sorted(
        f"{module}.{name}"
        for module, name in made
        if not named[name] and not _FRAMEWORK.match(name) and name not in later
    )


def inner_imports(trees: dict[str, ast.Module]) -> str:
    """Imports inside functions, and in how many files."""
    counts = [sum(_imports_in(f) for f in functions(tree)) for tree in trees.values()]
    return f"{sum(counts)} in {sum(n > 0 for n in counts)} files"


def _imports_in(function: ast.FunctionDef | ast.AsyncFunctionDef) -> int:
    return sum(isinstance(n, ast.Import | ast.ImportFrom) for n in function.body)


def formatter_exceptions(root: Path) -> int:
    """Places where the formatter is told to look away."""
    mark = re.compile(r"#\s*fmt: *(?:skip|off)")
    folders = (root / name for name in ("src", "tests", "tools"))
    files = (f for folder in folders for f in folder.rglob("*.py"))
    return sum(len(mark.findall(f.read_text(encoding="utf-8"))) for f in files)


def importers(trees: dict[str, ast.Module]) -> str:
    """How many public names there are, and how many are imported by one module alone."""
    names = {(m, n) for m, t in trees.items() for n in _defined(t) if not n.startswith("_")}
    users: Counter[tuple[str, str]] = Counter()
    for tree in trees.values():
        for node in ast.walk(tree):
            if isinstance(node, ast.ImportFrom) and node.module:
                users.update((node.module, alias.name) for alias in node.names)
    return f"{len(names)}, {sum(users[name] == 1 for name in names)}"


_NO_CODE = {
    tokenize.COMMENT,
    tokenize.NL,
    tokenize.NEWLINE,
    tokenize.INDENT,
    tokenize.DEDENT,
    tokenize.ENDMARKER,
}


def _code_lines(folder: Path) -> int:
    """Lines with code on them: no blank lines, no comments, no docstrings."""
    return sum(_lines_of_code(f.read_text(encoding="utf-8")) for f in folder.rglob("*.py"))


def _lines_of_code(text: str) -> int:
    lines: set[int] = set()
    for token in tokenize.generate_tokens(io.StringIO(text).readline):
        if token.type not in _NO_CODE:
            lines |= set(range(token.start[0], token.end[0] + 1))
    for node in statements(ast.parse(text)):
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
            lines -= set(range(node.lineno, (node.end_lineno or node.lineno) + 1))
    return len(lines)


def figures(root: Path) -> dict[str, str]:
    """Every figure of one repository, in words."""
    trees = sources(root)
    paths = sorted((root / "src").rglob("*.py"))
    sizes = [len(p.read_text(encoding="utf-8").splitlines()) for p in paths]
    lengths = [_lines(f) for t in trees.values() for f in functions(t)]
    folders = Counter(str(p.parent.relative_to(root / "src" / "vadrin")) for p in paths)
    twice, idle = defined_twice(trees), without_caller(root, trees)
    repeated = file_names_used_twice(root)
    most, count = folders.most_common(1)[0]
    return {
        "files": str(len(paths)),
        "folders": str(len(folders)),
        "files per folder, median": f"{statistics.median(folders.values()):g}",
        "files in the fullest folder": f"{count} ({most})",
        "file length, median and 90th percentile": _pair(sizes),
        "function length, median and 90th percentile": _pair(lengths),
        f"files over {LONG_FILE} lines": str(sum(n > LONG_FILE for n in sizes)),
        f"folders over {FULL_FOLDER} files": str(sum(n > FULL_FOLDER for n in folders.values())),
        "imports inside functions": inner_imports(trees),
        "exceptions from the formatter": str(formatter_exceptions(root)),
        "public names, and those with one importer": importers(trees),
        f"functions over {LONG_FUNCTION} lines": str(sum(n > LONG_FUNCTION for n in lengths)),
        "circles of imports, of modules and rooms": str(circles(trees)),
        "file names used twice": f"{len(repeated)} {' '.join(repeated)}".strip(),
        "public names defined twice": f"{len(twice)} {' '.join(twice)}".strip(),
        "functions without a caller": f"{len(idle)} {' '.join(idle)}".strip(),
        "share of tests, every line counted": _share(_all_lines, root),
        "share of tests, lines of code alone": _share(_code_lines, root),
    }


def _all_lines(folder: Path) -> int:
    files = folder.rglob("*.py")
    return sum(len(f.read_text(encoding="utf-8").splitlines()) for f in files)


def _share(lines: Callable[[Path], int], root: Path) -> str:
    tests, code = lines(root / "tests"), lines(root / "src")
    return f"{100 * tests / (tests + code):.1f} %"


def _pair(values: list[int]) -> str:
    nine = statistics.quantiles(values, n=10)[-1]
    return f"{statistics.median(values):g}, {nine:.0f}"


if __name__ == "__main__":
    roots = [Path(p) for p in sys.argv[1:]] or [Path(__file__).parents[1]]
    columns = [figures(root) for root in roots]
    for name in columns[0]:
        print(f"{name:<46}" + "  |  ".join(column[name] for column in columns))
