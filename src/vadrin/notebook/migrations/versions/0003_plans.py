"""Plans know the leader, the holder, what is compared, a twin camera and long exposures."""

from alembic import op

revision = "0003"
down_revision = "0002"

_ADDED = {
    "stock": ("reciprocity TEXT NOT NULL DEFAULT ''",),
    "test": (
        "leader INTEGER NOT NULL DEFAULT 0",
        "holder INTEGER NOT NULL DEFAULT 0",
        "compared TEXT NOT NULL DEFAULT 'developers'",
        "twin_id INTEGER REFERENCES camera(id)",
    ),
}


def upgrade() -> None:
    for table, columns in _ADDED.items():
        for column in columns:
            op.execute(f"ALTER TABLE {table} ADD COLUMN {column}")
