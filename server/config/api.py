"""The API: refuses by default, one router per capability."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import NinjaAPI, Schema
from ninja.openapi.schema import OpenAPISchema
from ninja.parser import Parser

from apps.accounts.api import router as accounts
from apps.accounts.auth import member
from apps.archive.api import router as archive
from apps.audit.api import router as audit
from apps.bench.api import router as bench
from apps.bringing.api import router as bringing
from apps.callouts.api import router as callouts
from apps.copies.api import router as machine
from apps.demo.api import router as demo
from apps.drums.api import router as register
from apps.heads.api import router as heads
from apps.heads.choosing import router as choosing
from apps.heads.choosing_wires import router as choosing_wires
from apps.heads.lives import router as lives
from apps.heads.shelf import router as shelf
from apps.hearing.api import router as hearing
from apps.inspecting.api import router as inspecting
from apps.kits.api import router as kits
from apps.paper.api import router as paper
from apps.people.api import router as people
from apps.photos.api import router as photos
from apps.planned.api import router as planned
from apps.sound.api import router as sound
from apps.stock.api import router as stock
from apps.today.api import router as today
from apps.ways.api import router as workshops
from apps.workshops.bounded import bounded_json
from config import errors


class _API(NinjaAPI):
    """Names the error shape once for every operation, so the generated client knows it."""

    def get_openapi_schema(self, *args: Any, **kwargs: Any) -> OpenAPISchema:
        schema = super().get_openapi_schema(*args, **kwargs)
        schema["components"]["schemas"]["ErrorOut"] = errors.ErrorOut.model_json_schema()
        answer = {
            "description": "Refused",
            "content": {"application/json": {"schema": {"$ref": "#/components/schemas/ErrorOut"}}},
        }
        for operations in schema["paths"].values():
            for operation in operations.values():
                operation["responses"]["default"] = answer
        return schema


class _Parser(Parser):
    """Bodies within bounds."""

    def parse_body(self, request: HttpRequest) -> dict[str, Any]:
        found: dict[str, Any] = bounded_json(request.body)
        return found


api = _API(title="Red Tally", version="1", auth=member, docs_url=None, openapi_url=None, parser=_Parser())
errors.install(api)
api.add_router("/session", accounts)
api.add_router("/workshop", workshops)
api.add_router("/people", people)
api.add_router("/machine", machine)
api.add_router("/changes", audit)
api.add_router("/archive", archive)
api.add_router("/demo", demo)
api.add_router("/today", today)
api.add_router("/register", register)
api.add_router("/register", bringing)
api.add_router("/heads", heads)
api.add_router("/heads", choosing)
api.add_router("/heads", choosing_wires)
api.add_router("/heads", lives)
api.add_router("/shelf", shelf)
api.add_router("/shelf", stock)
api.add_router("/sound", sound)
api.add_router("/bench", bench)
api.add_router("/hearing", hearing)
api.add_router("/paper", paper)
api.add_router("/photos", photos)
api.add_router("/inspect", inspecting)
api.add_router("/planned", planned)
api.add_router("/kits", kits)
api.add_router("/callouts", callouts)


class Row(Schema):
    n: int
    text: str


@api.get("/bare", auth=None, response=list[Row], operation_id="bare", include_in_schema=False)
def bare(request):  # type: ignore[no-untyped-def]
    """Fixed fifty rows: the baseline `./bench` measures other endpoints against."""
    return _FIFTY


_FIFTY = [{"n": n, "text": f"row {n}"} for n in range(50)]
