"""Films: marks, measures, films beside each other."""
