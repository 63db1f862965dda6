"""What stands on a darkroom card, in words ready to print."""

from __future__ import annotations

from dataclasses import dataclass

CARD_SIZES = {"A6": (148.0, 105.0), "Index card 5 × 3 in": (127.0, 76.2)}
"""Paper sizes in millimetres, width first."""


@dataclass(frozen=True)
class CardRow:
    """One push or pull on the card."""

    name: str
    exposure_index: str
    time: str
    shadow: str
    verdict: str
    normal: bool = False


@dataclass(frozen=True)
class Card:
    """Everything printed on a card.

    Attributes
    ----------
    film, developer, temperature, agitation : str
    status, signed : str
        Whether and when it was decided; by whom and why.
    care : str
        The caution at the foot of every side.
    exposure_index, index_range, time, time_range : str
        The answer where it is an EI and a time.
    rows : tuple of CardRow
        Pushes and pulls, by the `rule`.
    basis : str
        What it rests on.
    diagnostics : tuple of str
        What is doubtful about it.
    says, says_how : str
        What stands in the place of EI and time, where the test asked for something else.
    lines : tuple of tuple of str
        Rows under it, the heads first; a row of another width begins another table.
    purpose : str
        The question it answers.
    steps : tuple of (str, str)
        How to work by it: what is done, and how.
    mind : tuple of str
        What must be minded whenever it is used.
    """

    film: str
    developer: str
    temperature: str
    agitation: str
    status: str
    care: str
    exposure_index: str = ""
    index_range: str = ""
    time: str = ""
    time_range: str = ""
    rows: tuple[CardRow, ...] = ()
    rule: str = ""
    basis: str = ""
    diagnostics: tuple[str, ...] = ()
    says: str = ""
    says_how: str = ""
    lines: tuple[tuple[str, ...], ...] = ()
    purpose: str = ""
    steps: tuple[tuple[str, str], ...] = ()
    mind: tuple[str, ...] = ()
    signed: str = ""

    @property
    def tables(self) -> tuple[tuple[tuple[str, ...], ...], ...]:
        """`lines` table by table, without the columns in which no row says anything."""
        made: list[list[tuple[str, ...]]] = []
        for line in self.lines:
            if not made or len(made[-1][0]) != len(line):
                made.append([])
            made[-1].append(line)
        return tuple(_without_silent_columns(table) for table in made)


def _without_silent_columns(table: list[tuple[str, ...]]) -> tuple[tuple[str, ...], ...]:
    heads, *rows = table
    said = [i for i in range(len(heads)) if not rows or any(row[i] for row in rows)]
    return tuple(tuple(line[i] for i in said) for line in table)
