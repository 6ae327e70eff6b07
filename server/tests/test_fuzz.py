"""Every operation of the API under requests made up from its own schema, fitting and unfitting: never a server error, always the one shape.

Bounded, and the same every time.
"""

from __future__ import annotations

import os
from collections import Counter
from typing import Any
from urllib.parse import urlsplit

import pytest
import requests
import schemathesis
from house import Api, Hands, House, schema, start_body
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from schemathesis import GenerationMode

DEEP = bool(os.environ.get("RT_DEEP"))
EXAMPLES = 140 if DEEP else 6
"""For each operation: deep, 20,000 requests together."""
SHAPE = {"code", "message", "fields", "kept"}
SCHEMA = schemathesis.openapi.from_dict(schema())
OPERATIONS = [found.ok() for found in SCHEMA.get_all_operations()]
SENT: Counter[str] = Counter()


def send(api: Api, case: Any) -> Any:
    asked = requests.Request(**case.as_transport_kwargs(base_url="http://testserver")).prepare()
    parts = urlsplit(str(asked.url))
    body = asked.body or b""
    return api.client.generic(
        str(asked.method),
        parts.path + (f"?{parts.query}" if parts.query else ""),
        body if isinstance(body, bytes) else str(body).encode("utf-8", "surrogatepass"),
        content_type=asked.headers.get("Content-Type", "application/json"),
    )


@pytest.mark.parametrize("operation", OPERATIONS, ids=lambda each: f"{each.method.upper()} {each.path}")
def test_no_request_made_from_the_schema_breaks_the_server(operation: Any, house: House, api: Api) -> None:
    """Half of the requests name a drum and a job that are there. A viewer's and a stranger's refusals are tested elsewhere."""
    hands = Hands(api, api("POST", "/bench/jobs", start_body(house.drum, work="settling-check"))[1]["id"])
    there = {"tag": house.drum.tag, "job_id": hands.job, "work": "new-batter-head", "part": "batter", "side": "batter"}
    api.client.raise_request_exception = False

    @settings(
        max_examples=EXAMPLES, deadline=None, derandomize=True, database=None, suppress_health_check=list(HealthCheck)
    )
    @given(st.data())
    def ask(data: st.DataObject) -> None:
        mode = data.draw(st.sampled_from([GenerationMode.POSITIVE, GenerationMode.NEGATIVE]))
        case = data.draw(operation.as_strategy(generation_mode=mode))
        if data.draw(st.booleans()) and isinstance(case.path_parameters, dict):
            case.path_parameters.update({name: there[name] for name in case.path_parameters if name in there})
        answer = send(api, case)
        SENT[operation.label] += 1
        assert answer.status_code < 500, (case.as_curl_command(), answer.content)
        if answer.status_code >= 400:
            assert set(answer.json()) == SHAPE, answer.content

    ask()


@pytest.mark.skipif(not DEEP, reason="of the deep run")
def test_the_deep_run_is_as_deep_as_is_said() -> None:
    assert set(SENT) == {each.label for each in OPERATIONS}
    assert SENT.total() >= 20_000, SENT.most_common()[::-1][:20]


def test_no_two_schemas_share_a_name() -> None:
    """The API’s description knows schemas by their bare names: two of one name would become one, and the client wrong."""
    from ninja import Schema

    def below(of: type) -> list[type]:
        return [each for sub in of.__subclasses__() for each in (sub, *below(sub))]

    named = [each for each in below(Schema) if each.__module__.startswith("apps.")]
    twice = {each.__name__ for each in named if sum(other.__name__ == each.__name__ for other in named) > 1}
    assert len(named) > 50
    assert twice == set()
