"""Addresses: the API, how the server is, and one page for everything else."""

from django.conf import settings
from django.db import connection
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from jamreel.api import api
from jamreel.core.words import say


@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """Return the application's page, with the token that its writes must carry."""
    index = settings.FRONTEND / "index.html"
    if not index.exists():
        return HttpResponse(say("running.not_built"), status=503)
    response = HttpResponse(index.read_bytes())
    response["Cache-Control"] = "no-store"
    return response


def healthz(request: HttpRequest) -> HttpResponse:
    """Return whether the database answers; who watches the server asks this."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT COUNT(*) FROM workshop_workshop WHERE 0")
    response = JsonResponse({"status": "ok"})
    response["Cache-Control"] = "no-store"
    return response


urlpatterns = [
    path("healthz", healthz),
    path("api/", api.urls),
    re_path(r"^(?!api/|assets/).*$", page),
]
handler500 = "jamreel.site.faults.fault"
