"""Times and temperatures know whether they were told, kept by the clock, or measured."""

from alembic import op

revision = "0011"
down_revision = "0010"

_ADDED = (
    ("strip", "time_from"),
    ("strip", "temperature_from"),
    ("test", "bath_from"),
    ("run_event", "value_from"),
)


def upgrade() -> None:
    for table, column in _ADDED:
        op.execute(f"ALTER TABLE {table} ADD COLUMN {column} TEXT NOT NULL DEFAULT ''")
