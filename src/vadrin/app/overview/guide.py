"""The guide and the terms, as they are looked things up in within the program."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files

_LINK = re.compile(r"!?\[([^]]*)\]\([^)]*\)")
_SHORTEST = 2


@dataclass(frozen=True)
class GuidePart:
    """A part of the guide under a head of its own.

    Attributes
    ----------
    head, words : str
        Markdown without links: what they lead to is not in the program.
    """

    head: str
    words: str


@dataclass(frozen=True)
class Term:
    """A term of the field: its names, what it is, and its symbol."""

    names: tuple[str, ...]
    what: str
    symbol: str

    @property
    def said(self) -> str:
        """The term in a line."""
        symbol = f" ({self.symbol})" if self.symbol else ""
        return f"{', '.join(self.names)}{symbol}: {self.what}"


def _text_of(name: str) -> str:
    return (files("vadrin") / "guide" / name).read_text(encoding="utf-8")


def _cells(line: str) -> list[str]:
    return [cell.strip() for cell in line.strip().strip("|").split("|")]


@lru_cache(maxsize=1)
def guide_parts() -> tuple[GuidePart, ...]:
    """The guide, part by part; each row of its table of stations is one, and so are the terms."""
    parts: list[GuidePart] = []
    for section in re.split(r"^## ", _text_of("guide.md"), flags=re.M)[1:]:
        head, _, body = section.partition("\n")
        rows = [_cells(line) for line in body.splitlines() if line.startswith("|")][2:]
        parts += [GuidePart(row[0], _plain(row[1])) for row in rows]
        rest = "\n".join(line for line in body.splitlines() if not line.startswith("|")).strip()
        if rest:
            parts.append(GuidePart(head.strip(), _plain(rest)))
    words = "\n".join(f"- **{t.names[0]}**{t.said[len(t.names[0]) :]}" for t in terms())
    return (*parts, GuidePart("Terms", words))


def _plain(words: str) -> str:
    return _LINK.sub(r"\1", words)


@lru_cache(maxsize=1)
def terms() -> tuple[Term, ...]:
    """Every term, in the order of the list."""
    rows = [_cells(line) for line in _text_of("glossary.md").splitlines() if line.startswith("|")]
    return tuple(
        Term(tuple(name.strip() for name in row[0].split(",")), row[1], row[2])
        for row in rows[2:]
        if len(row) > 2
    )


def parts_about(typed: str) -> tuple[GuidePart, ...]:
    """The parts that hold every word that was typed; of the terms, the lines that do."""
    asked = typed.lower().split()
    found = []
    for part in guide_parts():
        if part.head == "Terms" and asked:
            lines = [x for x in part.words.splitlines() if all(w in x.lower() for w in asked)]
            if lines:
                found.append(GuidePart(part.head, "\n".join(lines)))
        elif all(word in f"{part.head} {part.words}".lower() for word in asked):
            found.append(part)
    return tuple(found)


def explained(words: str) -> tuple[Term, ...]:
    """The terms that stand in some words, the first first; EI for what it is short for, too."""
    said = words.lower()
    met = []
    for term in terms():
        names = [*(n.lower() for n in term.names), term.symbol.lower()]
        places = [
            found.start()
            for name in names
            if len(name) >= _SHORTEST
            and (found := re.search(rf"(?<![\w-]){re.escape(name)}s?(?![\w-])", said))
        ]
        if places:
            met.append((min(places), term))
    return tuple(term for _, term in sorted(met, key=lambda pair: pair[0]))
