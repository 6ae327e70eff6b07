"""Pictures, and how a device sends one."""

from __future__ import annotations

import io
import uuid
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from house import Api
from PIL import Image


def picture(size: tuple[int, int] = (400, 200), form: str = "JPEG", **more: Any) -> bytes:
    """Left half red, right half blue."""
    made = Image.new("RGB", size, "red")
    made.paste("blue", (size[0] // 2, 0, *size))
    file = io.BytesIO()
    made.save(file, form, **more)
    return file.getvalue()


def send(
    api: Api, tag: str, data: bytes, job: str = "", key: uuid.UUID | None = None, name: str = "p.jpg"
) -> tuple[int, Any]:
    form = {"id": str(key or uuid.uuid4()), "tag": tag, "about": "mark", "taken_at": timezone.now().isoformat()}
    if job:
        form["job_id"] = job
    answer = api.client.post("/api/photos", form | {"photo": SimpleUploadedFile(name, data)})
    return answer.status_code, answer.json()
