"""Lists that come a page at a time, with the same few queries however long they are."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet
from pydantic import BaseModel, ConfigDict, Field


class PageQuery(BaseModel):
    """Which page of a list, and how long its pages are. Pages count from 1; beyond the last one comes the last."""

    model_config = ConfigDict(extra="ignore")

    page: int = Field(1, ge=1, le=1_000_000, description="a whole number from 1")
    size: int = Field(20, ge=1, le=50, description="1 to 50 a page")

    def of(self, rows: QuerySet[Any]) -> tuple[list[Any], int, int, int]:
        """The rows of the page, its number, how many pages there are, and how many rows in all."""
        total = rows.count()
        pages = max(1, -(-total // self.size))
        page = min(self.page, pages)
        return list(rows[(page - 1) * self.size : page * self.size]), page, pages, total
