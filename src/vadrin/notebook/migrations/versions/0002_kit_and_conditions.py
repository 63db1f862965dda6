"""Cameras, bottles and the rest of the kit; run conditions; what really happened to a frame."""

from alembic import op

revision = "0002"
down_revision = "0001"

_TEXT, _NUMBER, _WHOLE = "TEXT NOT NULL DEFAULT ''", "FLOAT", "INTEGER"

_ADDED: dict[str, tuple[tuple[str, str], ...]] = {
    "stock": (("base", _TEXT),),
    "developer": (
        ("role", "TEXT NOT NULL DEFAULT 'developer'"),
        ("recipe", _TEXT),
        ("capacity_films", _NUMBER),
        ("keeps_days", _NUMBER),
    ),
    "test": (
        ("uid", _TEXT),
        ("like_id", "INTEGER REFERENCES test(id)"),
        ("camera_id", "INTEGER REFERENCES camera(id)"),
        ("lens_id", "INTEGER REFERENCES lens(id)"),
        ("meter_id", "INTEGER REFERENCES light_meter(id)"),
        ("instrument_id", "INTEGER REFERENCES instrument(id)"),
        ("paper_id", "INTEGER REFERENCES paper(id)"),
        ("process_id", "INTEGER REFERENCES process(id)"),
        ("bottle_id", "INTEGER REFERENCES bottle(id)"),
        ("light", _TEXT),
        ("subject", "TEXT NOT NULL DEFAULT 'plain target'"),
        ("water", _TEXT),
        ("vessel", _TEXT),
        ("film_form", _TEXT),
        ("prefer", "TEXT NOT NULL DEFAULT 'shutter'"),
        ("filter_stops", "FLOAT NOT NULL DEFAULT 0"),
        ("check_last", "BOOLEAN NOT NULL DEFAULT 0"),
        ("arrangement", _TEXT),
        ("second", _TEXT),
        ("against", _TEXT),
        ("tablet", _TEXT),
    ),
    "strip": (
        ("roll", "INTEGER NOT NULL DEFAULT 1"),
        ("push", _NUMBER),
        ("stock_id", "INTEGER REFERENCES stock(id)"),
        ("batch_id", "INTEGER REFERENCES batch(id)"),
        ("developer_id", "INTEGER REFERENCES developer(id)"),
        ("camera_id", "INTEGER REFERENCES camera(id)"),
        ("agitation", _TEXT),
    ),
    "frame": (
        ("role", "TEXT NOT NULL DEFAULT 'bracket'"),
        ("wanted_stops", _NUMBER),
        ("seconds", _NUMBER),
        ("aperture", _NUMBER),
        ("filter_stops", "FLOAT NOT NULL DEFAULT 0"),
        ("dial_index", _NUMBER),
        ("compensation", _NUMBER),
        ("turn", "INTEGER NOT NULL DEFAULT 0"),
    ),
    "finding": (("question", _TEXT), ("decided_by", _TEXT), ("note", _TEXT)),
}

_MADE: dict[str, tuple[str, ...]] = {
    "bottle": (
        "developer_id INTEGER NOT NULL REFERENCES developer(id)",
        f"name {_TEXT}",
        f"mixed_at {_TEXT}",
        "volume_ml FLOAT",
        "films_done FLOAT NOT NULL",
        f"note {_TEXT}",
    ),
    "process": (
        f"name {_TEXT}",
        "developer_id INTEGER REFERENCES developer(id)",
        "temperature_c FLOAT NOT NULL",
        f"agitation {_TEXT}",
        f"vessel {_TEXT}",
        f"water {_TEXT}",
        "volume_ml FLOAT",
        f"note {_TEXT}",
    ),
    "paper": (
        f"name {_TEXT}",
        f"grade {_TEXT}",
        "exposure_scale FLOAT",
        "full_black_seconds FLOAT",
        f"note {_TEXT}",
    ),
    "camera": (
        f"name {_TEXT}",
        "slowest FLOAT NOT NULL",
        "fastest FLOAT NOT NULL",
        "shutter_step FLOAT NOT NULL",
        "bulb BOOLEAN NOT NULL",
        "dial_low FLOAT",
        "dial_high FLOAT",
        "dial_step FLOAT NOT NULL",
        "compensation FLOAT NOT NULL",
        "frame_rate FLOAT",
        "shutter_angle FLOAT",
        f"note {_TEXT}",
    ),
    "shutter_time": (
        "camera_id INTEGER NOT NULL REFERENCES camera(id)",
        "marked FLOAT NOT NULL",
        "measured FLOAT NOT NULL",
        f"measured_at {_TEXT}",
        f"note {_TEXT}",
    ),
    "lens": (
        f"name {_TEXT}",
        "widest FLOAT NOT NULL",
        "smallest FLOAT NOT NULL",
        "aperture_step FLOAT NOT NULL",
        "light_loss FLOAT NOT NULL",
        f"note {_TEXT}",
    ),
    "light_meter": (
        f"name {_TEXT}",
        "dial_low FLOAT",
        "dial_high FLOAT",
        "constant FLOAT NOT NULL",
        f"note {_TEXT}",
    ),
    "instrument": (
        f"name {_TEXT}",
        f"kind {_TEXT}",
        "noise FLOAT",
        f"calibrated_at {_TEXT}",
        f"calibration {_TEXT}",
        f"note {_TEXT}",
    ),
    "exposure": (
        "frame_id INTEGER NOT NULL REFERENCES frame(id)",
        "position INTEGER NOT NULL",
        f"exposed_at {_TEXT}",
        "stops FLOAT",
        "seconds FLOAT",
        "aperture FLOAT",
        f"note {_TEXT}",
    ),
    "meter_reading": (
        "test_id INTEGER NOT NULL REFERENCES test(id)",
        "frame_id INTEGER REFERENCES frame(id)",
        f"taken_at {_TEXT}",
        "stops FLOAT NOT NULL",
        f"note {_TEXT}",
    ),
    "note": (
        "test_id INTEGER NOT NULL REFERENCES test(id)",
        "frame_id INTEGER REFERENCES frame(id)",
        f"written_at {_TEXT}",
        f"words {_TEXT}",
    ),
    "attachment": (
        "test_id INTEGER REFERENCES test(id)",
        "stock_id INTEGER REFERENCES stock(id)",
        f"name {_TEXT}",
        f"media_type {_TEXT}",
        f"added_at {_TEXT}",
        "data BLOB NOT NULL",
    ),
    "matching": (f"headers {_TEXT}", f"columns {_TEXT}"),
}

_INDEXED = (
    ("bottle", "developer_id"),
    ("shutter_time", "camera_id"),
    ("exposure", "frame_id"),
    ("meter_reading", "test_id"),
    ("note", "test_id"),
    ("attachment", "test_id"),
)


def upgrade() -> None:
    for table, columns in _MADE.items():
        op.execute(f"CREATE TABLE {table} (id INTEGER NOT NULL PRIMARY KEY, {', '.join(columns)})")
    for table, added in _ADDED.items():
        for name, kind in added:
            op.execute(f"ALTER TABLE {table} ADD COLUMN {name} {kind}")
    for table, column in _INDEXED:
        op.execute(f"CREATE INDEX ix_{table}_{column} ON {table} ({column})")
    # The few words among very many rows are found without reading all of them.
    for table in ("strip", "frame", "reading"):
        op.execute(f"CREATE INDEX ix_{table}_words ON {table} (id) WHERE note <> ''")
    op.execute("UPDATE test SET uid = lower(hex(randomblob(8)))")
    op.execute("UPDATE frame SET wanted_stops = stops")
    op.execute("UPDATE frame SET role = 'blank' WHERE log_h IS NULL AND exposure_index IS NULL")
    # A frame exposed twice got twice the light.
    op.execute("UPDATE frame SET stops = stops + 1 WHERE state = 'doubled'")
