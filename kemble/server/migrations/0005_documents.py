"""Events and marks become documents, and what a run keeps of its day becomes one document with a version."""

from django.db import migrations, models


def to_documents(apps, schema_editor):
    alias = schema_editor.connection.alias
    for name, fields in (
        ("RunEvent", ("kind", "step", "grams", "celsius", "text", "of")),
        ("BenchMark", ("kind", "grams")),
    ):
        there = apps.get_model("kitchen", name).objects.using(alias)
        rows = []
        for row in there.order_by("pk").iterator(chunk_size=500):
            said = {field: getattr(row, field) for field in fields}
            row.document = {field: value for field, value in said.items() if value not in (None, "")}
            rows.append(row)
        there.bulk_update(rows, ["document"], batch_size=500)
    for run in apps.get_model("kitchen", "Run").objects.using(alias).iterator(chunk_size=50):
        run.way = run.sheet_document["way"]
        run.frozen = {"version": 1, "sheet": run.sheet_document, "worked": run.worked, "plan": run.plan}
        run.save(update_fields=["way", "frozen"])


class Migration(migrations.Migration):
    dependencies = [
        ("kitchen", "0004_nothing_lost"),
    ]

    operations = [
        # The document is the kitchen; its row is a record of it, like a sheet's. The table keeps its name.
        migrations.RenameModel("Kitchen", "KitchenRecord"),
        migrations.AlterModelTable("kitchenrecord", "kitchen_kitchen"),
        migrations.RenameField("run", "document", "sheet_document"),
        migrations.AddField("run", "way", models.CharField(default="", max_length=40), preserve_default=False),
        migrations.AddField("run", "frozen", models.JSONField(default=dict), preserve_default=False),
        migrations.AddField("runevent", "document", models.JSONField(default=dict), preserve_default=False),
        migrations.AddField("benchmark", "document", models.JSONField(default=dict), preserve_default=False),
        migrations.RunPython(to_documents, migrations.RunPython.noop),
        migrations.RemoveField("run", "sheet_document"),
        migrations.RemoveField("run", "worked"),
        migrations.RemoveField("run", "plan"),
        *(migrations.RemoveField("runevent", name) for name in ("kind", "step", "grams", "celsius", "text", "of")),
        *(migrations.RemoveField("benchmark", name) for name in ("kind", "grams")),
    ]
