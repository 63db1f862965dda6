"""Lines under headings, one section after the other."""

from __future__ import annotations

from collections.abc import Iterable

from PyQt6.QtWidgets import QVBoxLayout

from vadrin.app.overview.finding_sections import Section, Weight
from vadrin.ui.theme.roles import Role
from vadrin.ui.widgets.labels import rule, text

_ROLES = {
    Weight.ACT: Role.LEAD_STRONG,
    Weight.BODY: Role.BODY,
    Weight.NOTE: Role.NOTE,
    Weight.SMALL: Role.CAPTION,
    Weight.TROUBLE: Role.REFUSAL,
    Weight.ESTIMATED: Role.ESTIMATED,
}


def add_sections(column: QVBoxLayout, sections: Iterable[Section], ruled: bool = True) -> None:
    """Put sections at the end of a column, a hairline before each."""
    for section in sections:
        if ruled:
            column.addWidget(rule())
        column.addWidget(text(section.title, Role.SECTION, wrap=True))
        for words, weight in section.lines:
            column.addWidget(text(words, _ROLES[weight], wrap=True))
