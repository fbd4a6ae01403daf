"""Students."""
