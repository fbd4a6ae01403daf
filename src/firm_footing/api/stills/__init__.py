"""Stills from a film."""
