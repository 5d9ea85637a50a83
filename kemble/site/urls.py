"""Addresses: the API under /api/, and the one page of the front end for everything else."""

from django.urls import path, re_path

from kemble.server.api import api
from kemble.site.page import page

urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|assets/|static/).*$", page),
]

handler400 = "kemble.site.page.unfit"
handler404 = "kemble.site.page.missing"
handler500 = "kemble.site.page.failed"
