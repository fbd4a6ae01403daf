"""What follows from the probabilities: what to look at, try and expect, and does it suffice?"""
