"""How do other programs, and our own screens, talk to Firm Footing? Over HTTP and JSON."""
