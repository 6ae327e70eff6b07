"""Workshops and who works in them. Every other table belongs to one workshop."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.db.models import Q
from django.db.models.functions import Lower


class Workshop(models.Model):
    """A workshop and its own ways where the trade disagrees."""

    name = models.CharField(max_length=120)
    slug = models.SlugField(unique=True, allow_unicode=True)
    bench_name = models.CharField(max_length=80, default="bench")
    length_unit = models.CharField(max_length=2, default="in", choices=[("in", "in"), ("mm", "mm")])
    a4_hz = models.FloatField(default=440.0)
    pattern = models.CharField(max_length=20, default="star")
    step_32 = models.PositiveSmallIntegerField(default=2)
    stretch = models.CharField(max_length=20, default="palm")
    logo = models.CharField(max_length=20, default="badge")
    grease = models.CharField(max_length=20, default="when-dry")
    after_stretch = models.CharField(max_length=20, default="back")
    evenness = models.CharField(max_length=20, default="even")
    resonant = models.CharField(max_length=20, default="equal")
    means = models.CharField(max_length=20, default="pitch")
    snare_note = models.CharField(max_length=20, default="none")
    bed_rods = models.CharField(max_length=20, default="matched")
    bass_pitch = models.CharField(max_length=20, default="lowest")
    old_heads = models.CharField(max_length=20, default="never")
    rest_minutes = models.PositiveSmallIntegerField(default=30)
    check_after_days = models.PositiveSmallIntegerField(default=2)
    leave_above = models.BooleanField(default=True)
    first_head = models.CharField(max_length=10, default="usual")
    cadence = models.CharField(max_length=10, default="rod")
    slacken_by = models.CharField(max_length=10, default="pass")
    tap_round = models.BooleanField(default=True)
    batter_life_months = models.PositiveSmallIntegerField(default=12)
    resonant_life_months = models.PositiveSmallIntegerField(default=30)
    batter_life_hours = models.PositiveIntegerField(default=0, db_default=0)
    falls_times = models.FloatField(default=2.0)
    turned_visits = models.PositiveSmallIntegerField(default=3)
    even_spread_hz = models.FloatField(default=2.0)
    callout_plays = models.FloatField(default=10, db_default=10)
    callout_stands = models.FloatField(default=8, db_default=8)
    callout_rods = models.FloatField(default=7, db_default=7)
    callout_sounds = models.FloatField(default=6, db_default=6)
    callout_noise = models.FloatField(default=4, db_default=4)
    callout_beside = models.FloatField(default=2, db_default=2)
    """What each kind of trouble is worth before a show, 0 to 10: see `drumwork.callout.Weights`."""
    copy_days = models.PositiveSmallIntegerField(default=7)
    demo = models.BooleanField(default=False, db_default=False)
    """Invented, and gone again when nobody wants it; nobody signs in to it while the demo is off."""

    class Meta:
        constraints = [
            models.UniqueConstraint(Lower("name"), name="workshop_name"),
            models.CheckConstraint(condition=Q(step_32__in=[1, 2, 4]), name="workshop_step"),
            models.CheckConstraint(condition=Q(a4_hz__range=(400, 480)), name="workshop_a4"),
            models.CheckConstraint(condition=Q(even_spread_hz__gt=0), name="workshop_even"),
            models.CheckConstraint(
                condition=Q(falls_times__range=(1.2, 6), turned_visits__range=(2, 8)), name="workshop_thresholds"
            ),
            models.CheckConstraint(
                condition=Q(first_head__in=["usual", "batter", "resonant"]), name="workshop_first_head"
            ),
            models.CheckConstraint(
                condition=Q(cadence__in=["rod", "pair", "pass"], slacken_by__in=["rod", "pair", "pass"]),
                name="workshop_cadence",
            ),
        ]

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    """A person's role in a workshop. One person may work in several."""

    class Role(models.TextChoices):
        OWNER = "owner"
        TECHNICIAN = "technician"
        VIEWER = "viewer"

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=12, choices=Role.choices)
    shown_name = models.CharField(max_length=60)
    keeps_sound = models.BooleanField(default=False)
    joined_at = models.DateTimeField(auto_now_add=True, null=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["user", "workshop"], name="membership_once"),
            models.CheckConstraint(condition=Q(role__in=["owner", "technician", "viewer"]), name="membership_role"),
        ]

    @property
    def may_change(self) -> bool:
        """Whether this person works here; a viewer only looks."""
        return self.role in (self.Role.OWNER, self.Role.TECHNICIAN)


class Owned(models.Model):
    """Base of every table that belongs to a workshop. Row security in the database hides other workshops' rows."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="+")

    class Meta:
        abstract = True
