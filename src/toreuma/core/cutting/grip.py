"""Grip of a jaw chuck at rest and at speed, and the grip a cut asks for (method of VDI 3106)."""

import math

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.model.hold import Chuck, Collet, FaceDriver, Hold, Mandrel

__all__ = [
    "friction_of",
    "grip_at_speed_n",
    "jaw_pull_n_per_rpm2",
    "required_grip",
    "required_grip_n",
    "safe_speed_rpm",
]

FRICTION = {"hard": 0.28, "soft": 0.18, "collet": 0.15, "mandrel": 0.12, "driver": 0.35}
"""Typical coefficients, steel on steel: serrated hard jaws 0.25 to 0.35, soft jaws 0.15 to 0.2.

For pins that bite into a face: what they carry round the axis over the push on them; assumed on the safe side."""

LIFT_SHARE = 1 / 3
"""Arm of the jaws' pressure, as a share of the grip length, when they may open over half their length."""
JAW_SHARE = {2: 0.5, 3: math.sqrt(3) / 3, 4: 0.5, 5: 0.615, 6: math.sqrt(3) / 3}
"""What so many jaws carry of a tilting moment in the worst place of a turn, as a share of all of them pushing in its
plane: the least of ``sum |cos|`` over their number; two are taken as four, they are wide."""

NEARLY = 1e-12
HELD = "S · F of (Fc d/dg)² + (Ff + (√(Fc² + Fp²) L - k F lg/3)/(k dg/2))² = (µ F)²"
DRIVEN = "S · (Fc d/(dg µ) + Ff): the push on the pins"

SOURCE = "VDI 3106: grip, centrifugal force, torque, push; tilting by the balance of jaws and friction (statics)"


def friction_of(hold: Hold) -> float:
    """Coefficient of friction between hold and blank."""
    if hold.friction is not None:
        return hold.friction
    return FRICTION[hold.jaws if isinstance(hold, Chuck) else hold.kind]


def jaw_pull_n_per_rpm2(hold: Hold) -> float:
    """Centrifugal force of all jaws over the square of the speed: ``sum m r (pi/30)^2``; 0 where none fly out."""
    if not isinstance(hold, Chuck) or hold.jaw_mass_kg is None or hold.jaw_centre_r_mm is None:
        return 0.0
    return hold.jaw_count * hold.jaw_mass_kg * hold.jaw_centre_r_mm / 1000 * (math.pi / 30) ** 2


def grip_at_speed_n(hold: Hold, rpm: float) -> float | None:
    """Grip at a speed, N; None when the grip at rest is not known. Outside grip loses, inside grip gains."""
    if hold.force_n is None:
        return None
    pull = jaw_pull_n_per_rpm2(hold) * rpm**2
    gains = isinstance(hold, Mandrel) or (isinstance(hold, Chuck) and hold.side == "inside")
    return hold.force_n + pull if gains else max(hold.force_n - pull, 0.0)


def required_grip(
    hold: Hold, cutting_n: float, feed_n: float, passive_n: float, cut_d_mm: float, grip_d_mm: float, overhang_mm: float
) -> Evidence:
    """What is said of the grip a cut asks for, N, safety included; `required_grip_n` is the number.

    Friction carries torque and push: ``sqrt((Fc d / dg)^2 + Ff^2) / mu``. Tilting, ``M = sqrt(Fc^2 + Fp^2) L``, is
    carried by the jaws' pressure as far as it moves along them, ``k F lg / 3``, and what is left by friction along the
    axis on the radius of the grip: the piece can only tilt by sliding out of a jaw. Torque, push and that friction add
    up square to each other, ``k`` is the share of the jaws that stand in the plane of the moment. Times the safety.
    """
    mu = friction_of(hold)
    slip, held = _slip_and_held(hold, cutting_n, feed_n, passive_n, cut_d_mm, grip_d_mm, overhang_mm)
    return Evidence(
        "grip needed",
        "F req",
        hold.safety * held,
        "N",
        formula=DRIVEN if isinstance(hold, FaceDriver) else HELD,
        source=SOURCE,
        inputs=(
            Input("cutting force", "Fc", cutting_n, "N"),
            Input("feed force", "Ff", feed_n, "N"),
            Input("passive force", "Fp", passive_n, "N"),
            Input("cut on diameter", "d", cut_d_mm, "mm"),
            Input("grip on diameter", "dg", grip_d_mm, "mm"),
            Input("cut in front of the hold", "L", overhang_mm, "mm"),
            Input("grip length", "lg", hold.grip_length_mm, "mm"),
            Input("friction", "µ", mu, "ratio"),
            Input("safety", "S", hold.safety, "ratio"),
            Input("to hold against slipping", "", slip, "N"),
            Input("share of the jaws", "k", _jaw_share(hold), "ratio"),
            Input("to hold against slipping and tilting", "", held, "N"),
        ),
    )


def required_grip_n(
    hold: Hold, cutting_n: float, feed_n: float, passive_n: float, cut_d_mm: float, grip_d_mm: float, overhang_mm: float
) -> float:
    """The number of `required_grip` alone, N."""
    return hold.safety * _slip_and_held(hold, cutting_n, feed_n, passive_n, cut_d_mm, grip_d_mm, overhang_mm)[1]


def _jaw_share(hold: Hold) -> float:
    return JAW_SHARE[hold.jaw_count] if isinstance(hold, Chuck) else 2 / math.pi


def _slip_and_held(
    hold: Hold, cutting_n: float, feed_n: float, passive_n: float, cut_d_mm: float, grip_d_mm: float, overhang_mm: float
) -> tuple[float, float]:
    """The grip against slipping alone, and against all of it, N."""
    if isinstance(hold, FaceDriver):  # the push carries the torque; feeding away from the pins takes from it
        slip = cutting_n * cut_d_mm / grip_d_mm / friction_of(hold) + feed_n
        return slip, slip
    mu, turning_n = friction_of(hold), cutting_n * cut_d_mm / grip_d_mm
    slip = math.hypot(turning_n, feed_n) / mu
    moment = math.hypot(cutting_n, passive_n) * overhang_mm
    if isinstance(hold, Collet) or moment <= 0:
        return slip, slip  # the collet's taper carries the tilting
    share, radius = _jaw_share(hold), grip_d_mm / 2
    by_pressure = moment / (share * LIFT_SHARE * hold.grip_length_mm)
    if slip >= by_pressure:
        return slip, slip
    # turning^2 + (along - c F)^2 = (mu F)^2, the root where friction still carries some of the tilting
    along, c = feed_n + moment / (share * radius), LIFT_SHARE * hold.grip_length_mm / radius
    square, half = c**2 - mu**2, along * c
    rest = turning_n**2 + along**2
    if abs(square) < NEARLY:
        return slip, rest / (2 * half)
    return slip, (half - math.sqrt(max(half**2 - square * rest, 0.0))) / square


def safe_speed_rpm(hold: Hold, required_n: float) -> float | None:
    """Highest speed at which the grip still is ``required_n``; None when unknown, infinite when speed takes none.

    ``n = sqrt((F0 - F req) / (sum m r)) 30 / pi`` for outside grip.
    """
    at_rest = grip_at_speed_n(hold, 0.0)
    if at_rest is None:
        return None
    if at_rest < required_n:
        return 0.0
    pull = jaw_pull_n_per_rpm2(hold)
    gains = isinstance(hold, Mandrel) or (isinstance(hold, Chuck) and hold.side == "inside")
    return math.inf if gains or pull == 0 else math.sqrt((at_rest - required_n) / pull)
