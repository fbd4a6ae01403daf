"""Balls and what they show."""
