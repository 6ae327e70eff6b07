"""The register: drums, where they are, whose they are, and which kits they belong to."""

from __future__ import annotations

from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.db.models import F, Q
from django.db.models.functions import Upper

from apps.workshops.models import Owned

FEWEST, MOST = 4, 16
# The core's DrumKind, kept apart so that tables know nothing of the core; a test holds the two together.
KINDS = (
    "snare",
    "rack-tom",
    "floor-tom",
    "bass",
    "marching-bass",
    "marching-snare",
    "orchestral-snare",
    "concert-tom",
    "practice-mesh",
    "rope-bass",
)


class Named(Owned):
    name = models.CharField(max_length=80)

    class Meta:
        abstract = True
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class Place(Named):
    class Meta(Named.Meta):
        constraints = [models.UniqueConstraint(fields=["workshop", "name"], name="place_unique")]


class Owner(Named):
    class Meta(Named.Meta):
        constraints = [models.UniqueConstraint(fields=["workshop", "name"], name="owner_unique")]


class Kit(Named):
    """Drums that play together. `wish` is how they should sound, as it was last asked for; empty where nobody has."""

    occasion = models.CharField(max_length=120, blank=True, default="", db_default="")
    at = models.CharField(max_length=80, blank=True, default="", db_default="")
    day = models.DateField(null=True, blank=True)
    wish = models.JSONField(default=dict, blank=True)

    class Meta(Named.Meta):
        constraints = [models.UniqueConstraint(fields=["workshop", "name"], name="kit_unique")]


class Drum(Owned):
    """One drum. Lengths in metres, pitches in hertz; rods numbered clockwise from the badge."""

    class State(models.TextChoices):
        IN = "in"
        OUT = "out"
        REPAIR = "repair"
        RETIRED = "retired"

    class Badge(models.TextChoices):
        BETWEEN = "between"
        AT_ROD = "at-rod"
        NONE = "none"

    tag = models.CharField(max_length=20)
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=20, choices=[(k, k) for k in KINDS])
    diameter_m = models.FloatField()
    depth_m = models.FloatField()
    shell = models.CharField(max_length=60, blank=True)
    rods_batter = models.PositiveSmallIntegerField()
    rods_resonant = models.PositiveSmallIntegerField()
    lost_batter = ArrayField(models.PositiveSmallIntegerField(), default=list, blank=True)
    lost_resonant = ArrayField(models.PositiveSmallIntegerField(), default=list, blank=True)
    bed_rods = ArrayField(models.PositiveSmallIntegerField(), default=list, blank=True)
    port_rods = ArrayField(models.PositiveSmallIntegerField(), default=list, blank=True)
    thread = models.CharField(max_length=20, blank=True)
    hoops = models.CharField(max_length=20, blank=True)
    snare_bed = models.BooleanField(default=False)
    badge = models.CharField(max_length=10, choices=Badge.choices, default=Badge.BETWEEN)
    port_m = models.FloatField(null=True, blank=True)
    wanted_batter_hz = models.FloatField(null=True, blank=True)
    wanted_resonant_hz = models.FloatField(null=True, blank=True)
    place = models.ForeignKey(Place, on_delete=models.PROTECT, related_name="drums")
    owner = models.ForeignKey(Owner, on_delete=models.PROTECT, related_name="drums")
    kits = models.ManyToManyField(Kit, through="KitDrum", related_name="drums")
    state = models.CharField(max_length=10, choices=State.choices, default=State.IN)
    hours_week = models.FloatField(null=True, blank=True)
    note = models.TextField(blank=True)
    kept = models.JSONField(default=dict, blank=True)
    search = models.CharField(max_length=400, editable=False)

    class Meta:
        ordering = ["tag"]
        indexes = [
            models.Index(fields=["workshop", "tag"], name="drum_tag"),
            models.Index(fields=["workshop", "kind", "tag"], name="drum_kind"),
            models.Index(fields=["workshop", "place", "tag"], name="drum_place"),
            models.Index(fields=["workshop", "id"], condition=Q(state="retired"), name="drum_retired"),
        ]
        constraints = [
            models.UniqueConstraint(F("workshop"), Upper("tag"), name="drum_tag_unique"),
            models.CheckConstraint(condition=Q(kind__in=KINDS), name="drum_kind_known"),
            models.CheckConstraint(condition=Q(diameter_m__range=(0.1, 1.6)), name="drum_diameter"),
            models.CheckConstraint(condition=Q(depth_m__range=(0.03, 1.5)), name="drum_depth"),
            models.CheckConstraint(
                condition=Q(hours_week__isnull=True) | Q(hours_week__gt=0, hours_week__lte=168), name="drum_hours"
            ),
            models.CheckConstraint(
                condition=Q(kind="rope-bass")
                | Q(rods_batter__range=(FEWEST, MOST), rods_resonant__range=(FEWEST, MOST)),
                name="drum_rods",
            ),
            models.CheckConstraint(
                condition=Q(port_m__isnull=True) | Q(port_m__gt=0, port_m__lt=F("diameter_m")), name="drum_port"
            ),
            models.CheckConstraint(
                condition=(Q(wanted_batter_hz__isnull=True) | Q(wanted_batter_hz__range=(20, 2000)))
                & (Q(wanted_resonant_hz__isnull=True) | Q(wanted_resonant_hz__range=(20, 2000))),
                name="drum_wanted",
            ),
            models.CheckConstraint(condition=Q(state__in=["in", "out", "repair", "retired"]), name="drum_state"),
        ]

    def __str__(self) -> str:
        return f"{self.name} ({self.tag})"


class KitDrum(Owned):
    """A drum of a kit: what it does there (empty: what such drums do) and its place in the row, the highest first."""

    kit = models.ForeignKey(Kit, on_delete=models.CASCADE)
    drum = models.ForeignKey(Drum, on_delete=models.CASCADE)
    role = models.CharField(max_length=10, blank=True, default="", db_default="")
    row = models.PositiveSmallIntegerField(null=True, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["kit", "drum"], name="kit_drum_unique")]
