from django.db import migrations, models


class Migration(migrations.Migration):
    """What was recorded before events said their version is of the first."""

    dependencies = [("batches", "0001_initial")]

    operations = [
        migrations.AddField("event", "version", models.PositiveSmallIntegerField(default=1), preserve_default=False),
    ]
