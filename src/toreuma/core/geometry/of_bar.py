"""Flats that the bar brings along."""

from toreuma.core.model.feature import Flats
from toreuma.core.model.stock import PolygonBar

__all__ = ["is_of_bar"]

SAME_MM = 0.01


def is_of_bar(stock: object, feature: object) -> bool:
    """The flats are those of the bar itself: as many, as far across. Nothing has to be cut for them."""
    if not isinstance(stock, PolygonBar) or not isinstance(feature, Flats):
        return False
    return feature.count == stock.sides and abs(2 * feature.distance_mm - stock.across_mm) < SAME_MM
