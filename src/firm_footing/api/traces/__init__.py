"""Pressure traces and what they say."""
