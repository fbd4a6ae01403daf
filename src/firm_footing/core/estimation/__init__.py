"""Which delivery do the balls imply? From what was noted back to the club, by Bayes."""
