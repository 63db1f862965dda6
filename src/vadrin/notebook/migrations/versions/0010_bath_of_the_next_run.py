"""A test knows how warm the bath is that its next strips go into; unknown is not 20 °C."""

from alembic import op

revision = "0010"
down_revision = "0009"


def upgrade() -> None:
    op.execute("ALTER TABLE test ADD COLUMN bath_c FLOAT")
