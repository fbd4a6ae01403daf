"""One way for a change: its shapes, and what it answers."""
