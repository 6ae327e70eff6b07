"""What happened on the shelf: movements, where things lie besides their usual place, what goes back, what is lent, what its labels say."""

from __future__ import annotations

from django.db import models
from django.db.models import Q

from apps.heads.models import StockItem
from apps.register.models import Drum
from apps.workshops.models import Owned


class Heap(Owned):
    """So many of a line lying elsewhere than in its usual place, or of a batch that is told apart."""

    stock_item = models.ForeignKey(StockItem, on_delete=models.CASCADE, related_name="heaps")
    place = models.CharField(max_length=20, blank=True)
    batch = models.CharField(max_length=30, blank=True)
    count = models.PositiveIntegerField()

    class Meta:
        ordering = ["place", "batch"]
        constraints = [
            models.UniqueConstraint(fields=["stock_item", "place", "batch"], name="heap_once"),
            models.CheckConstraint(condition=Q(count__gt=0), name="heap_is_something"),
        ]


class Movement(Owned):
    """One change of a count, never edited and never taken out. `act` is what a person did, which may be two of them; a count summed from nought is the line's."""

    stock_item = models.ForeignKey(StockItem, on_delete=models.PROTECT, related_name="movements")
    act = models.UUIDField()
    why = models.CharField(max_length=12)
    delta = models.IntegerField()
    after = models.PositiveIntegerField()
    place = models.CharField(max_length=20, blank=True)
    batch = models.CharField(max_length=30, blank=True)
    words = models.CharField(max_length=200, blank=True)
    drum = models.ForeignKey(Drum, null=True, on_delete=models.SET_NULL, related_name="+")
    job_id = models.UUIDField(null=True)
    by_name = models.CharField(max_length=60, blank=True)
    at = models.DateTimeField()

    class Meta:
        ordering = ["-id"]
        indexes = [
            models.Index(fields=["stock_item", "-id"], name="movement_of_line"),
            models.Index(fields=["act"], name="movement_of_act"),
        ]


class GoesBack(Owned):
    """Pieces found wanting when they arrived: apart from the count until they are sent back or kept after all."""

    class Ended(models.TextChoices):
        SENT = "sent"
        KEPT = "kept"
        THROWN = "thrown"

    id = models.UUIDField(primary_key=True)
    stock_item = models.ForeignKey(StockItem, on_delete=models.CASCADE, related_name="going_back")
    count = models.PositiveIntegerField()
    what = models.CharField(max_length=20)
    batch = models.CharField(max_length=30, blank=True)
    words = models.CharField(max_length=200, blank=True)
    by_name = models.CharField(max_length=60, blank=True)
    at = models.DateTimeField()
    ended = models.CharField(max_length=10, blank=True, choices=Ended.choices)
    ended_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["at"]
        constraints = [
            models.CheckConstraint(condition=Q(count__gt=0), name="goes_back_something"),
            models.CheckConstraint(
                condition=Q(ended="", ended_at__isnull=True) | (~Q(ended="") & Q(ended_at__isnull=False)),
                name="goes_back_ended",
            ),
        ]


class Loan(Owned):
    """A part lent: from a drum or from the shelf, to a drum or to somebody. It stays until it is back, lost or kept for good (N13).

    `from_side` and `from_rod`, `to_side` and `to_rod` say of a rod where it is missing and where it is, as far as anybody said so.
    """

    class Ended(models.TextChoices):
        BACK = "back"
        LOST = "lost"
        KEPT = "kept"

    id = models.UUIDField(primary_key=True)
    what = models.CharField(max_length=60)
    number = models.PositiveSmallIntegerField(default=1)
    from_drum = models.ForeignKey(Drum, null=True, on_delete=models.CASCADE, related_name="lent_from")
    stock_item = models.ForeignKey(StockItem, null=True, on_delete=models.PROTECT, related_name="loans")
    from_words = models.CharField(max_length=60, blank=True)
    to_drum = models.ForeignKey(Drum, null=True, on_delete=models.CASCADE, related_name="lent_to")
    to_words = models.CharField(max_length=60, blank=True)
    from_side = models.CharField(max_length=10, blank=True, default="", db_default="")
    from_rod = models.PositiveSmallIntegerField(null=True, blank=True)
    to_side = models.CharField(max_length=10, blank=True, default="", db_default="")
    to_rod = models.PositiveSmallIntegerField(null=True, blank=True)
    job_id = models.UUIDField(null=True)
    lent_at = models.DateTimeField()
    lent_by_name = models.CharField(max_length=60, blank=True)
    due_on = models.DateField(null=True)
    ended = models.CharField(max_length=10, blank=True, choices=Ended.choices)
    ended_at = models.DateTimeField(null=True)
    ended_by_name = models.CharField(max_length=60, blank=True)

    class Meta:
        ordering = ["lent_at"]
        constraints = [
            models.CheckConstraint(
                condition=Q(ended="", ended_at__isnull=True) | (~Q(ended="") & Q(ended_at__isnull=False)),
                name="loan_ended",
            ),
            models.CheckConstraint(condition=Q(number__gt=0), name="loan_of_something"),
        ]
        indexes = [models.Index(fields=["workshop", "lent_at"], condition=Q(ended=""), name="loan_open")]


class BareNote(Owned):
    """The note of a bare head of this line, held by its edge and tapped (C9)."""

    id = models.UUIDField(primary_key=True)
    stock_item = models.ForeignKey(StockItem, on_delete=models.CASCADE, related_name="bare_notes")
    hz = models.FloatField()
    heard = models.BooleanField(default=False)
    by_name = models.CharField(max_length=60, blank=True)
    at = models.DateTimeField()

    class Meta:
        ordering = ["-at"]
        constraints = [models.CheckConstraint(condition=Q(hz__range=(5, 2000)), name="bare_note_pitch")]


class ShelfCode(Owned):
    """What a label on a box or a shelf says, and which line that is."""

    code = models.CharField(max_length=60)
    stock_item = models.ForeignKey(StockItem, on_delete=models.CASCADE, related_name="codes")

    class Meta:
        ordering = ["code"]
        constraints = [models.UniqueConstraint(fields=["workshop", "code"], name="shelf_code_unique")]
