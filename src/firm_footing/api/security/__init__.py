"""Who may come in, with how much: guard, pairing, intake."""
