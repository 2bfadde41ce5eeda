from django.db import migrations, models


class Migration(migrations.Migration):
    """What is liked is told of body, sourness and bitterness too, a row for each of a batch."""

    dependencies = [("kitchens", "0006_liking")]

    operations = [
        migrations.RemoveIndex("taughtliking", "liked_by_a_kitchen"),
        migrations.RenameField("taughtliking", "percent", "value"),
        migrations.AddField("taughtliking", "of", models.CharField(default="salt", max_length=6)),
        migrations.AlterField("taughtliking", "batch", models.UUIDField()),
        migrations.AddIndex("taughtliking", models.Index(fields=["kitchen", "of", "-at"], name="liked_by_a_kitchen")),
        migrations.AddConstraint(
            "taughtliking", models.UniqueConstraint(fields=("batch", "of"), name="one_liking_of_each")
        ),
    ]
