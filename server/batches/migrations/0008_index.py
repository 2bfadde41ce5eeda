"""What a batch is found by is kept as the words that it holds, beside the text."""

from django.contrib.postgres.search import SearchVector, SearchVectorField
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("batches", "0007_days_are_found")]

    operations = [
        migrations.RemoveIndex(model_name="batch", name="batches_by_words"),
        migrations.AddField(
            model_name="batch",
            name="index",
            field=models.GeneratedField(
                db_persist=True,
                expression=SearchVector("name", "words", config="simple"),
                output_field=SearchVectorField(),
            ),
        ),
    ]
