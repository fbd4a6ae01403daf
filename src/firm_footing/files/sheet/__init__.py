"""The page a student takes home, as a web page, as PDF and as a calendar."""
