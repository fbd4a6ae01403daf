"""samples of pressure traces apart from what is said of them

Revision ID: 0004
Revises: 0003
"""

import json
from datetime import datetime

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "recording",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column("lesson_id", sa.String(), nullable=False),
        sa.Column("samples", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(["lesson_id"], ["lesson.id"], ondelete="CASCADE"),
    )
    op.create_index("ix_recording_lesson_id", "recording", ["lesson_id"])
    connection = op.get_bind()
    kept = connection.execute(
        sa.text("SELECT id, lesson_id, block_id, position, content FROM pressure_trace")
    ).all()
    op.drop_table("pressure_trace")
    trace = op.create_table(
        "pressure_trace",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column("lesson_id", sa.String(), nullable=False),
        sa.Column("block_id", sa.String(), nullable=True),
        sa.Column("recording_id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("events", sa.JSON(), nullable=False),
        sa.Column("swapped", sa.Boolean(), nullable=False),
        sa.Column("recorded_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["lesson_id"], ["lesson.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["block_id"], ["block.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["recording_id"], ["recording.id"], ondelete="CASCADE"),
    )
    for column in ("lesson_id", "block_id", "recording_id"):
        op.create_index(f"ix_pressure_trace_{column}", "pressure_trace", [column])
    recording = sa.table("recording", sa.column("id"), sa.column("lesson_id"), sa.column("samples"))
    for row in kept:
        content = json.loads(row.content)
        samples = {"columns": content["columns"], "samples": content["samples"]}
        started = connection.execute(
            sa.text("SELECT started_at FROM lesson WHERE id = :id"), {"id": row.lesson_id}
        ).scalar_one()
        connection.execute(
            recording.insert().values(
                id=row.id, lesson_id=row.lesson_id, samples=json.dumps(samples)
            )
        )
        connection.execute(
            trace.insert().values(
                id=row.id,
                lesson_id=row.lesson_id,
                block_id=row.block_id,
                recording_id=row.id,
                position=row.position,
                name="",
                events=content.get("events", {}),
                swapped=False,
                recorded_at=datetime.fromisoformat(started),
            )
        )


def downgrade() -> None:
    connection = op.get_bind()
    kept = connection.execute(
        sa.text(
            "SELECT t.id, t.lesson_id, t.block_id, t.position, t.events, r.samples "
            "FROM pressure_trace t JOIN recording r ON r.id = t.recording_id"
        )
    ).all()
    op.drop_table("pressure_trace")
    op.drop_table("recording")
    trace = op.create_table(
        "pressure_trace",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column("lesson_id", sa.String(), nullable=False),
        sa.Column("block_id", sa.String(), nullable=True),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("content", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["lesson_id"], ["lesson.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["block_id"], ["block.id"], ondelete="CASCADE"),
    )
    for column in ("lesson_id", "block_id"):
        op.create_index(f"ix_pressure_trace_{column}", "pressure_trace", [column])
    for row in kept:
        content = {**json.loads(row.samples), "events": json.loads(row.events)}
        connection.execute(
            trace.insert().values(
                id=row.id,
                lesson_id=row.lesson_id,
                block_id=row.block_id,
                position=row.position,
                content=content,
            )
        )
