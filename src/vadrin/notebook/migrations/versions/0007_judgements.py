"""What an eye says is kept like what an instrument says; makers' tables; control strips."""

from alembic import op

revision = "0007"
down_revision = "0006"

_TEXT = "TEXT NOT NULL DEFAULT ''"
_MADE = {
    "maker_time": (
        "stock_id INTEGER NOT NULL REFERENCES stock(id)",
        "developer_id INTEGER NOT NULL REFERENCES developer(id)",
        "stops FLOAT",
        "exposure_index FLOAT",
        "temperature_c FLOAT",
        "time_min FLOAT NOT NULL DEFAULT 0",
        f"source {_TEXT}",
        f"note {_TEXT}",
    ),
    "control_strip": (
        "process_id INTEGER NOT NULL REFERENCES process(id)",
        "run_id INTEGER REFERENCES darkroom_run(id)",
        f"batch {_TEXT}",
        f"read_at {_TEXT}",
        "fog FLOAT NOT NULL DEFAULT 0",
        "low FLOAT NOT NULL DEFAULT 0",
        "high FLOAT NOT NULL DEFAULT 0",
        "reference BOOLEAN NOT NULL DEFAULT 0",
        f"note {_TEXT}",
    ),
    "judgement": (
        "strip_id INTEGER REFERENCES strip(id)",
        "frame_id INTEGER REFERENCES frame(id)",
        "position INTEGER NOT NULL DEFAULT 0",
        f"asked {_TEXT}",
        f"answer {_TEXT}",
        f"way {_TEXT}",
        f"place {_TEXT}",
        "value FLOAT",
        "reference FLOAT",
        f"detail {_TEXT}",
        f"judged_at {_TEXT}",
        "left_out BOOLEAN NOT NULL DEFAULT 0",
        f"note {_TEXT}",
    ),
}
_INDEXED = (
    ("maker_time", "stock_id"),
    ("maker_time", "developer_id"),
    ("control_strip", "process_id"),
    ("judgement", "strip_id"),
    ("judgement", "frame_id"),
)


def upgrade() -> None:
    for table, columns in _MADE.items():
        op.execute(f"CREATE TABLE {table} (id INTEGER NOT NULL PRIMARY KEY, {', '.join(columns)})")
    for column in ("deviation FLOAT", "low FLOAT", "high FLOAT", f"way {_TEXT}"):
        op.execute(f"ALTER TABLE reading ADD COLUMN {column}")
    op.execute(f"ALTER TABLE test ADD COLUMN pull_way {_TEXT}")
    for column in ("port", "line_format"):
        op.execute(f"ALTER TABLE instrument ADD COLUMN {column} {_TEXT}")
    for table, column in _INDEXED:
        op.execute(f"CREATE INDEX ix_{table}_{column} ON {table} ({column})")
