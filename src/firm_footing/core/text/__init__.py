"""How is it said? Every sentence about a student, from numbers and conclusions."""
