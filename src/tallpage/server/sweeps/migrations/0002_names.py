"""A shot beside the time before is a comparison; whether a sweep goes on is its stop mode."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("sweeps", "0001_sweeps")]

    operations = [
        migrations.RenameModel("Look", "Comparison"),
        migrations.AlterField(
            model_name="comparison",
            name="shot",
            field=models.OneToOneField(
                on_delete=django.db.models.deletion.CASCADE, related_name="comparison", to="sweeps.shot"
            ),
        ),
        migrations.RenameField("Sweep", "wish", "stop_mode"),
    ]
