"""A bottle of fixer or bleach says go or discard by what a scrap shows."""

from datetime import UTC, datetime

import pytest

from vadrin.app.shelf.shelf_index import bottle_words
from vadrin.notebook.records import Bottle, Developer

NOW = datetime(2026, 11, 26, tzinfo=UTC)


@pytest.mark.parametrize(
    ("role", "now_s", "words", "urgent"),
    [
        ("fixer", 90.0, "clears a scrap in 90 s on 2026-11-20: fix for 180 s at least", False),
        (
            "fixer",
            120.0,
            "exhausted: discard under local rules (clears a scrap in 120 s on 2026-11-20)",
            True,
        ),
        (
            "bleach",
            70.0,
            "a drop bleaches a fully exposed scrap in 70 s on 2026-11-20: bleach for 140 s at "
            "least",
            False,
        ),
        (
            "bleach",
            150.0,
            "exhausted: discard under local rules (a drop bleaches a fully exposed scrap in 150 s "
            "on 2026-11-20)",
            True,
        ),
    ],
)
def test_a_scrap_tells_whether_it_still_does(role, now_s, words, urgent):
    bottle = Bottle(fresh_clearing_s=60.0, clearing_s=now_s, clearing_at="2026-11-20")
    assert bottle_words(bottle, Developer(role=role), NOW) == (words, urgent)


def test_a_drop_that_clouds_ends_a_fixer_that_still_clears():
    bottle = Bottle(
        fresh_clearing_s=60.0, clearing_s=70.0, drop_test="clouds", drop_at="2026-11-21"
    )
    said, urgent = bottle_words(bottle, Developer(role="fixer"), NOW)
    assert urgent
    assert said.startswith("exhausted")
    assert "a drop of test solution clouds on 2026-11-21" in said
    assert "on a day nobody noted" in said, "the scrap's day was not written down"
