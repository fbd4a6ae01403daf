"""What stands in for people and devices that are not there? Simulated students and demo data."""
