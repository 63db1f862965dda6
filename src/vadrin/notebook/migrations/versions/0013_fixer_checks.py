"""A fixer is tried in two ways, each on a day: a strip that clears, a drop that clouds."""

from alembic import op

revision = "0013"
down_revision = "0012"


def upgrade() -> None:
    for column in ("clearing_at", "drop_test", "drop_at"):
        op.execute(f"ALTER TABLE bottle ADD COLUMN {column} TEXT NOT NULL DEFAULT ''")
