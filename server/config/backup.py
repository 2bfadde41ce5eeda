"""Whether what was restored is a kitchen of this version, or of an earlier one: `python -m config.backup`.

`./spissus restore` fills a new database as its owner, who may do nothing to the server, and asks this before the new
one takes the place of the old.
"""

from __future__ import annotations

import os
import sys

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

import django
from django.db import connection
from django.db.migrations.loader import MigrationLoader
from django.db.migrations.recorder import MigrationRecorder

#: Without these there is no kitchen.
FIRST = {("kitchens", "0001_initial"), ("batches", "0001_initial")}

#: What no database of ours holds, and what each is called: all of it could do something by itself.
STRANGE = """
SELECT 'a view', relname::text FROM pg_class WHERE relnamespace = 'public'::regnamespace AND relkind IN ('v', 'm', 'f')
UNION ALL SELECT 'a function', proname FROM pg_proc
    WHERE pronamespace NOT IN ('pg_catalog'::regnamespace, 'information_schema'::regnamespace)
UNION ALL SELECT 'a trigger', tgname FROM pg_trigger WHERE NOT tgisinternal
UNION ALL SELECT 'a trigger', evtname FROM pg_event_trigger
UNION ALL SELECT 'a rule', rulename FROM pg_rules WHERE schemaname = 'public'
UNION ALL SELECT 'a rule', polname FROM pg_policy
UNION ALL SELECT 'an extension', extname FROM pg_extension WHERE extname <> 'plpgsql'
UNION ALL SELECT 'a schema', nspname FROM pg_namespace
    WHERE nspname NOT LIKE 'pg\\_%' AND nspname NOT IN ('public', 'information_schema')
"""


def fault() -> str | None:
    """What speaks against the database that the settings name, in a sentence; None where nothing does."""
    with connection.cursor() as cursor:
        cursor.execute(STRANGE)
        strange = ", ".join(f"{what} ({name})" for what, name in cursor.fetchall())
    if strange:
        return f"That file holds what no backup of Spissus does: {strange}."
    applied = set(MigrationRecorder(connection).applied_migrations())
    if not applied >= FIRST:
        return "That file is no backup of Spissus."
    newer = ", ".join(f"{app} {name}" for app, name in sorted(applied - set(MigrationLoader(None).disk_migrations)))
    if newer:
        return f"That file is of a newer version, which knows {newer}. Bring this one up to date first."
    return None


def main() -> int:
    """Say what is wrong. Returns the exit status."""
    django.setup()
    said = fault()
    if said:
        print(said, file=sys.stderr)
    return int(said is not None)


if __name__ == "__main__":
    sys.exit(main())
