"""No query crosses workshops: not through the API, not through the ORM, not through a foreign key."""

import pytest
from django.apps import apps
from django.db import IntegrityError, ProgrammingError, connection, transaction
from house import Api, Hands, House, make_house, start_body

from apps.bench.models import Job, JobEvent
from apps.followups.models import FollowUp
from apps.heads.models import Fitting, StockItem
from apps.history.models import LogEntry
from apps.register.models import Drum
from apps.workshops.models import Owned
from apps.workshops.scope import enter_workshop


def owned_tables() -> list[str]:
    return [model._meta.db_table for model in apps.get_models() if issubclass(model, Owned)]


def test_every_owned_table_has_forced_row_security(db: None) -> None:
    with connection.cursor() as cursor:
        cursor.execute("select relname from pg_class where relrowsecurity and relforcerowsecurity")
        secured = {row[0] for row in cursor.fetchall()}
    assert set(owned_tables()) <= secured
    assert len(owned_tables()) >= 12


def test_every_link_between_owned_tables_is_within_one_workshop(db: None) -> None:
    """Each foreign key from an owned table to an owned table has a twin that includes the workshop."""
    with connection.cursor() as cursor:
        cursor.execute(
            "select conrelid::regclass::text, confrelid::regclass::text from pg_constraint where contype = 'f' and array_length(conkey, 1) = 2"
        )
        twins = set(cursor.fetchall())
    for model in apps.get_models():
        if issubclass(model, Owned):
            for field in model._meta.get_fields():
                target = getattr(field, "related_model", None)
                if field.concrete and field.many_to_one and isinstance(target, type) and issubclass(target, Owned):
                    assert (model._meta.db_table, target._meta.db_table) in twins


def test_outside_a_workshop_there_are_no_rows(house: House) -> None:
    enter_workshop(0)
    assert not Drum.objects.exists()
    assert not StockItem.objects.exists()
    with connection.cursor() as cursor:
        cursor.execute("select count(*) from register_drum")
        assert cursor.fetchone() == (0,)


def test_inside_one_workshop_the_others_rows_are_not_there(house: House, other: House) -> None:
    assert list(Drum.objects.all()) == [house.drum]
    assert not Drum.objects.filter(pk=other.drum.pk).exists()
    assert Drum.objects.filter(pk=other.drum.pk).update(name="Stolen") == 0
    assert Drum.objects.filter(pk=other.drum.pk).delete()[0] == 0


def test_rows_of_another_workshop_cannot_be_written(house: House, other: House) -> None:
    with pytest.raises(ProgrammingError, match="row-level security"), transaction.atomic():
        FollowUp.objects.create(
            workshop=other.workshop, drum=other.drum, side="batter", due_at="2026-01-01T00:00Z", why="x"
        )


@pytest.mark.parametrize("model", [FollowUp, LogEntry, Fitting])
def test_a_row_cannot_point_at_another_workshops_drum(house: House, other: House, model: type) -> None:
    facts = {
        FollowUp: {"side": "batter", "due_at": "2026-01-01T00:00Z", "why": "x"},
        LogEntry: {"at": "2026-01-01T00:00Z", "kind": "note", "text": "x"},
        Fitting: {"side": "resonant", "head": "x", "fitted_at": "2026-01-01T00:00Z"},
    }[model]
    with connection.cursor() as cursor:
        cursor.execute("set constraints all immediate")
    with pytest.raises(IntegrityError, match="same_workshop"), transaction.atomic():
        model.objects.create(workshop=house.workshop, drum_id=other.drum.pk, **facts)


def test_the_api_shows_each_workshop_its_own_drum_of_the_same_tag(house: House, other: House) -> None:
    other.enter()
    Drum.objects.filter(pk=other.drum.pk).update(name="Rook")
    for each, name in ((house, "Wren"), (other, "Rook")):
        status, sheet = Api(each.technician)("GET", "/register/drums/WR-001/sheet")
        assert (status, sheet["name"]) == (200, name)


def test_someone_elses_job_is_not_found_and_not_changed(house: House, other: House, hands: Hands) -> None:
    stranger = Api(other.technician)
    assert stranger("GET", f"/bench/jobs/{hands.job}")[0] == 404
    body = {"events": [hands.event(kind="step_done", step="lay-out")]}
    assert stranger("POST", f"/bench/jobs/{hands.job}/events", body)[0] == 404
    house.enter()
    assert Job.objects.get(pk=hands.job).last_seq == 1


def test_someone_elses_shelf_cannot_be_taken_from(house: House, other: House) -> None:
    status, _ = Api(house.technician)("POST", "/bench/jobs", start_body(house.drum, stock_item=other.stock.pk))
    assert status == 404


@pytest.mark.django_db(transaction=True)
def test_a_person_can_be_deleted_and_stays_in_the_record_by_name() -> None:
    """From outside every workshop, where no row of one is to be seen."""
    with transaction.atomic():
        house = make_house("wharf")
    api = Api(house.technician)
    with transaction.atomic():
        house.enter()
        body = start_body(house.drum)
    assert api("POST", "/bench/jobs", body)[0] == 201
    house.technician.user.delete()
    with transaction.atomic():
        house.enter()
        job = Job.objects.get(pk=body["id"])
        assert (job.opened_by_id, job.opened_by_name) == (None, "technician of wharf")
        assert set(JobEvent.objects.values_list("by_id", "by_name")) == {(None, "technician of wharf")}
