"""Which rows were written over or removed, and in which session: for copies that come together."""

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"


def upgrade() -> None:
    op.create_table(
        "writing_session",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("uid", sa.Text, nullable=False),
        sa.Column("began_at", sa.Text, nullable=False),
        sa.Column("edits", sa.Integer, nullable=False),
    )
    op.create_table(
        "rewrite",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("kind", sa.Text, nullable=False),
        sa.Column("row", sa.Integer, nullable=False),
        sa.Column("session", sa.Text, nullable=False),
        sa.Column("edit", sa.Integer, nullable=False),
        sa.Column("removed", sa.Boolean, nullable=False),
        sa.Column("was", sa.Text, nullable=False),
    )
    op.create_index("ix_rewrite_row", "rewrite", ["row"])
