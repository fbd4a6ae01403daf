"""Which commands are there?"""

import typer

from firm_footing.cli.film import film
from firm_footing.cli.flight import flight
from firm_footing.cli.keeping import backup, bring_in, export, restore
from firm_footing.cli.learn import learn
from firm_footing.cli.mat import mat
from firm_footing.cli.monitor import monitor
from firm_footing.cli.rank import rank
from firm_footing.cli.serve import demo, serve
from firm_footing.cli.simulate import simulate
from firm_footing.cli.trace import trace

app = typer.Typer(
    name="firm-footing",
    help="From ball flight, divot and strike to the footwork and pressure causes behind them.",
    no_args_is_help=True,
    add_completion=False,
)
app.command()(rank)
app.command()(learn)
app.command()(demo)
app.command()(serve)
app.command()(backup)
app.command()(restore)
app.command()(export)
app.command("import")(bring_in)
app.command()(simulate)
app.command()(flight)
app.command()(monitor)
app.command()(mat)
app.command()(trace)
app.command()(film)
