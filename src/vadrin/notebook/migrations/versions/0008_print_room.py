"""The print room; strips with a process of their own; scans kept by reference; channels."""

from alembic import op

revision = "0008"
down_revision = "0007"

_TEXT = "TEXT NOT NULL DEFAULT ''"
_MADE = {
    "enlarger": (f"name {_TEXT}", f"head {_TEXT}", f"lens {_TEXT}", f"note {_TEXT}"),
    "paper_grade": (
        "paper_id INTEGER NOT NULL REFERENCES paper(id)",
        f"grade {_TEXT}",
        "exposure_scale FLOAT",
        "factor FLOAT",
        "measured BOOLEAN NOT NULL DEFAULT 0",
        f"note {_TEXT}",
    ),
    "print_setup": (
        "test_id INTEGER NOT NULL REFERENCES test(id)",
        "enlarger_id INTEGER REFERENCES enlarger(id)",
        "paper_id INTEGER REFERENCES paper(id)",
        f"image_size {_TEXT}",
        "aperture FLOAT",
        f"grade {_TEXT}",
        f"paper_batch {_TEXT}",
        f"developer {_TEXT}",
        "developer_s FLOAT",
        f"locked_at {_TEXT}",
        f"closed_at {_TEXT}",
        "black_s FLOAT",
        "black_low_s FLOAT",
        "black_high_s FLOAT",
        f"black_way {_TEXT}",
        "base_fog FLOAT",
        f"note {_TEXT}",
    ),
    "print_strip": (
        "setup_id INTEGER NOT NULL REFERENCES print_setup(id)",
        "position INTEGER NOT NULL DEFAULT 0",
        f"purpose {_TEXT}",
        "strip_id INTEGER REFERENCES strip(id)",
        "frame_id INTEGER REFERENCES frame(id)",
        "base_s FLOAT NOT NULL DEFAULT 0",
        "step FLOAT NOT NULL DEFAULT 0",
        "step_unit TEXT NOT NULL DEFAULT 'stops'",
        "pieces INTEGER NOT NULL DEFAULT 1",
        f"way {_TEXT}",
        "chosen INTEGER",
        f"answer {_TEXT}",
        "densities TEXT NOT NULL DEFAULT '[]'",
        f"made_at {_TEXT}",
        f"note {_TEXT}",
    ),
    "workprint": (
        "setup_id INTEGER NOT NULL REFERENCES print_setup(id)",
        "frame_id INTEGER REFERENCES frame(id)",
        f"grade {_TEXT}",
        "seconds FLOAT NOT NULL DEFAULT 0",
        f"work {_TEXT}",
        f"verdict {_TEXT}",
        f"picture {_TEXT}",
        f"made_at {_TEXT}",
        f"note {_TEXT}",
    ),
}
_INDEXED = (
    ("paper_grade", "paper_id"),
    ("print_setup", "test_id"),
    ("print_strip", "setup_id"),
    ("workprint", "setup_id"),
)


def upgrade() -> None:
    for table, columns in _MADE.items():
        op.execute(f"CREATE TABLE {table} (id INTEGER NOT NULL PRIMARY KEY, {', '.join(columns)})")
    op.execute(f"ALTER TABLE test ADD COLUMN channel {_TEXT}")
    op.execute("ALTER TABLE strip ADD COLUMN process_id INTEGER REFERENCES process(id)")
    op.execute("ALTER TABLE attachment ADD COLUMN strip_id INTEGER REFERENCES strip(id)")
    for column in (f"path {_TEXT}", f"checksum {_TEXT}", "size INTEGER"):
        op.execute(f"ALTER TABLE attachment ADD COLUMN {column}")
    for table, column in _INDEXED:
        op.execute(f"CREATE INDEX ix_{table}_{column} ON {table} ({column})")
