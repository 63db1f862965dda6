"""A test taken in from somebody else's notebook says whose it was."""

from alembic import op

revision = "0017"
down_revision = "0016"


def upgrade() -> None:
    op.execute("ALTER TABLE test ADD COLUMN taken_from TEXT NOT NULL DEFAULT ''")
