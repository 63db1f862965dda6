"""A bottle of fixer or bleach says go or discard by what a scrap shows."""

from datetime import UTC, datetime

import pytest

from vadrin.app.shelf.shelf_index import bottle_words
from vadrin.notebook.records import Bottle, Developer

NOW = datetime(2026, 11, 26, tzinfo=UTC)


@pytest.mark.parametrize(
    ("role", "now_s", "words", "urgent"),
    [
        ("fixer", 90.0, "clears a scrap in 90 s: fix for 180 s at least", False),
        ("fixer", 120.0, "exhausted: discard under local rules", True),
        (
            "bleach",
            70.0,
            "a drop bleaches a fully exposed scrap in 70 s: bleach for 140 s at least",
            False,
        ),
        ("bleach", 150.0, "exhausted: discard under local rules", True),
    ],
)
def test_a_scrap_tells_whether_it_still_does(role, now_s, words, urgent):
    bottle = Bottle(fresh_clearing_s=60.0, clearing_s=now_s)
    assert bottle_words(bottle, Developer(role=role), NOW) == (words, urgent)
