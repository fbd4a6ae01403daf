"""The sheet to take home, and its follow-up."""
