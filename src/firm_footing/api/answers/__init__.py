"""Answers to the looks."""
