"""Decisions and what became of them."""
