"""The knowledge that screens need."""
