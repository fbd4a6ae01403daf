"""Who gives lessons."""
