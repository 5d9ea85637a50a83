"""Events and marks become documents, and what a run keeps of its day becomes one document with a version."""

from django.db import migrations, models


# In SQL, for a run's documents are long, and there may be thousands. A merge patch leaves out what is null.
TO_DOCUMENTS = (
    """
    UPDATE kitchen_runevent SET document = json_patch('{}', json_object(
        'kind', kind, 'step', nullif(step, ''), 'grams', grams, 'celsius', celsius, 'text', nullif(text, ''),
        'of', nullif("of", '')
    ))
    """,
    "UPDATE kitchen_benchmark SET document = json_patch('{}', json_object('kind', kind, 'grams', grams))",
)


# The table of runs is written once: it holds nearly all there is, and each change of a column would write it again.
RUNS = (
    """
    CREATE TABLE "new__kitchen_run" (
        "id" integer NOT NULL PRIMARY KEY AUTOINCREMENT, "title" varchar(120) NOT NULL, "began" datetime NOT NULL,
        "clock_began" datetime NOT NULL, "pace" integer unsigned NOT NULL CHECK ("pace" >= 0), "finished" datetime NULL,
        "kitchen_id" bigint NOT NULL REFERENCES "kitchen_kitchen" ("id") DEFERRABLE INITIALLY DEFERRED,
        "sheet_id" bigint NULL REFERENCES "kitchen_sheetrecord" ("id") DEFERRABLE INITIALLY DEFERRED,
        "dropped" datetime NULL, "way" varchar(40) NOT NULL,
        "frozen" text NOT NULL CHECK ((JSON_VALID("frozen") OR "frozen" IS NULL))
    )
    """,
    """
    INSERT INTO "new__kitchen_run" SELECT
        id, title, began, clock_began, pace, finished, kitchen_id, sheet_id, dropped, json_extract(document, '$.way'),
        '{"version": 1, "sheet": ' || document || ', "worked": ' || worked || ', "plan": ' || plan || '}'
    FROM kitchen_run
    """,
    'DROP TABLE "kitchen_run"',
    'ALTER TABLE "new__kitchen_run" RENAME TO "kitchen_run"',
    'CREATE INDEX "kitchen_run_kitchen_id_d601c0b8" ON "kitchen_run" ("kitchen_id")',
    'CREATE INDEX "kitchen_run_sheet_id_b285d1b4" ON "kitchen_run" ("sheet_id")',
    'CREATE INDEX "runs_going" ON "kitchen_run" ("kitchen_id", "finished", "dropped", "began" DESC)',
)


class Migration(migrations.Migration):
    dependencies = [
        ("kitchen", "0004_nothing_lost"),
    ]

    operations = [
        # The document is the kitchen; its row is a record of it, like a sheet's. The table keeps its name.
        migrations.SeparateDatabaseAndState(
            [migrations.RunSQL("ALTER TABLE kitchen_kitchen_members RENAME COLUMN kitchen_id TO kitchenrecord_id")],
            [
                migrations.RenameModel("Kitchen", "KitchenRecord"),
                migrations.AlterModelTable("kitchenrecord", "kitchen_kitchen"),
            ],
        ),
        migrations.SeparateDatabaseAndState(
            [migrations.RunSQL(RUNS)],
            [
                migrations.AddField("run", "way", models.CharField(default="", max_length=40), preserve_default=False),
                migrations.AddField("run", "frozen", models.JSONField(default=dict), preserve_default=False),
                *(migrations.RemoveField("run", name) for name in ("document", "worked", "plan")),
            ],
        ),
        migrations.AddField("runevent", "document", models.JSONField(default=dict), preserve_default=False),
        migrations.AddField("benchmark", "document", models.JSONField(default=dict), preserve_default=False),
        migrations.RunSQL(TO_DOCUMENTS, migrations.RunSQL.noop),
        *(migrations.RemoveField("runevent", name) for name in ("kind", "step", "grams", "celsius", "text", "of")),
        *(migrations.RemoveField("benchmark", name) for name in ("kind", "grams")),
    ]
