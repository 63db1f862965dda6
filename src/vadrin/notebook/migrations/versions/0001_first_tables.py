"""The first schema: stocks to findings."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def _text(name: str) -> sa.Column[str]:
    return sa.Column(name, sa.Text, nullable=False)


def _number(name: str, optional: bool = False) -> sa.Column[float]:
    return sa.Column(name, sa.Float, nullable=optional)


def _whole(name: str, optional: bool = False) -> sa.Column[int]:
    return sa.Column(name, sa.Integer, nullable=optional)


def _link(name: str, table: str, optional: bool = False) -> sa.Column[int]:
    link = sa.ForeignKey(f"{table}.id")
    return sa.Column(name, sa.Integer, link, nullable=optional, index=True)


def _id() -> sa.Column[int]:
    return sa.Column("id", sa.Integer, primary_key=True)


def _kit() -> None:
    op.create_table(
        "stock", _id(), _text("name"), _text("kind"), _number("box_speed"), _text("note")
    )
    op.create_table(
        "batch",
        _id(),
        _link("stock_id", "stock"),
        _text("name"),
        _text("expiry"),
        _text("storage"),
        _whole("rolls_left", True),
        _text("note"),
    )
    op.create_table("developer", _id(), _text("name"), _text("dilution"), _text("note"))


def _tests() -> None:
    op.create_table(
        "test",
        _id(),
        _text("kind"),
        _link("stock_id", "stock"),
        _link("batch_id", "batch", True),
        _link("developer_id", "developer"),
        _text("created_at"),
        _number("exposure_index"),
        _number("metered_seconds"),
        _number("aperture"),
        _number("first_stop"),
        _number("last_stop"),
        _number("step"),
        _whole("blanks"),
        _text("agitation"),
        _text("target_kind"),
        _number("target_value"),
        _text("school"),
        _number("meter_constant"),
        _text("note"),
    )
    op.create_table(
        "strip",
        _id(),
        _link("test_id", "test"),
        _whole("position"),
        _text("label"),
        _number("planned_min", True),
        _number("time_min", True),
        _number("temperature_c", True),
        _text("note"),
    )


def _film() -> None:
    op.create_table(
        "frame",
        _id(),
        _link("strip_id", "strip"),
        _whole("position"),
        _text("name"),
        _number("log_h", True),
        _number("exposure_index", True),
        _number("stops", True),
        _text("state"),
        _text("exposed_at"),
        _text("note"),
    )
    op.create_table(
        "reading",
        _id(),
        _link("frame_id", "frame"),
        _whole("position"),
        _number("density"),
        _text("channel"),
        _text("read_at"),
        sa.Column("left_out", sa.Boolean, nullable=False),
        _text("note"),
        _text("extra"),
    )
    op.create_table(
        "finding",
        _id(),
        _link("test_id", "test"),
        _text("decided_at"),
        _number("exposure_index"),
        _number("time_min"),
        _number("temperature_c"),
        _text("target_kind"),
        _number("target_value"),
        _text("grounds"),
    )


def upgrade() -> None:
    _kit()
    _tests()
    _film()
