"""Draws bodies in space into a picture, with or without a graphics card, with or without a screen."""

import math
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt
from PySide6.QtGui import QColor, QImage

from toreuma.app.theme import Theme
from toreuma.core.geometry.meshes import Mesh
from toreuma.core.prove.space import Body, BodyKind

__all__ = ["Camera", "NoSpace", "Renderer"]

COLOURS: dict[BodyKind, str] = {
    "metal": "stock_fill", "jaws": "jaw_fill", "chuck": "chuck_fill", "holder": "tool_body", "edge": "insert",
}  # fmt: skip
KEEP = 160
SAMPLES = 4
HATCH_PX = 7.0

VERTEX = """
#version 330
uniform mat4 place; uniform mat4 seen;
in vec3 at; in vec3 normal;
out vec3 face; out vec3 where;
void main() {
    vec4 world = place * vec4(at, 1.0);
    gl_Position = seen * world;
    face = mat3(place) * normal;
    where = world.xyz;
}
"""

SURFACE = """
#version 330
uniform vec3 colour; uniform vec3 line; uniform vec3 toward; uniform float hatch; uniform float unit;
in vec3 face; in vec3 where;
out vec4 shown;
void main() {
    vec3 n = normalize(face);
    bool cut = (abs(where.x) < 0.002 && abs(n.x) > 0.99) || (abs(where.y) < 0.002 && abs(n.y) > 0.99);
    float light = 0.62 + 0.30 * max(dot(n, normalize(vec3(0.7, 0.6, 0.15))), 0.0)
                + 0.14 * max(dot(n, normalize(vec3(-0.2, 0.8, -0.6))), 0.0);
    vec3 found = colour * light;
    if (cut && hatch > 0.0) {
        float along = (where.z + where.x + where.y) / unit;
        float stripe = abs(fract(along / hatch) - 0.5) * hatch;
        found = mix(line, mix(colour, vec3(1.0), 0.35), smoothstep(0.35, 1.1, stripe));
    } else if (cut) {
        found = mix(colour, vec3(1.0), 0.18);
    }
    shown = vec4(found, 1.0);
}
"""

EDGE_VERTEX = """
#version 330
uniform mat4 place; uniform mat4 seen;
in vec3 at;
void main() { gl_Position = seen * place * vec4(at, 1.0); gl_Position.z -= 0.0006 * gl_Position.w; }
"""

EDGE = """
#version 330
uniform vec3 line;
out vec4 shown;
void main() { shown = vec4(line, 1.0); }
"""


class NoSpace(Exception):
    """Nothing on this computer draws in space."""


@dataclass(frozen=True, kw_only=True)
class Camera:
    """Looks at ``z`` on the spindle axis; turned by ``round_deg`` about the upright and ``up_deg`` above the level."""

    z: float
    half_mm: float
    round_deg: float = 24.0
    up_deg: float = 28.0
    x: float = 0.0

    def toward(self) -> npt.NDArray[np.float64]:
        """From what is looked at to the one who looks."""
        turn, up = math.radians(self.round_deg), math.radians(self.up_deg)
        return np.array([math.sin(up), math.cos(up) * math.cos(turn), math.cos(up) * math.sin(turn)])

    def matrix(self, aspect: float) -> npt.NDArray[np.float64]:
        """From places to the picture, without perspective, as a drawing has it."""
        back = self.toward()
        upright = np.array([1.0, 0.0, 0.0])
        right = np.cross(upright, back)
        right /= np.linalg.norm(right)
        above = np.cross(back, right)
        view = np.eye(4)
        view[0, :3], view[1, :3], view[2, :3] = right, above, back
        view[:3, 3] = -view[:3, :3] @ np.array([self.x, 0.0, self.z])
        deep = 4000.0
        shown = np.diag([1 / self.half_mm, aspect / self.half_mm, -1 / deep, 1.0])
        return np.asarray(shown @ view)


class Renderer:
    """Keeps what it has drawn before; raises `NoSpace` where nothing draws."""

    def __init__(self) -> None:
        try:
            self._gl: Any = moderngl.create_standalone_context(require=330, backend="egl")  # type: ignore[arg-type]
        except Exception as error:
            raise NoSpace(str(error)) from error
        self._surface: Any = self._gl.program(vertex_shader=VERTEX, fragment_shader=SURFACE)
        self._lines: Any = self._gl.program(vertex_shader=EDGE_VERTEX, fragment_shader=EDGE)
        self._known: OrderedDict[int, tuple[Mesh, Any, Any]] = OrderedDict()
        self._size = (0, 0)
        self._many: Any = None
        self._few: Any = None
        self._one: Any = None

    def draw(
        self, bodies: Sequence[Body], camera: Camera, size: tuple[int, int], theme: Theme, *, fine: bool = True
    ) -> QImage:
        """The picture, ``size`` in pixels; without ``fine`` its edges are not smoothed, which is faster."""
        width, height = size
        self._resize(width, height)
        drawn_in = self._many if fine else self._few
        drawn_in.use()
        self._gl.enable(moderngl.DEPTH_TEST)
        ground = _rgb(theme.colour("paper"))
        drawn_in.clear(*ground, 1.0)
        seen = camera.matrix(width / height).T.astype("f4").tobytes()
        self._surface["seen"].write(seen)
        self._lines["seen"].write(seen)
        self._surface["unit"].value = 2 * camera.half_mm / width
        ink = _rgb(theme.colour("ink"))
        for body in bodies:
            faces, edges = self._buffers(body.mesh)
            place = body.place.T.astype("f4").tobytes()
            if faces is not None:
                self._surface["place"].write(place)
                self._surface["colour"].value = _rgb(theme.colour(COLOURS[body.kind]))
                self._surface["line"].value = ink
                self._surface["hatch"].value = HATCH_PX if body.kind == "metal" else 0.0
                faces.render(moderngl.TRIANGLES)
            if edges is not None:
                self._lines["place"].write(place)
                self._lines["line"].value = ink
                edges.render(moderngl.LINES)
        self._gl.copy_framebuffer(self._one, drawn_in)
        image = QImage(self._one.read(components=4), width, height, 4 * width, QImage.Format.Format_RGBA8888)
        return image.flipped()

    def _resize(self, width: int, height: int) -> None:
        if self._size == (width, height):
            return
        for old in (self._many, self._few, self._one):
            if old is not None:
                old.release()
        self._size = (width, height)
        self._many = self._gl.framebuffer(
            [self._gl.renderbuffer((width, height), 4, samples=SAMPLES)],
            self._gl.depth_renderbuffer((width, height), samples=SAMPLES),
        )
        plain = self._gl.renderbuffer((width, height), 4), self._gl.depth_renderbuffer((width, height))
        self._few = self._gl.framebuffer([plain[0]], plain[1])
        self._one = self._gl.framebuffer([self._gl.texture((width, height), 4)])

    def _buffers(self, mesh: Mesh) -> tuple[Any, Any]:
        """What the card has of a mesh, for its faces and its edges."""
        found = self._known.get(id(mesh))
        if found is not None and found[0] is mesh:
            self._known.move_to_end(id(mesh))
            return found[1], found[2]
        faces = edges = None
        if len(mesh.corners):
            buffer = self._gl.buffer(mesh.corners.tobytes())
            faces = self._gl.vertex_array(self._surface, [(buffer, "3f 3f", "at", "normal")])
        if len(mesh.edges):
            edges = self._gl.vertex_array(self._lines, [(self._gl.buffer(mesh.edges.tobytes()), "3f", "at")])
        self._known[id(mesh)] = mesh, faces, edges
        if len(self._known) > KEEP:
            _, old_faces, old_edges = self._known.popitem(last=False)[1]
            for old in (old_faces, old_edges):
                if old is not None:
                    old.release()
        return faces, edges


def _rgb(colour: QColor) -> tuple[float, float, float]:
    return colour.redF(), colour.greenF(), colour.blueF()
