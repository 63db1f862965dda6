"""What was kept as typed is kept as structure: film, second factor, what is compared, tablet."""

import sqlalchemy as sa
from alembic import op

from vadrin.notebook.upgrades import structured_columns

revision = "0004"
down_revision = "0003"

_RENAMED = (
    ("test", "prefer", "turned_first"),
    ("test", "check_last", "repeat_first"),
    ("test", "second", "second_factor"),
    ("test", "against", "compared_names"),
    ("finding", "grounds", "report"),
    ("finding", "question", "basis"),
)
_ADDED = (
    "film_amount FLOAT",
    "film_unit TEXT NOT NULL DEFAULT 'frames'",
    "film_taken INTEGER NOT NULL DEFAULT 0",
)


def upgrade() -> None:
    connection = op.get_bind()
    words = "SELECT id, film_form, second, against, tablet, arrangement FROM test"
    tests = [dict(row._mapping) for row in connection.execute(sa.text(words))]
    for table, old, new in _RENAMED:
        op.execute(f"ALTER TABLE {table} RENAME COLUMN {old} TO {new}")
    op.execute("ALTER TABLE matching RENAME TO column_matching")
    for column in _ADDED:
        op.execute(f"ALTER TABLE test ADD COLUMN {column}")
    for test in tests:
        values = structured_columns(test)
        names = ", ".join(f"{name} = :{name}" for name in values)
        connection.execute(
            sa.text(f"UPDATE test SET {names} WHERE id = :id"), {**values, "id": test["id"]}
        )
    op.execute("ALTER TABLE test DROP COLUMN film_form")
