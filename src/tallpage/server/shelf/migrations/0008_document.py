"""A cut's frame becomes a document of which it is a part."""

from django.db import migrations, models


def to_documents(apps, schema_editor):
    for cut in apps.get_model("shelf", "Cut").objects.all().iterator():
        cut.document = {"version": 1, "frame": cut.document}
        cut.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("shelf", "0007_whole")]
    operations = [
        migrations.RenameField("cut", "frame", "document"),
        migrations.AlterField(
            "cut", "document", models.JSONField(help_text="as core/cut writes it; docs/cut-file.md")
        ),
        migrations.RunPython(to_documents),
    ]
