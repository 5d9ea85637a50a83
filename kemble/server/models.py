"""What is kept. The core's documents are stored as JSON; the columns beside them are for finding and ordering."""

from __future__ import annotations

import json
from datetime import datetime
from functools import lru_cache
from typing import Any, ClassVar, Final

from django.conf import settings
from django.db import models
from django.utils import timezone
from django.utils.functional import cached_property

from kemble.core.kitchen.document import Kitchen
from kemble.core.log.predictions import ComparedPrediction, compared
from kemble.core.plan.occasion import Occasion
from kemble.core.plan.schedule import Plan
from kemble.core.run.event_fold import plan_now
from kemble.core.run.events import AnyEvent, event_from
from kemble.core.run.frozen_run import FrozenRun, frozen_from
from kemble.core.run.run_state import RunState, state_of
from kemble.core.run.weigh_out import BenchMarkEvent, BenchSetup, mark_from
from kemble.core.sheet.document import Sheet, sheet_from
from kemble.server.storage.fields import DocumentField, DocumentTextField, NoteField, TitleField

_RUNS_REMEMBERED: Final = 64  # of some 50 kB of text each


class ActiveManager(models.Manager[Any]):
    """What has not been thrown away. The default, so that no query finds the rest by mistake."""

    def get_queryset(self) -> models.QuerySet[Any]:
        return super().get_queryset().filter(trashed=None)


class TrashableModel(models.Model):
    """What can be thrown away and brought back for thirty days; `everything` finds it all the while."""

    trashed = models.DateTimeField(null=True, default=None, db_column="dropped")

    objects = ActiveManager()
    everything: ClassVar[models.Manager[Any]] = models.Manager()

    class Meta:
        abstract = True


class KitchenRecord(models.Model):
    """One kitchen and its settings. Everything else belongs to a kitchen. `revision` counts the saves."""

    document = DocumentField(default=dict)
    revision = models.PositiveIntegerField(default=1)
    created = models.DateTimeField(default=timezone.now)
    set_up = models.BooleanField(default=False)
    learnt = DocumentField(default=dict)  # what its log says of it (posterior.py); worked out, never typed
    demo = models.BooleanField(default=False)  # a made-up kitchen: simulated devices may stand in it
    staged = models.DateTimeField(
        null=True, default=None
    )  # since when rows of a file lie in it, to be taken (archive_staging.py)

    class Meta:
        db_table = "kitchen_kitchen"

    @property
    def typed(self) -> Kitchen:
        """Its settings as somebody typed them, without what its log says."""
        return Kitchen.model_validate(self.document)

    @property
    def settings(self) -> Kitchen:
        """Its settings with what its log says. Both documents are put in the place of the old ones and never changed within,
        so that what was read of them once is good for as long as they stand there."""
        read: tuple[Any, Any, Kitchen] | None = self.__dict__.get("_read")
        if read is None or read[0] is not self.document or read[1] is not self.learnt:
            told = {name: self.learnt[name] for name in ("learned", "together", "pace") if name in self.learnt}
            read = (self.document, self.learnt, Kitchen.model_validate({**self.document, **told}))
            self.__dict__["_read"] = read
        return read[2]

    def __str__(self) -> str:
        return self.settings.name


class Member(models.Model):
    """Somebody of a kitchen's household: what they may do in it goes by their role (roles.py)."""

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="members")
    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="member")
    role = models.CharField(max_length=12)
    since = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering: ClassVar = ["id"]

    def __str__(self) -> str:
        return f"{self.user} ({self.role})"


class Invitation(models.Model):
    """A key for one more of the household, in a role; only its digest is kept. `name`: for whom it was made."""

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="invitations")
    digest = models.CharField(max_length=64, unique=True)
    name = TitleField(max_length=40)
    role = models.CharField(max_length=12)
    made = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering: ClassVar = ["id"]

    def __str__(self) -> str:
        return f"{self.name} ({self.role})"


class SheetRecord(TrashableModel):
    """A sheet as it stands. `revision` counts its saves; each save is also kept as a SheetRevision.

    `card` is what the counter shows of it, with what it was worked by (see work_results.py).
    """

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="sheets")
    title = TitleField(max_length=120)
    way = models.CharField(max_length=40)
    document = DocumentField()
    revision = models.PositiveIntegerField(default=1)
    changed = models.DateTimeField(default=timezone.now)
    card = DocumentField(default=dict)

    class Meta:
        ordering: ClassVar = ["-changed", "-id"]
        indexes: ClassVar = [models.Index(fields=["kitchen", "trashed", "-changed", "-id"], name="sheets_by_change")]

    @property
    def sheet(self) -> Sheet:
        return sheet_from(self.document)

    def __str__(self) -> str:
        return str(self.title)


class SheetRevision(models.Model):
    record = models.ForeignKey(SheetRecord, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    document = DocumentField()
    saved = models.DateTimeField(default=timezone.now)
    name = TitleField(max_length=60, default="", blank=True)

    class Meta:
        ordering: ClassVar = ["-number"]
        constraints: ClassVar = [models.UniqueConstraint(fields=["record", "number"], name="one_of_each_revision")]

    @property
    def sheet(self) -> Sheet:
        return sheet_from(self.document)

    def __str__(self) -> str:
        return f"{self.record} ({self.number})"


class OccasionRecord(TrashableModel):
    """An occasion as it stands, `serve` when people eat first, and its `day` as planned; `planned_by` is what that was
    made from, `revision` counts the saves."""

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="occasions")
    title = TitleField(max_length=120)
    serve = models.DateTimeField()
    document = DocumentField(default=dict)
    revision = models.PositiveIntegerField(default=1)
    day = DocumentField()
    planned_by = models.CharField(max_length=160, default="")
    made = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering: ClassVar = ["serve"]
        db_table = "kitchen_occasion"

    @property
    def occasion(self) -> Occasion:
        return Occasion.model_validate(self.document)

    @property
    def sheets(self) -> set[int]:
        """The numbers of its sheets."""
        return {dish["sheet"] for dish in self.document.get("dishes", ())}

    @property
    def wants_none(self) -> bool:
        """Whether nothing is on the table yet."""
        return not self.document.get("dishes")

    def __str__(self) -> str:
        return str(self.title)


@lru_cache(maxsize=_RUNS_REMEMBERED)
def _frozen_from_text(text: str) -> FrozenRun:
    """Every press in a run reads what was kept of it, and reading takes longer than all else of the press."""
    return frozen_from(json.loads(text))


class Run(TrashableModel):
    """One making. `frozen` is the sheet as it was, what was predicted, and the plan that it follows (core/run/frozen_run.py).

    A rehearsal runs `pace` times faster: its own clock stood at `clock_began` when the wall clock stood at `began`.
    """

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="runs")
    sheet = models.ForeignKey(SheetRecord, on_delete=models.SET_NULL, null=True, related_name="runs")
    title = TitleField(max_length=120)
    way = models.CharField(max_length=40)
    frozen = DocumentTextField()
    began = models.DateTimeField()
    clock_began = models.DateTimeField()
    pace = models.PositiveIntegerField(default=1)
    finished = models.DateTimeField(null=True)
    occasion = models.ForeignKey("OccasionRecord", on_delete=models.SET_NULL, null=True, related_name="runs")
    revision = models.PositiveIntegerField(null=True)  # of its sheet, that it was begun from
    flow = models.CharField(max_length=40, default="")  # runs of one flow are made together; "" is made alone

    class Meta:
        ordering: ClassVar = ["-began"]
        indexes: ClassVar = [models.Index(fields=["kitchen", "finished", "trashed", "-began"], name="runs_going")]

    @cached_property
    def kept(self) -> FrozenRun:
        """What was kept of the day it began."""
        return _frozen_from_text(self.frozen)

    @property
    def flowing(self) -> list[Run]:
        """The runs that are made together with this one, itself among them, those that are put aside left out."""
        if not self.flow:
            return [self]
        mates = Run.objects.filter(kitchen=self.kitchen_id, flow=self.flow).prefetch_related("events").order_by("id")
        return [self if item.pk == self.pk else item for item in mates] or [self]

    def state(self, now: datetime | None = None) -> RunState:
        """Where it stands at an instant of its own clock (now, when none is given)."""
        return self.state_by(None, now or self.clock())

    def state_by(self, plan: Plan | None, now: datetime) -> RunState:
        """Where it stands, or would stand by another plan of the same steps."""
        kept, unit = self.kept, self.kitchen.settings.temperature_unit
        return state_of(kept.plan, self.log, now, kept.core, unit, instead=plan)

    @property
    def logged(self) -> Batch | None:
        """What the log says of it; None before, and when that was thrown away."""
        return Batch.objects.filter(run=self).first()

    def clock(self, now: datetime | None = None) -> datetime:
        """What the run's own clock shows at a wall-clock instant (now, when none is given)."""
        return self.clock_began + ((now or timezone.now()) - self.began) * self.pace

    @property
    def plan(self) -> Plan:
        """Its plan as it is now; what has happened is read only where that ever changed it."""
        anew = self.events.filter(document__kind__in=("replanned", "amended")).exists()
        return plan_now(self.kept.plan, self.log) if anew else self.kept.plan

    @property
    def compared(self) -> list[ComparedPrediction]:
        """What was told when it began, beside what happened."""
        events = self.log
        return compared(self.kept.plan, events, self.kept.facts, events[-1].at if events else self.clock_began)

    @property
    def log(self) -> list[AnyEvent]:
        """What has happened by now: of a rehearsal what is still to be played lies in it already."""
        rows = self.events.all()
        if self.pace == 1:
            return [row.event for row in rows]
        now = self.clock()
        return [row.event for row in rows if row.at <= now]

    def __str__(self) -> str:
        return str(self.title)


class RunEvent(models.Model):
    """One event of a run, never changed: who sent it, when on the run's own clock, and what it says."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="events")
    uid = models.CharField(max_length=64)
    at = models.DateTimeField()
    document = DocumentField()

    class Meta:
        ordering: ClassVar = ["at", "id"]
        constraints: ClassVar = [models.UniqueConstraint(fields=["run", "uid"], name="an_event_once_a_run")]

    @cached_property
    def event(self) -> AnyEvent:
        return event_from(self.document, uid=self.uid, at=self.at)

    def __str__(self) -> str:
        return f"{self.event.kind} {self.event.step or ''}".strip()


class Batch(TrashableModel):
    """A finished run in the log: how it came out.

    What the log lists and sorts by stands here too, so that a page of it reads none of the runs' long documents.
    """

    run = models.OneToOneField(Run, on_delete=models.CASCADE, related_name="batch")
    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="batches")
    title = TitleField(max_length=120)
    way = models.CharField(max_length=40)
    made = models.DateTimeField()
    rehearsed = models.BooleanField()
    tastes = DocumentField(default=dict)
    faults = DocumentField(default=list)
    note = NoteField(blank=True, max_length=4000)
    hydration_pct = models.FloatField()
    sugar_pct = models.FloatField()
    verdict = models.CharField(max_length=12, default="untasted")
    pieces = models.PositiveIntegerField(null=True)  # as they were counted in the end
    grams = models.FloatField(null=True)  # ... and what all of it weighed
    seen = DocumentField(default=dict)  # what it shows of the kitchen (core/learn/observations.py)
    left_out = models.BooleanField(default=False)  # of what the kitchen learns from

    class Meta:
        ordering: ClassVar = ["-made", "-id"]
        indexes: ClassVar = [models.Index(fields=["kitchen", "trashed", "way", "-made", "-id"], name="log_of_a_way")]

    @property
    def marks(self) -> list[dict[str, int]]:
        """What every tongue said of it, the cook's own first."""
        return [item for item in (self.tastes, *(row.tastes for row in self.tastings.all())) if item]

    @property
    def compared(self) -> list[ComparedPrediction]:
        """What was told beside what happened, as it was kept with it; worked anew for one of before it was kept."""
        kept = self.seen.get("compared")
        return self.run.compared if kept is None else [ComparedPrediction.model_validate(item) for item in kept]

    def __str__(self) -> str:
        return f"{self.title}: {self.verdict}"


class Tasting(models.Model):
    """One tongue on a batch: marks on its scales, how it was liked from 1 to 9, who, and when."""

    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="tastings")
    uid = models.CharField(max_length=64)
    who = TitleField(max_length=40, blank=True)
    at = models.DateTimeField()
    tastes = DocumentField(default=dict)
    liking = models.PositiveIntegerField(null=True)
    note = NoteField(blank=True, max_length=1000)
    blind = models.BooleanField(default=False)  # known by a number only

    class Meta:
        ordering: ClassVar = ["at", "id"]
        constraints: ClassVar = [models.UniqueConstraint(fields=["batch", "uid"], name="a_tasting_once")]

    def __str__(self) -> str:
        return f"{self.who or 'somebody'}: {self.batch.title}"


class BlindTasting(TrashableModel):
    """A batch made in two halves and tasted blind: its design, and what was answered."""

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="splits")
    title = TitleField(max_length=120)
    document = DocumentField()
    answers = DocumentField(default=list)
    made = models.DateTimeField(default=timezone.now)

    class Meta:
        db_table = "kitchen_splitbatch"
        ordering: ClassVar = ["-made", "-id"]

    def __str__(self) -> str:
        return str(self.title)


class Stock(TrashableModel):
    """Pieces of a batch that were put by: how many are there still, where, and until when they keep."""

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="stock")
    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="stock")
    title = TitleField(max_length=120)
    where = models.CharField(max_length=12)
    pieces = models.PositiveIntegerField()
    made = models.DateTimeField()
    until = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["until", "id"]

    def __str__(self) -> str:
        return f"{self.pieces} {self.title}, {self.where}"


class CuePicture(TrashableModel):
    """A picture taken at a step, shown beside its drawing the next time. Encoded anew when it came, its place removed."""

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="pictures")
    run = models.ForeignKey(Run, on_delete=models.SET_NULL, null=True, related_name="pictures")
    uid = models.CharField(max_length=64)
    title = TitleField(max_length=120)
    way = models.CharField(max_length=40)
    step = models.CharField(max_length=60)
    at = models.DateTimeField()
    webp = models.BinaryField()

    class Meta:
        ordering: ClassVar = ["-at", "-id"]
        indexes: ClassVar = [models.Index(fields=["kitchen", "way", "step", "-at"], name="pictures_at_a_step")]
        constraints: ClassVar = [models.UniqueConstraint(fields=["kitchen", "uid"], name="a_picture_once")]

    def __str__(self) -> str:
        return f"{self.title}: {self.step}"


class Bench(models.Model):
    """One mass shared out on the scale. `drill`: each piece is guessed before it is weighed."""

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="benches")
    sheet = models.ForeignKey(SheetRecord, on_delete=models.SET_NULL, null=True, related_name="benches")
    setup = DocumentField()
    drill = models.BooleanField(default=False)
    began = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering: ClassVar = ["-began", "-id"]

    @property
    def settings(self) -> BenchSetup:
        return BenchSetup.model_validate(self.setup)

    @property
    def log(self) -> list[BenchMarkEvent]:
        return [row.mark for row in self.marks.all()]

    def __str__(self) -> str:
        return f"{self.settings.what}, {self.settings.pieces}"


class BenchMark(models.Model):
    """One mark on a bench, never changed: who sent it, when, and what it says."""

    bench = models.ForeignKey(Bench, on_delete=models.CASCADE, related_name="marks")
    uid = models.CharField(max_length=64)
    at = models.DateTimeField()
    document = DocumentField()

    class Meta:
        ordering: ClassVar = ["id"]
        constraints: ClassVar = [models.UniqueConstraint(fields=["bench", "uid"], name="a_mark_once_a_bench")]

    @property
    def mark(self) -> BenchMarkEvent:
        return mark_from(self.uid, self.at, self.document)

    def __str__(self) -> str:
        return f"{self.mark.kind} {self.mark.grams or ''}".strip()


class RemovedEquipment(models.Model):
    """A tin or an ingredient that was taken out of the kitchen's settings, kept for thirty days."""

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="removed")
    kind = models.CharField(max_length=12)
    title = TitleField(max_length=120)
    document = DocumentField()
    trashed = models.DateTimeField(default=timezone.now, db_column="dropped")

    class Meta:
        db_table = "kitchen_removed"

    def __str__(self) -> str:
        return f"{self.kind} {self.title}"


class IdempotencyRecord(models.Model):
    """What was answered to a write that carried an id, so that the same write sent again is answered the same.

    `number` is what was made or changed, `revision` the revision that it got.
    """

    kitchen = models.ForeignKey(KitchenRecord, on_delete=models.CASCADE, related_name="receipts")
    uid = models.CharField(max_length=64)
    kind = models.CharField(max_length=12)
    number = models.BigIntegerField()
    revision = models.PositiveIntegerField(default=0)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        db_table = "kitchen_receipt"
        constraints: ClassVar = [models.UniqueConstraint(fields=["kitchen", "uid"], name="one_answer_a_write")]

    def __str__(self) -> str:
        return f"{self.kind} {self.number}"


class PasswordAttempt(models.Model):
    """A try at a password that has not been right (password_attempts.py): for which account, from where, and whether that
    account had signed in on the browser before."""

    account = models.CharField(max_length=64, db_index=True)
    browser = models.CharField(max_length=32)
    address = models.CharField(max_length=60)
    on_own_browser = models.BooleanField()
    at = models.DateTimeField()

    def __str__(self) -> str:
        return f"{self.address} {self.at}"


class SignInKey(models.Model):
    """A key that opens the door once; only its digest is kept."""

    digest = models.CharField(max_length=64, unique=True)
    made = models.DateTimeField(default=timezone.now)

    class Meta:
        db_table = "kitchen_doorkey"

    def __str__(self) -> str:
        return f"made {self.made}"


class Browser(models.Model):
    """A browser that is signed in: by which session, what it calls itself, and when it was last used (to the day)."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="browsers")
    session_key = models.CharField(max_length=40, unique=True)
    name = TitleField(max_length=60)
    made = models.DateTimeField(default=timezone.now)
    seen = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering: ClassVar = ["-seen", "-id"]

    def __str__(self) -> str:
        return str(self.name)


class SecondFactor(models.Model):
    """Codes by the clock beside somebody's password, once `on`: `used` is the step whose code was taken last."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="second_factor")
    secret = models.CharField(max_length=64)
    on = models.BooleanField(default=False)
    used = models.BigIntegerField(default=0)

    def __str__(self) -> str:
        return f"{self.user}: {'on' if self.on else 'begun'}"
