"""Where are students and lessons kept? SQLite through SQLModel."""
