"""`obento ...`: one small command each; their work is done elsewhere."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, Literal

import typer

from obento import __version__

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False, help="Checks a class's hand-ins against a spec.")


@app.callback(invoke_without_command=True)
def _root(version: Annotated[bool, typer.Option("--version", help="Print the version and stop.")] = False) -> None:
    if version:
        typer.echo(__version__)
        raise typer.Exit


@app.command()
def check(
    spec: Annotated[Path, typer.Argument(metavar="SPEC", help="The spec file (*.toml).")],
    handins: Annotated[list[Path], typer.Argument(metavar="HANDIN...", help="Files, folders or zips.")],
    batch: Annotated[bool, typer.Option(help="Each child of the folder or zip is one hand-in.")] = False,
    json_file: Annotated[Path | None, typer.Option("--json", metavar="FILE", help="Write the result as JSON.")] = None,
    csv_file: Annotated[Path | None, typer.Option("--csv", metavar="FILE", help="Write one row a hand-in as CSV.")] = None,
    junit_file: Annotated[Path | None, typer.Option("--junit", metavar="FILE", help="Write JUnit-style XML.")] = None,
    tap_file: Annotated[Path | None, typer.Option("--tap", metavar="FILE", help="Write TAP.")] = None,
    jobs: Annotated[int, typer.Option(help="Worker processes; 0 for one a core.", min=0)] = 0,
    cases: Annotated[Literal["all", "failing", "none"], typer.Option(help="Which cases the files list.")] = "failing",
) -> None:
    """Check hand-ins against a spec. Exit status 0: all pass, 1: some do not, 2: the spec or the call is wrong."""
    from obento.cli.check import Outputs, run_check  # the command's weight is only carried when it is used

    raise typer.Exit(run_check(spec, handins, batch, Outputs(json_file, csv_file, junit_file, tap_file), jobs, cases))


@app.command("simulate")
def simulate_command(
    files: Annotated[list[Path], typer.Argument(metavar="FILE...", help="Sources and what they read; folders count as the files in them.")],
    top: Annotated[str | None, typer.Option(metavar="NAME", help="The module to begin with; else all that no other uses.")] = None,
    until: Annotated[str | None, typer.Option(metavar="TIME", help="Stop at this time, for instance 100ns.")] = None,
    vcd: Annotated[Path | None, typer.Option(metavar="FILE", help="Write all changes of all signals.")] = None,
    folder: Annotated[Path | None, typer.Option("--files", metavar="FOLDER", help="Keep the files that the bench writes.")] = None,
    seconds: Annotated[float, typer.Option(help="Give up after so many seconds.", min=0.1)] = 60,
) -> None:
    """Run a bench. Exit status 0: it ended, 1: by a failing assertion, 2: it does not compile, 3: a limit stopped it."""
    from obento.cli.simulate import run_simulate

    raise typer.Exit(run_simulate(files, top, until, vcd, folder, seconds))


@app.command("catch-rate")
def catch_rate(
    spec: Annotated[Path, typer.Argument(metavar="SPEC", help="The spec file (*.toml).")],
    json_file: Annotated[Path | None, typer.Option("--json", metavar="FILE", help="Write the result as JSON.")] = None,
) -> None:
    """How many likely mistakes a spec's cases catch. Exit status 0: all, 1: some are missed, 2: the spec is wrong."""
    from obento.cli.catch_rate import run_catch_rate

    raise typer.Exit(run_catch_rate(spec, json_file))


@app.command()
def serve(
    port: Annotated[int, typer.Option(help="Port on 127.0.0.1.")] = 8400,
    demo: Annotated[bool, typer.Option(help="Load the demo class when the database is new.")] = True,
) -> None:
    """Start database and server on loopback, with the demo class when the database is new."""
    from obento.cli.serve import run_serve

    raise typer.Exit(run_serve(port, demo))


@app.command()
def account(
    email: Annotated[str, typer.Argument(help="Whose account it is.")],
    name: Annotated[str, typer.Argument(help="First and last name, for a new account.")] = "",
    port: Annotated[int, typer.Option(help="The port that the server uses; it stands in the link.")] = 8400,
) -> None:
    """Print a link by which somebody sets a password: for a new account, or a forgotten password."""
    from obento.cli.account import run_account

    raise typer.Exit(run_account(email, name, port))


@app.command()
def db(action: Annotated[Literal["start", "stop", "status"], typer.Argument()]) -> None:
    """Start, stop or look at the private database."""
    from obento.cli.serve import run_db

    raise typer.Exit(run_db(action))


def main() -> None:
    app()
