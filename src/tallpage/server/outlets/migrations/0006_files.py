"""What was made moves out of the rows of the ledger into a table of files."""

import django.db.models.deletion
from django.db import migrations, models

from tallpage.core.cut import Cut
from tallpage.core.errors import TallPageError
from tallpage.core.fit import takes_transparency
from tallpage.core.render import RenderRules, render_key
from tallpage.core.sizing import Sizing
from tallpage.core.units import parse_colour


def to_files(apps, schema_editor):
    for output in apps.get_model("outlets", "Output").objects.select_related("cut__capture").iterator():
        _describe(output)
        apps.get_model("outlets", "OutputFile").objects.bulk_create(_files(apps, output))


def _describe(output):
    """What the files show, and were last asked to; where that cannot be told, they count as changed."""
    try:
        rules = _rules(output)
        key = output.cut.capture.storage_key
        if output.frame:
            cut = Cut.from_json({"frame": output.frame})
            output.drawn = {"cut": cut.as_json(), "rules": rules.as_json()}
            output.drawn_key = render_key(key, cut, rules)
        if output.asked_frame:
            output.asked_key = render_key(key, Cut.from_json({"frame": output.asked_frame}), rules)
    except (TallPageError, KeyError, TypeError, ValueError):
        return
    output.save(update_fields=["drawn", "drawn_key", "asked_key"])


def _rules(output):
    formats = [output.choice["format"]] if output.choice else output.formats
    return RenderRules(
        sizing=Sizing(
            way=output.way,
            width_px=output.width_px,
            height_px=output.height_px,
            percent=output.percent,
            anchor=output.anchor,
            enlarge=output.enlarge,
        ),
        background=parse_colour(output.background),
        flattened=not takes_transparency(formats),
        greatest_height_px=output.greatest_height_px,
        overlap_px=output.overlap_px,
        numbered=output.numbered,
        leaf_count=output.leaf_count,
        breaks=tuple(output.breaks),
    )


def _files(apps, output):
    file_of = apps.get_model("outlets", "OutputFile")
    for number, leaf in enumerate(output.leaves, start=1):
        yield file_of(
            output=output,
            number=number,
            key=leaf["file_key"],
            format=leaf["format"],
            choice=output.made_choice or {"format": leaf["format"]},
            width_px=output.made_width_px,
            height_px=leaf["height_px"],
            bytes=leaf["bytes"],
            fidelity=leaf["fidelity"],
            met=leaf["met"],
            row_px=leaf["row_px"],
            rows_px=leaf["rows_px"],
        )
    if output.file_key and not output.leaves:
        hidden_px = sum(fold["height_px"] for fold in output.frame.get("folds", ()))
        yield file_of(
            output=output,
            key=output.file_key,
            format=output.format,
            choice=output.made_choice or {"format": output.format},
            width_px=output.made_width_px,
            height_px=output.made_height_px,
            bytes=output.bytes,
            fidelity=output.fidelity or 0.0,
            met=output.met,
            row_px=0,
            rows_px=output.frame["height_px"] - hidden_px,
        )


GONE = (
    "frame",
    "asked_frame",
    "format",
    "made_choice",
    "made_width_px",
    "made_height_px",
    "bytes",
    "fidelity",
    "leaves",
    "file_key",
)


class Migration(migrations.Migration):
    dependencies = [("outlets", "0005_least_fidelity"), ("shelf", "0008_document")]
    operations = [
        migrations.CreateModel(
            name="OutputFile",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("number", models.PositiveSmallIntegerField(default=1, help_text="its place among the leaves, from 1")),
                ("key", models.CharField(help_text="names the file on disk", max_length=32)),
                ("format", models.CharField(max_length=8)),
                ("choice", models.JSONField(help_text="how it is encoded")),
                ("width_px", models.PositiveIntegerField()),
                ("height_px", models.PositiveIntegerField()),
                ("bytes", models.PositiveBigIntegerField()),
                ("fidelity", models.FloatField()),
                ("met", models.BooleanField()),
                ("row_px", models.PositiveIntegerField(help_text="first row of the frame that it shows")),
                ("rows_px", models.PositiveIntegerField(help_text="how many rows of the frame it shows")),
                (
                    "output",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="files", to="outlets.output"
                    ),
                ),
            ],
            options={
                "ordering": ["output", "number"],
                "constraints": [
                    models.UniqueConstraint(fields=("output", "number"), name="one_file_a_place")
                ],
            },
        ),
        migrations.AddField(
            "output",
            "asked_key",
            models.CharField(blank=True, help_text="render key of what was last asked for", max_length=32),
        ),
        migrations.AddField(
            "output",
            "drawn",
            models.JSONField(blank=True, default=dict, help_text="cut and rules that the files show"),
        ),
        migrations.AddField(
            "output", "drawn_key", models.CharField(blank=True, help_text="render key of that", max_length=32)
        ),
        migrations.RunPython(to_files),
        migrations.AlterField(
            "output",
            "met",
            models.BooleanField(default=False, help_text="every file keeps to the rules and looks acceptable"),
        ),
        *(migrations.RemoveField("output", name) for name in GONE),
    ]
