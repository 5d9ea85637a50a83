"""An occasion becomes a document of several sheets and servings; those of one sheet are carried over."""

from datetime import datetime
from zoneinfo import ZoneInfo

from django.db import migrations, models


def to_documents(apps, schema_editor):
    alias = schema_editor.connection.alias
    rows = []
    for row in apps.get_model("kitchen", "OccasionRecord").objects.using(alias).select_related("kitchen").iterator():
        try:
            zone = ZoneInfo(row.kitchen.document.get("timezone", "UTC"))
        except (KeyError, ValueError, OSError):
            zone = ZoneInfo("UTC")
        serve = row.serve if isinstance(row.serve, datetime) else datetime.fromisoformat(str(row.serve))
        row.document = {
            "format": "kemble-occasion",
            "version": 1,
            "title": row.title,
            "servings": [{"at": serve.astimezone(zone).strftime("%Y-%m-%dT%H:%M"), "people": row.people}],
            "dishes": [{"sheet": row.sheet_id}],
        }
        row.planned_by = ""
        rows.append(row)
    apps.get_model("kitchen", "OccasionRecord").objects.using(alias).bulk_update(rows, ["document", "planned_by"])


class Migration(migrations.Migration):
    dependencies = [
        ("kitchen", "0005_documents"),
    ]

    operations = [
        migrations.RenameModel("Occasion", "OccasionRecord"),
        migrations.AlterModelTable("occasionrecord", "kitchen_occasion"),
        migrations.AddField("occasionrecord", "document", models.JSONField(default=dict)),
        migrations.AddField("occasionrecord", "revision", models.PositiveIntegerField(default=1)),
        migrations.RunPython(to_documents, migrations.RunPython.noop),
        migrations.RemoveField("occasionrecord", "sheet"),
        migrations.RemoveField("occasionrecord", "people"),
        migrations.RenameField("occasionrecord", "plan", "day"),
    ]
