"""How large a parcel a leaf folds, and what lines a mould. mm and ml; kitchen estimates where it says so."""

from __future__ import annotations

import math
from dataclasses import dataclass

# Of the leaves laid side by side this much of each lies bare, the rest under its neighbour. Kitchen estimate, 0.5-0.7.
BARE = 0.6
# Along the leaf: once round the cone, the lid over its mouth, and the end tucked in, in edges of the parcel. Kitchen
# estimate, 3.2-4.0.
EDGES_LONG = 3.6
# The edge of the parcel for the width of its leaves: the rest is the brim that the lid is folded over. Kitchen estimate.
EDGE_OF_WIDTH = 0.95
TURNS = 3.0  # of string round the waist; kitchen estimate
KNOT_MM = 220.0
OVERLAP_MM = 20.0  # of a strip with itself, and of what lines the floor up the wall
ABOVE_MM = 15.0  # of a strip over the rim, to lift it out by
_LEAF_AREA = 0.78  # of length times width: it is pointed; kitchen estimate
_LAID = 1.25  # leaves lap over each other on a floor; kitchen estimate


@dataclass(frozen=True, slots=True)
class LeafParcel:
    """A tetrahedron of `edge_mm`, closed with the end of its leaf."""

    edge_mm: float

    @property
    def holds_ml(self) -> float:
        """Edge cubed over six roots of two."""
        return self.edge_mm**3 / (6 * math.sqrt(2)) / 1000.0

    @property
    def string_mm(self) -> float:
        """A few turns round the waist, which is a square of half an edge, and the knot."""
        return TURNS * 2 * self.edge_mm + KNOT_MM


def parcel_of(length_mm: float, width_mm: float, leaves: int) -> LeafParcel:
    """The parcel that so many leaves fold: as wide as they lie side by side, unless they are too short to go round."""
    across = width_mm * (1 + BARE * (leaves - 1))
    return LeafParcel(min(EDGE_OF_WIDTH * across, length_mm / EDGES_LONG))


def leaves_for(volume_ml: float, length_mm: float, width_mm: float, most: int = 4) -> int | None:
    """The fewest leaves whose parcel holds so much; None when `most` do not."""
    return next((n for n in range(1, most + 1) if parcel_of(length_mm, width_mm, n).holds_ml >= volume_ml), None)


@dataclass(frozen=True, slots=True)
class LeafLining:
    """What lines a mould: a strip round the wall, and its floor."""

    strip_long_mm: float
    strip_wide_mm: float
    area_mm2: float


def lining_of(floor_mm2: float, rim_mm: float, height_mm: float) -> LeafLining:
    """A strip once round the wall with its overlap, over the rim and a little under the floor."""
    wide = height_mm + ABOVE_MM + OVERLAP_MM / 2
    return LeafLining(rim_mm + OVERLAP_MM, wide, floor_mm2 + rim_mm * height_mm)


def leaves_to_line(area_mm2: float, length_mm: float, width_mm: float) -> int:
    """Leaves laid over floor and wall, each lapping over the next."""
    return math.ceil(_LAID * area_mm2 / (_LEAF_AREA * length_mm * width_mm))
