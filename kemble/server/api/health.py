"""Whether the kitchen's server is well, for whoever watches it; and the authority that its certificate is under."""

from __future__ import annotations

import shutil
from typing import Literal

from django.conf import settings
from django.db import DatabaseError, connection
from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router
from ninja.responses import Status
from pydantic import BaseModel

from kemble.core.sentences import Words, say
from kemble.server.storage.backups import SPARE_BYTES
from kemble.server.web.tls import place_of

router = Router(tags=["health"])


class Health(BaseModel):
    """`unwell`, and what is wrong in words that give nothing of the kitchen away."""

    state: Literal["well", "unwell"]
    says: list[Words]


@router.get("/health", response={200: Health, 503: Health}, auth=None)
def health(request: HttpRequest) -> Status[Health]:
    """Whether it can read and keep what it is told. Asks for no name: a watcher has none."""
    says = []
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT COUNT(*) FROM django_migrations")
            cursor.fetchone()
    except DatabaseError:
        says.append(say("The database cannot be read."))
    if shutil.disk_usage(settings.DATA).free < SPARE_BYTES:
        says.append(say("The disk is nearly full."))
    found_health = Health(state="unwell" if says else "well", says=says)
    return Status(503 if says else 200, found_health)


@router.get("/authority.pem", response={200: None}, auth=None)
def authority(request: HttpRequest) -> HttpResponse:
    """The authority of this kitchen's own certificate, for a device that is to trust it. Not there without one."""
    path = place_of(settings.DATA) / "authority.pem"
    if not settings.TLS_OWN or not path.is_file():
        raise Http404
    response = HttpResponse(path.read_bytes(), content_type="application/x-x509-ca-cert")
    response["Content-Disposition"] = 'attachment; filename="kemble-authority.pem"'
    return response
