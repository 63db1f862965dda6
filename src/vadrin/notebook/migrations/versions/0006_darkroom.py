"""Processes have steps and a factor of their own; runs in the darkroom are kept as they went."""

from alembic import op

revision = "0006"
down_revision = "0005"

_TEXT = "TEXT NOT NULL DEFAULT ''"
_MADE = {
    "process_step": (
        "process_id INTEGER NOT NULL REFERENCES process(id)",
        "position INTEGER NOT NULL DEFAULT 0",
        f"name {_TEXT}",
        "seconds FLOAT NOT NULL DEFAULT 0",
        "temperature_c FLOAT",
        "tolerance_k FLOAT",
        f"agitation {_TEXT}",
        "develops BOOLEAN NOT NULL DEFAULT 0",
        "may_pause BOOLEAN NOT NULL DEFAULT 0",
        f"note {_TEXT}",
    ),
    "darkroom_run": (
        "test_id INTEGER NOT NULL REFERENCES test(id)",
        f"started_at {_TEXT}",
        f"steps {_TEXT}",
        "reference_c FLOAT NOT NULL DEFAULT 20",
        "q10 FLOAT NOT NULL DEFAULT 2.5",
        "confirmed BOOLEAN NOT NULL DEFAULT 0",
        f"note {_TEXT}",
    ),
    "rule": (
        f"name {_TEXT}",
        f"takes {_TEXT}",
        f"formula {_TEXT}",
        "amount FLOAT NOT NULL DEFAULT 1",
        f"whose {_TEXT}",
        f"note {_TEXT}",
    ),
    "rule_trial": (
        "rule_id INTEGER NOT NULL REFERENCES rule(id)",
        "test_id INTEGER REFERENCES test(id)",
        "given FLOAT NOT NULL DEFAULT 0",
        "usual_min FLOAT",
        "predicted_min FLOAT NOT NULL DEFAULT 0",
        f"predicted_at {_TEXT}",
        "measured_min FLOAT",
        f"measured_at {_TEXT}",
        f"note {_TEXT}",
    ),
    "run_event": (
        "run_id INTEGER NOT NULL REFERENCES darkroom_run(id)",
        f"happened_at {_TEXT}",
        "uptime FLOAT NOT NULL DEFAULT 0",
        f"boot {_TEXT}",
        f"what {_TEXT}",
        "value FLOAT",
        f"strip {_TEXT}",
    ),
}


def upgrade() -> None:
    for table, columns in _MADE.items():
        op.execute(f"CREATE TABLE {table} (id INTEGER NOT NULL PRIMARY KEY, {', '.join(columns)})")
    op.execute("ALTER TABLE process ADD COLUMN kind TEXT NOT NULL DEFAULT 'negative'")
    op.execute("ALTER TABLE process ADD COLUMN q10 FLOAT")
    op.execute("ALTER TABLE developer ADD COLUMN least_ml FLOAT")
    op.execute("ALTER TABLE bottle ADD COLUMN fresh_clearing_s FLOAT")
    op.execute("ALTER TABLE bottle ADD COLUMN clearing_s FLOAT")
    for table, column in (
        ("process_step", "process_id"),
        ("darkroom_run", "test_id"),
        ("run_event", "run_id"),
        ("rule_trial", "rule_id"),
    ):
        op.execute(f"CREATE INDEX ix_{table}_{column} ON {table} ({column})")
