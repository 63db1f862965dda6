"""What meant another thing for each type of test is kept as the options of that type."""

import sqlalchemy as sa
from alembic import op

from vadrin.notebook.upgrades import options_columns

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    connection = op.get_bind()
    op.execute("ALTER TABLE test ADD COLUMN options TEXT NOT NULL DEFAULT ''")
    kept = connection.execute(sa.text("SELECT id, kind, second_factor, subject, note FROM test"))
    for test in [dict(row._mapping) for row in kept]:
        connection.execute(
            sa.text(
                "UPDATE test SET options = :options, subject = :subject, note = :note "
                "WHERE id = :id"
            ),
            {**options_columns(test), "id": test["id"]},
        )
    op.execute("ALTER TABLE test DROP COLUMN second_factor")
