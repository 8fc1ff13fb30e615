"""`obento account`: the first account of a new server, and a way back in for whoever forgot a password."""

from __future__ import annotations

import sys

from obento.cli.database import database_at_hand
from obento.cli.serve import root
from obento.server.accounts.invitations import LINK_DAYS, link_of, token_for
from obento.server.settings import Settings
from obento.store import accounts, audit
from obento.store.connection import Store
from obento.store.mariadb import DatabaseTrouble
from obento.store.migrate import migrate


def run_account(email: str, name: str, port: int) -> int:
    """Print a link by which this person sets a password. The exit status: 0, or 1 where there is no such person and no
    name for one."""
    settings = Settings(root=root(), port=port)
    try:
        with database_at_hand(settings) as address:
            store = Store(address)
            migrate(store)
            with store.transaction() as c:
                known = accounts.person_by_email(c, email)
                if known is None and not name:
                    print(
                        f"obento: there is no account {email}; give a name to make one: obento account {email} 'First"
                        " Last'",
                        file=sys.stderr,
                    )
                    return 1
                person_id = known.id if known is not None else accounts.add_person(c, email, name, "")
                link = link_of(token_for(c, person_id), settings.address)
                audit.note(c, None, "account", f"person {person_id}", {"by": "command line"})
    except DatabaseTrouble as error:
        print(f"obento: {error}", file=sys.stderr)
        return 1
    print(f"obento: open this within {LINK_DAYS} days to set the password of {email}:\n{link}")
    return 0
