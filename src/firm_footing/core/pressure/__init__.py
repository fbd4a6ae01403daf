"""What does a pressure trace say? Recorded samples, events, measures, corridor, signs."""
