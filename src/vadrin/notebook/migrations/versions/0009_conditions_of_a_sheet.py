"""A test has a fixed filter of its own, and says how fresh its process was."""

from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.execute("ALTER TABLE test ADD COLUMN filter_factor FLOAT NOT NULL DEFAULT 1")
    op.execute("ALTER TABLE test ADD COLUMN process_state TEXT NOT NULL DEFAULT ''")
