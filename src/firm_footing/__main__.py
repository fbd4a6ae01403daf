"""`python -m firm_footing` is the same as `firm-footing`."""

from firm_footing.cli.main import app

app()
