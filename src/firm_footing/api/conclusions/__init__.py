"""What follows from a lesson."""
