"""What is owed, in what order, and why."""

from datetime import UTC, date, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis.strategies import dates, integers

from drumwork.condition import last_past_life, months_between, months_past_life
from drumwork.planning import AgedHead, CheckDue, JobInHand, OwedKind, list_owed
from drumwork.settling import settling_check_due

NOW = datetime(2026, 5, 13, 10, 0, tzinfo=UTC)  # a Wednesday


def days(n: float) -> timedelta:
    return timedelta(days=n)


def test_the_first_check_is_due_two_days_after_fitting() -> None:
    # common practice F6: film settles over the first one to two days
    assert settling_check_due(NOW) == NOW + days(2)


def test_overdue_comes_before_rested_before_in_hand_before_aged_before_coming() -> None:
    facts = [
        CheckDue("E", "batter", NOW + days(1), "check"),
        AgedHead("D", "batter", "single 10 coated", NOW - days(430), 12),
        JobInHand("C", "j1", "batter, clean", NOW),
        JobInHand("B", "j2", "batter, rest", NOW, NOW - timedelta(minutes=5)),
        CheckDue("A", "batter", NOW - days(3), "check"),
    ]
    assert [item.fact.drum for item in list_owed(facts, NOW)] == ["A", "B", "C", "D", "E"]


def test_only_what_is_owed_now_is_owed() -> None:
    facts = [
        CheckDue("A", "batter", NOW + days(1), "check"),
        JobInHand("B", "j", "batter, rest", NOW, NOW + timedelta(minutes=30)),
    ]
    items = list_owed(facts, NOW)
    assert not any(item.owed_now for item in items)
    assert {item.kind for item in items} == {OwedKind.COMING_CHECK, OwedKind.RESTING}
    assert next(item.minutes_left for item in items if item.kind is OwedKind.RESTING) == 30


def test_strokes_count_the_days_late_and_the_reason_names_the_day() -> None:
    (item,) = list_owed([CheckDue("A", "batter", NOW - days(3), "new head; its check")], NOW)
    assert (item.count, item.unit) == (3, "days late")
    assert item.reason == "new head; its check was due Sunday"


def test_a_head_within_its_expected_life_is_not_owed() -> None:
    assert list_owed([AgedHead("A", "batter", "single 10 coated", NOW - days(200), 12)], NOW) == []


@pytest.mark.parametrize(
    ("earlier", "later", "months"),
    [
        (date(2025, 1, 31), date(2025, 2, 28), 0),
        (date(2025, 1, 31), date(2025, 3, 31), 2),
        (date(2024, 5, 13), date(2026, 5, 13), 24),
        (date(2026, 5, 13), date(2026, 1, 1), 0),
    ],
)
def test_months_are_whole_calendar_months(earlier: date, later: date, months: int) -> None:
    assert months_between(earlier, later) == months


def test_months_past_life_start_at_nought() -> None:
    assert months_past_life(date(2025, 5, 13), date(2026, 5, 12), 12) == 0
    assert months_past_life(date(2025, 4, 13), date(2026, 5, 13), 12) == 1


@given(dates(date(1990, 1, 1), date(2060, 12, 31)), integers(1, 240), integers(-40, 40))
def test_the_last_day_past_its_life_is_the_last(today: date, life: int, off: int) -> None:
    """By counting: every day up to it is past its life, none after it."""
    last = last_past_life(today, life)
    day = last + timedelta(days=off)
    assert (months_past_life(day, today, life) > 0) == (day <= last)
