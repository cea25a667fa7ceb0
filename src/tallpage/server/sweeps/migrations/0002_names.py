"""A shot beside the time before is a comparison; whether a sweep goes on is its stop mode."""

import django.db.models.deletion
from django.apps.registry import Apps
from django.db import migrations, models
from django.db.backends.base.schema import BaseDatabaseSchemaEditor


def rename_setting(apps: Apps, _: BaseDatabaseSchemaEditor) -> None:
    """``hanging`` is ``fixed_overlays`` in how a sweep, or one of its shots, is taken."""
    for name in ("Sweep", "Shot"):
        rows = apps.get_model("sweeps", name).objects
        for row in rows.filter(settings__has_key="hanging"):
            row.settings["fixed_overlays"] = row.settings.pop("hanging")
            row.save(update_fields=["settings"])


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
        migrations.RunPython(rename_setting, migrations.RunPython.noop),
    ]
