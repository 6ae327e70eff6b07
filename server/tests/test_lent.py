"""A part lent from another drum leaves a record (N13)."""

import uuid

from house import Api, Hands, House, make_drum

from apps.bench.models import DrumFinding
from apps.history.models import LogEntry
from apps.stock.models import Loan


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


def test_the_giver_says_which_rod_is_gone_until_it_is_back_or_never_was_lent(
    hands: Hands, house: House, api: Api
) -> None:
    house.enter()
    giver = make_drum(house.workshop, "WR-009", name="Dipper", kind="snare", rods_batter=10, rods_resonant=10)
    first = hands.event(kind="lent", step="fingers", what="tension rod", from_tag="WR-009", from_rod=4)
    hands.send(first)
    house.enter()
    giver.refresh_from_db()
    assert giver.lost_batter == [4]
    gap = DrumFinding.objects.get(drum=giver, put_right_at__isnull=True)
    assert (gap.finding, gap.side, gap.rod) == ("rod-missing", "batter", 4)
    assert house.drum.name in gap.note
    hands.send(hands.event(kind="undo", event=first["id"]))
    house.enter()
    giver.refresh_from_db()
    assert giver.lost_batter == []
    assert not DrumFinding.objects.filter(drum=giver).exists()
    hands.send(hands.event(kind="lent", step="fingers", what="tension rod", from_tag="WR-009", from_rod=4))
    house.enter()
    loan = Loan.objects.get()
    assert api("POST", f"/shelf/loans/{loan.pk}/end", {"ended": "back"})[0] == 204
    house.enter()
    giver.refresh_from_db()
    assert giver.lost_batter == []
    assert DrumFinding.objects.get(drum=giver).put_right_at is not None


def test_a_rod_lent_from_the_shelfs_page_is_gone_from_its_drum_too(house: House, api: Api) -> None:
    house.enter()
    giver = make_drum(house.workshop, "WR-009", name="Dipper", kind="snare", rods_batter=10, rods_resonant=10)
    asked = {
        "id": str(uuid.uuid4()),
        "what": "tension rod",
        "from_tag": "WR-009",
        "from_rod": 10,
        "to_words": "the harbour band",
    }
    assert api("POST", "/shelf/loans", asked)[0] == 204
    assert (
        api("POST", "/shelf/loans", {**asked, "id": str(uuid.uuid4()), "from_rod": 12})[0] == 204
    )  # it has no twelfth: the loan stands by itself
    house.enter()
    giver.refresh_from_db()
    assert giver.lost_batter == [10]
    assert DrumFinding.objects.get(drum=giver).note == "it is with the harbour band"
