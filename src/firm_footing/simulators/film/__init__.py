"""A camera beside an invented player: what it films, and where every joint truly was."""
