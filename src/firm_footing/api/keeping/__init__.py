"""Backups."""
