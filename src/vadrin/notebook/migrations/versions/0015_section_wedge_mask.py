"""Words that were kept and have another name now: step wedge, maximum black, mask, section."""

import sqlalchemy as sa
from alembic import op

from vadrin.notebook.upgrades import RENAMED_WORDS

revision = "0015"
down_revision = "0014"


def upgrade() -> None:
    connection = op.get_bind()
    for (table, column), words in RENAMED_WORDS.items():
        for old, new in words.items():
            # Only what begins so: a target may be told further, as "step wedge by contact".
            connection.execute(
                sa.text(
                    f"UPDATE {table} SET {column} = :new || substr({column}, :rest) "
                    f"WHERE substr({column}, 1, :length) = :old"
                ),
                {"new": new, "old": old, "length": len(old), "rest": len(old) + 1},
            )
