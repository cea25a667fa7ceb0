"""What becomes of things that hang in the window is stored under the name it has now."""

from django.apps.registry import Apps
from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor

_AT_ONCE = 500


def rename_setting(apps: Apps, _: BaseDatabaseSchemaEditor) -> None:
    captures = apps.get_model("shelf", "Capture")
    changed = []
    for capture in captures.objects.filter(settings__has_key="hanging").iterator(chunk_size=_AT_ONCE):
        capture.settings["fixed_overlays"] = capture.settings.pop("hanging")
        changed.append(capture)
    captures.objects.bulk_update(changed, ["settings"], batch_size=_AT_ONCE)


class Migration(migrations.Migration):
    dependencies = [("shelf", "0008_document")]

    operations = [migrations.RunPython(rename_setting, migrations.RunPython.noop)]
