"""What a sheet can be had as on paper, without what prints it."""

from typing import Literal, get_args

PaperId = Literal["card", "templates"]
PAPERS: tuple[PaperId, ...] = get_args(PaperId)
