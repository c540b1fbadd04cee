"""What is measured on a finished piece, by what, and what the sizes that came out say."""

from toreuma.core.measure.characteristic import Characteristic
from toreuma.core.measure.listing import characteristics_of

__all__ = ["Characteristic", "characteristics_of"]
