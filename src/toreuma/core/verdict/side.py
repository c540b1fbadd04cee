"""One side of a part as it was cut, and the way from its places to those of the drawing."""

from dataclasses import dataclass

import numpy as np
from shapely.affinity import affine_transform

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region
from toreuma.core.model import Job
from toreuma.core.prove import Proof
from toreuma.core.scene import Scene

__all__ = ["SideMade"]


@dataclass(frozen=True, kw_only=True)
class SideMade:
    """``job`` is the side as a job of its own; ``turned``: it sees the part from its other end."""

    job: Job
    scene: Scene
    proof: Proof
    turned: bool = False

    @property
    def back_z(self) -> float:
        return self.scene.profile.back_z

    def as_drawn(self, region: Region) -> Region:
        """A region of this side where the drawing has it."""
        return affine_transform(region, [-1.0, 0.0, 0.0, 1.0, self.back_z, 0.0]) if self.turned else region

    def here(self, points: Points) -> Points:
        """Places (n, 2) of the drawing as this side counts them."""
        return np.column_stack([self.back_z - points[:, 0], points[:, 1]]) if self.turned else points

    def drawn_z(self, z: float) -> float:
        """A place along Z of this side as the drawing counts it."""
        return self.back_z - z if self.turned else z
