"""The demo: big enough, believable enough, the same every time."""

import os
from contextlib import AbstractContextManager, nullcontext
from datetime import timedelta
from unittest import mock

from archived import empty_workshop, taken, told, written
from django.core.management import call_command
from django.test import TestCase
from django.utils import timezone

from apps.bench.models import Job, JobEvent
from apps.demo import scenario
from apps.demo.removal import remove_workshop
from apps.heads.models import Fitting
from apps.history.models import LogEntry, PitchRecord
from apps.register.models import Drum, Kit, Place
from apps.today.selectors import facts_of
from apps.workshops.models import Workshop
from apps.workshops.scope import enter_workshop
from drumwork.drums import DrumKind
from drumwork.planning import OwedKind, list_owed


def _fingerprint() -> list[object]:
    return [
        list(Drum.objects.values_list("tag", "name", "diameter_m")),
        list(PitchRecord.objects.order_by("drum__tag", "side", "at").values_list("mean_hz", "spread_hz")),
        list(JobEvent.objects.order_by("job_id", "seq").values_list("kind", "body")),
    ]


class TestDemo(TestCase):
    """Loaded once for all: it takes ten seconds."""

    @classmethod
    def setUpTestData(cls) -> None:
        call_command("load_demo", verbosity=0)

    @staticmethod
    def proof() -> AbstractContextManager[object]:
        """Deep, every page of the demo is opened when its archive comes in, which takes minutes; else those of small ones are, elsewhere."""
        return nullcontext() if os.environ.get("RT_DEEP") else mock.patch("apps.archive.reading.prove")

    def setUp(self) -> None:
        enter_workshop(Workshop.objects.get(slug=scenario.SLUG).pk)

    def test_the_demo_has_what_the_scenario_promises(self) -> None:
        assert Drum.objects.count() >= 60
        assert {drum.kind for drum in Drum.objects.all()} == {kind.value for kind in DrumKind}
        assert Place.objects.count() == 3
        assert Kit.objects.count() >= 5
        oldest = LogEntry.objects.order_by("at").values_list("at", flat=True)[0]
        assert timezone.now() - oldest > timedelta(days=500)
        assert Fitting.objects.filter(retired_at__isnull=False).exists()

    def test_today_has_every_kind_of_line(self) -> None:
        found = facts_of(Workshop.objects.get(slug=scenario.SLUG), timezone.localtime())
        assert {item.kind for item in list_owed(found.facts, timezone.localtime())} == set(OwedKind)
        assert Job.objects.filter(state="open").values("where").distinct().count() >= 5

    def test_nothing_in_the_demo_lies_in_the_future_but_what_is_coming(self) -> None:
        now = timezone.now()
        assert not LogEntry.objects.filter(at__gt=now).exists()
        assert not PitchRecord.objects.filter(at__gt=now).exists()

    def test_it_comes_back_whole_from_its_archive(self) -> None:
        """Beside itself under keys of its own; and with itself gone, under the very same."""
        demo = Workshop.objects.get(slug=scenario.SLUG)
        text = written(demo)
        beside = empty_workshop("Beside")
        with self.proof():
            taken(text, beside)
        assert told(written(beside.workshop)) == told(text, as_in=beside.workshop)
        remove_workshop(demo)
        alone = empty_workshop("Alone")
        with mock.patch("apps.archive.reading.prove"):
            taken(text, alone)
        assert told(written(alone.workshop)) == told(text)

    def test_loading_again_changes_nothing_and_resetting_gives_the_same_again(self) -> None:
        first = _fingerprint()
        call_command("load_demo", verbosity=0)
        assert Workshop.objects.count() == 1
        call_command("load_demo", reset=True, verbosity=0)
        enter_workshop(Workshop.objects.get(slug=scenario.SLUG).pk)
        assert _fingerprint() == first
