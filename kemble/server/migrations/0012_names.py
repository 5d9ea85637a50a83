"""Models and fields take the names that they have in the code; every table, column and index stays as it is."""

import django.utils.timezone
from django.db import migrations, models

MODELS = {
    "DoorKey": ("SignInKey", "kitchen_doorkey"),
    "Receipt": ("IdempotencyRecord", "kitchen_receipt"),
    "SplitBatch": ("BlindTasting", "kitchen_splitbatch"),
    "Removed": ("RemovedEquipment", "kitchen_removed"),
}
TRASHABLE = ("sheetrecord", "occasionrecord", "run", "batch", "blindtasting", "stock", "cuepicture")
INDEXES = {
    "sheetrecord": ("sheets_by_change", ["kitchen", "trashed", "-changed", "-id"]),
    "run": ("runs_going", ["kitchen", "finished", "trashed", "-began"]),
    "batch": ("log_of_a_way", ["kitchen", "trashed", "way", "-made", "-id"]),
}


def state_operations():
    for model, (index, _) in INDEXES.items():
        yield migrations.RemoveIndex(model, index)
    for old, (new, table) in MODELS.items():
        yield migrations.RenameModel(old, new)
        yield migrations.AlterModelTable(new, table)
    for model in (*TRASHABLE, "removedequipment"):
        default = {"default": django.utils.timezone.now} if model == "removedequipment" else {"default": None, "null": True}
        yield migrations.RenameField(model, "dropped", "trashed")
        yield migrations.AlterField(model, "trashed", models.DateTimeField(db_column="dropped", **default))
    for model, (index, fields) in INDEXES.items():
        yield migrations.AddIndex(model, models.Index(fields=fields, name=index))


class Migration(migrations.Migration):
    dependencies = [("kitchen", "0011_bad_luck")]
    operations = [migrations.SeparateDatabaseAndState(state_operations=list(state_operations()))]
