"""A lesson and all that is in it."""
