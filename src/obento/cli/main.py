"""`obento ...`: one small command each; their work is done elsewhere, and only loaded for the command that is called.

Arguments are read by the standard library: the command line is called once for each hand-in by some, and anything
larger takes longer to load than a small check takes to run."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Callable, Sequence
from pathlib import Path

from obento import __version__

Run = Callable[[argparse.Namespace], int]


def main(arguments: Sequence[str] | None = None) -> None:
    """Run the command that the arguments name, and end with its status; 2 for a call that is wrong."""
    given = list(sys.argv[1:] if arguments is None else arguments)
    if given[:1] == ["--version"]:
        print(__version__)
        sys.exit(0)
    if not given or given[0] in ("-h", "--help") or given[0] not in _COMMANDS:
        is_asked = bool(given) and given[0] in ("-h", "--help")
        if given and not is_asked:
            print(f"obento: there is no command {given[0]!r}", file=sys.stderr)
        print(_overview(), file=sys.stdout if is_asked else sys.stderr)
        sys.exit(0 if is_asked else 2)
    make = _COMMANDS[given[0]]
    parser = argparse.ArgumentParser(
        prog=f"obento {given[0]}", description=make.__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    run = make(parser)
    sys.exit(run(parser.parse_intermixed_args(given[1:])))


def _overview() -> str:
    lines = [f"  {name:12} {(make.__doc__ or '').partition('.')[0]}" for name, make in _COMMANDS.items()]
    return "\n".join(["usage: obento COMMAND ...  (obento COMMAND --help tells more)", "", "commands:", *lines])


def _at_least(least: float, kind: Callable[[str], float]) -> Callable[[str], float]:
    def read(text: str) -> float:
        number = kind(text)
        if number < least:
            raise argparse.ArgumentTypeError(f"{text} is less than {least:g}")
        return number

    read.__name__ = "number"  # what a message about it calls it
    return read


def _check(p: argparse.ArgumentParser) -> Run:
    """Check hand-ins against a spec. Exit status 0: all pass, 1: some do not, 2: the spec or the call is wrong."""
    p.add_argument("spec", metavar="SPEC", type=Path, help="the spec file (*.toml)")
    p.add_argument("handins", metavar="HANDIN", type=Path, nargs="+", help="files, folders or zips")
    p.add_argument("--batch", action="store_true", help="each child of the folder or zip is one hand-in")
    p.add_argument("--json", metavar="FILE", type=Path, help="write the result as JSON")
    p.add_argument("--csv", metavar="FILE", type=Path, help="write one row a hand-in as CSV")
    p.add_argument("--junit", metavar="FILE", type=Path, help="write JUnit-style XML")
    p.add_argument("--tap", metavar="FILE", type=Path, help="write TAP")
    p.add_argument("--jobs", metavar="N", type=_at_least(0, int), default=0, help="worker processes; 0 for one a core")
    p.add_argument("--cases", choices=["all", "failing", "none"], default="failing", help="which cases the files list")

    def run(a: argparse.Namespace) -> int:
        from obento.cli.check import run_check
        from obento.cli.writing import Outputs

        return run_check(a.spec, a.handins, a.batch, Outputs(a.json, a.csv, a.junit, a.tap), a.jobs, a.cases)

    return run


def _simulate(p: argparse.ArgumentParser) -> Run:
    """Run a bench. Exit status 0: it ended, 1: by a failing assertion, 2: it does not compile, 3: a limit stopped
    it."""
    p.add_argument(
        "files",
        metavar="FILE",
        type=Path,
        nargs="+",
        help="sources and what they read; folders count as the files in them",
    )
    p.add_argument("--top", metavar="NAME", help="the module to begin with; else all that no other uses")
    p.add_argument("--until", metavar="TIME", help="stop at this time, for instance 100ns")
    p.add_argument("--vcd", metavar="FILE", type=Path, help="write all changes of all signals")
    p.add_argument("--files", dest="folder", metavar="FOLDER", type=Path, help="keep the files that the bench writes")
    p.add_argument(
        "--seconds",
        metavar="N",
        type=_at_least(0.1, float),
        default=60,
        help="give up after so many seconds of processor time",
    )

    def run(a: argparse.Namespace) -> int:
        from obento.cli.simulate import run_simulate

        return run_simulate(a.files, a.top, a.until, a.vcd, a.folder, a.seconds)

    return run


def _catch_rate(p: argparse.ArgumentParser) -> Run:
    """How many likely mistakes a spec's cases catch. Exit status 0: all, 1: some are missed, 2: the spec is wrong."""
    p.add_argument("spec", metavar="SPEC", type=Path, help="the spec file (*.toml)")
    p.add_argument("--json", metavar="FILE", type=Path, help="write the result as JSON")

    def run(a: argparse.Namespace) -> int:
        from obento.cli.catch_rate import run_catch_rate

        return run_catch_rate(a.spec, a.json)

    return run


def _serve(p: argparse.ArgumentParser) -> Run:
    """Start database and server on loopback, with the demo class when the database is new."""
    p.add_argument("--port", metavar="N", type=int, default=8400, help="port on 127.0.0.1")
    p.add_argument(
        "--demo",
        action=argparse.BooleanOptionalAction,
        default=True,
        help="load the demo class when the database is new",
    )

    def run(a: argparse.Namespace) -> int:
        from obento.cli.serve import run_serve

        return run_serve(a.port, a.demo)

    return run


def _account(p: argparse.ArgumentParser) -> Run:
    """Print a link by which somebody sets a password: for a new account, or a forgotten password."""
    p.add_argument("email", metavar="EMAIL", help="whose account it is")
    p.add_argument("name", metavar="NAME", nargs="?", default="", help="first and last name, for a new account")
    p.add_argument(
        "--port", metavar="N", type=int, default=8400, help="the port that the server uses; it stands in the link"
    )

    def run(a: argparse.Namespace) -> int:
        from obento.cli.account import run_account

        return run_account(a.email, a.name, a.port)

    return run


def _db(p: argparse.ArgumentParser) -> Run:
    """Start, stop or look at the private database; try an upgrade on a copy of it."""
    p.add_argument("action", choices=["start", "stop", "status", "try-upgrade"])

    def run(a: argparse.Namespace) -> int:
        if a.action == "try-upgrade":
            from obento.cli.backup import run_try_upgrade

            return run_try_upgrade()
        from obento.cli.serve import run_db

        return run_db(a.action)

    return run


def _backup(p: argparse.ArgumentParser) -> Run:
    """Write all records to one file, and try whether it can be restored. The server may run meanwhile."""
    p.add_argument("file", metavar="FILE", type=Path, help="the backup, a zip; one of this name is replaced")
    p.add_argument("--untried", action="store_true", help="do not restore it on trial: faster, and less sure")

    def run(a: argparse.Namespace) -> int:
        from obento.cli.backup import run_backup

        return run_backup(a.file, not a.untried)

    return run


def _restore(p: argparse.ArgumentParser) -> Run:
    """Put the records of a backup into the database. Stop the server first."""
    p.add_argument("file", metavar="FILE", type=Path, help="the backup")
    p.add_argument(
        "--replace", action="store_true", help="in the place of records that are there; those are kept aside"
    )

    def run(a: argparse.Namespace) -> int:
        from obento.cli.backup import run_restore

        return run_restore(a.file, a.replace)

    return run


_COMMANDS: dict[str, Callable[[argparse.ArgumentParser], Run]] = {
    "check": _check,
    "simulate": _simulate,
    "catch-rate": _catch_rate,
    "serve": _serve,
    "account": _account,
    "db": _db,
    "backup": _backup,
    "restore": _restore,
}
