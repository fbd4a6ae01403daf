"""Every change is a step: undo, redo, sent twice, in conflict, how many."""
