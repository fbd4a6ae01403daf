"""Tables of balls, in and out."""
