"""Run migrations on one notebook file."""

from alembic import context
from sqlalchemy import create_engine

from vadrin.notebook.tables import METADATA

path = context.config.attributes["notebook"]
engine = create_engine(f"sqlite:///{path}")
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=METADATA, render_as_batch=True)
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
