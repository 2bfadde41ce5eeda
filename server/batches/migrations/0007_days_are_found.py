"""Batches are found by their day as well. Those that stand here get it by UTC: the next entry puts it right."""

from django.db import migrations

DAYS = """
UPDATE batches_batch
SET words = concat_ws(' ', to_char(created_at AT TIME ZONE 'UTC', 'YYYY FMMM FMDD fmmonth fmday'), words)
"""


class Migration(migrations.Migration):
    dependencies = [("batches", "0006_words")]

    operations = [migrations.RunSQL(DAYS, migrations.RunSQL.noop)]
