"""A part lent from another drum leaves a record (N13)."""

from house import Hands

from apps.history.models import LogEntry


def test_a_loan_stands_in_the_log_in_words_and_in_the_history(hands: Hands) -> None:
    loan = hands.event(kind="lent", step="fingers", what="tension rod", from_tag="WR-009")
    assert hands.send(loan)[0]["standing"] == "applied"
    assert hands.look()["log"][-1]["words"] == "tension rod lent from WR-009"
    hands.do(kind="close")
    assert LogEntry.objects.get(job_id=hands.job).record["notes"] == ["tension rod lent from WR-009"]


def test_a_loan_without_its_drum_is_not_taken(hands: Hands) -> None:
    status, answer = hands.api(
        "POST",
        f"/bench/jobs/{hands.job}/events",
        {"events": [hands.event(kind="lent", step="fingers", what="rod", from_tag="")]},
    )
    assert (status, answer["code"]) == (422, "invalid")
