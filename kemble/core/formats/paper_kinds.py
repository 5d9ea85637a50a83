"""The papers that can be printed of a sheet, without what prints them."""

from typing import Literal, get_args

PaperId = Literal["card", "templates"]
PAPERS: tuple[PaperId, ...] = get_args(PaperId)
