"""A test has one rule for its pushes, and a finding keeps the card it was decided with."""

from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.execute("ALTER TABLE test ADD COLUMN push_rule TEXT NOT NULL DEFAULT 'hold_highlight'")
    op.execute("ALTER TABLE finding ADD COLUMN card TEXT NOT NULL DEFAULT ''")
