"""A test of two factors says whether its cells lie on one sheet; older programs cannot read that.

No table changes: what a type alone asks for is kept as its options.
"""

revision = "0014"
down_revision = "0013"


def upgrade() -> None:
    pass
