"""Heads: the lines a workshop uses, what lies on the shelf, and what is fitted on which drum."""

from __future__ import annotations

from datetime import datetime

from django.conf import settings
from django.contrib.postgres.constraints import ExclusionConstraint
from django.contrib.postgres.fields import DateTimeRangeField, RangeBoundary, RangeOperators
from django.db import models
from django.db.models import F, Func, Q

from apps.register.models import Drum
from apps.workshops.models import Owned


class HeadLine(Owned):
    """A line of heads by what it is made of; never by who makes it."""

    name = models.CharField(max_length=60)
    plies = models.PositiveSmallIntegerField(default=1)
    film_mil = models.FloatField(default=10)
    finish = models.CharField(max_length=20, default="clear")
    damping = models.CharField(max_length=20, default="none")
    vent = models.BooleanField(default=False)
    side = models.CharField(max_length=10, default="either")

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "name"], name="head_line_unique"),
            models.CheckConstraint(condition=Q(side__in=["batter", "resonant", "either"]), name="head_line_side"),
            models.CheckConstraint(condition=Q(film_mil__gt=0, film_mil__lte=40), name="head_line_film"),
        ]


class WireLine(Owned):
    """A line of snare wires by strands and how they are tied."""

    name = models.CharField(max_length=60)
    strands = models.PositiveSmallIntegerField(default=20)
    tie = models.CharField(max_length=10, default="cord")
    made = models.CharField(max_length=10, default="coiled", db_default="coiled")

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "name"], name="wire_line_unique"),
            models.CheckConstraint(condition=Q(strands__range=(2, 60)), name="wire_line_strands"),
            models.CheckConstraint(condition=Q(tie__in=["cord", "strap"]), name="wire_line_tie"),
            models.CheckConstraint(condition=Q(made__in=["coiled", "cable", "gut"]), name="wire_line_made"),
        ]


class StockItem(Owned):
    """One line on the shelf: a head or set of wires of one size, a rod, a claw, a small part. Used ones are a line of their own.

    `count` is the sum of its movements (apps.stock). `shelf` is its usual place: what no heap says to lie elsewhere lies there.
    """

    sort = models.CharField(max_length=10, default="head", db_default="head")
    line = models.ForeignKey(HeadLine, null=True, on_delete=models.PROTECT, related_name="stock")
    wires = models.ForeignKey(WireLine, null=True, on_delete=models.PROTECT, related_name="stock")
    name = models.CharField(max_length=60, blank=True, default="", db_default="")
    diameter_m = models.FloatField(null=True)
    length_m = models.FloatField(null=True)
    used = models.BooleanField(default=False, db_default=False)
    count = models.PositiveIntegerField(default=0)
    minimum = models.PositiveIntegerField(default=0, db_default=0)
    shelf = models.CharField(max_length=20, blank=True)
    note = models.CharField(max_length=200, blank=True, default="", db_default="")

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["workshop", "sort", "line", "wires", "name", "diameter_m", "length_m", "used"],
                name="stock_unique",
                nulls_distinct=False,
            ),
            models.CheckConstraint(condition=Q(count__gte=0), name="stock_not_negative"),
            models.CheckConstraint(
                condition=Q(sort="head", line__isnull=False, wires__isnull=True, diameter_m__isnull=False)
                | Q(sort="wires", wires__isnull=False, line__isnull=True, diameter_m__isnull=False)
                | (Q(sort__in=["rod", "claw", "part"], line__isnull=True, wires__isnull=True) & ~Q(name="")),
                name="stock_is_something",
            ),
        ]

    @property
    def named(self) -> str:
        """What it is called, without its size."""
        return self.line.name if self.line else self.wires.name if self.wires else self.name

    @property
    def width_m(self) -> float:
        """The diameter it is made for; only for heads and wires."""
        assert self.diameter_m is not None, "a head or a set of wires has its diameter"
        return self.diameter_m

    @property
    def head(self) -> HeadLine:
        """The line of heads it is one of; only for heads."""
        assert self.line is not None, "a head has its line"
        return self.line


class Promise(Owned):
    """One head or set of wires on the shelf promised to one side of a planned job or of one in hand, so that nobody else counts on it."""

    stock_item = models.ForeignKey(StockItem, on_delete=models.CASCADE, related_name="promises")
    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="+")
    for_what = models.UUIDField()
    side = models.CharField(max_length=10)
    by_name = models.CharField(max_length=60, blank=True)
    at = models.DateTimeField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["for_what", "side"], name="promise_one_a_side"),
            models.CheckConstraint(condition=Q(side__in=["batter", "resonant", "wires"]), name="promise_side"),
        ]


class ShelfThing(Owned):
    """Where a tool or material lies, and whether there is none left. Its name is the one lay-out lists use."""

    name = models.CharField(max_length=80)
    place = models.CharField(max_length=60, blank=True)
    short = models.BooleanField(default=False)
    said_by_name = models.CharField(max_length=60, blank=True)
    said_at = models.DateTimeField()

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["workshop", "name"], name="shelf_thing_unique")]


class _TstzRange(Func):
    function = "TSTZRANGE"
    output_field = DateTimeRangeField()


class Fitting(Owned):
    """A head on one side of a drum, or its snare wires, from when to when. The database lets no two overlap.

    `dated`: whether the day it was fitted is known or guessed; of an unknown one `fitted_at` is when somebody saw it on.
    """

    drum = models.ForeignKey(Drum, on_delete=models.CASCADE, related_name="fittings")
    side = models.CharField(max_length=10)
    head = models.CharField(max_length=60)
    fitted_at = models.DateTimeField()
    dated = models.CharField(max_length=10, default="known", db_default="known")
    fitted_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    fitted_by_name = models.CharField(max_length=60, blank=True)
    retired_at = models.DateTimeField(null=True, blank=True)
    retired_because = models.CharField(max_length=200, blank=True)
    job_id = models.UUIDField(null=True, blank=True)

    class Meta:
        ordering = ["-fitted_at"]
        indexes = [
            models.Index(
                fields=["workshop", "side", "fitted_at", "id"],
                include=["drum"],
                condition=Q(retired_at__isnull=True),
                name="fitting_now",
            )
        ]
        constraints = [
            models.CheckConstraint(condition=Q(side__in=["batter", "resonant", "wires"]), name="fitting_side"),
            models.CheckConstraint(condition=Q(dated__in=["known", "guessed", "unknown"]), name="fitting_dated"),
            models.CheckConstraint(
                condition=Q(retired_at__isnull=True) | Q(retired_at__gte=F("fitted_at")), name="fitting_order"
            ),
            ExclusionConstraint(
                name="fitting_one_head_a_side",
                expressions=[
                    ("drum", RangeOperators.EQUAL),
                    ("side", RangeOperators.EQUAL),
                    (_TstzRange("fitted_at", "retired_at", RangeBoundary()), RangeOperators.OVERLAPS),
                ],
            ),
        ]

    @property
    def since(self) -> datetime | None:
        """When it was fitted, known or guessed; None where nobody knows."""
        return None if self.dated == "unknown" else self.fitted_at
