"""Drill, ladder, retest, clock."""
