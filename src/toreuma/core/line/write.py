"""Writing the line: the part in the words it could have been typed in."""

from dataclasses import replace

from toreuma.core.errors import ToreumaError
from toreuma.core.line.attached import attached, seat_of
from toreuma.core.line.elements import End, Side, end_of_corner
from toreuma.core.line.fault import Misread
from toreuma.core.line.number import length_text, plain_text
from toreuma.core.line.piece import known_thread
from toreuma.core.line.place import SAME_MM, Placed
from toreuma.core.line.step import ReliefWord, Step, flipped_corners
from toreuma.core.line.steps import steps_of
from toreuma.core.line.tables import LineTables
from toreuma.core.line.write_features import feature_texts
from toreuma.core.model import Feature, Part, Size
from toreuma.core.units import System

__all__ = ["size_text", "written_line"]

CLASS_WORDS = {"f": "general f", "m": "general m", "c": "general c", "v": "general v"}


def written_line(part: Part, units: System, tables: LineTables, named: bool = True) -> str:
    """The line of a part: reading it gives the part again, its name apart; ``named`` with the names of surfaces and
    features."""
    if not named:
        part = part.changed(
            outside=tuple(one.changed(name="") for one in part.outside),
            inside=tuple(one.changed(name="") for one in part.inside),
            features=tuple(one.changed(name="") for one in part.features),
        )
    features = list(part.features)
    outside = _said_steps([one.placed for one in steps_of(part.outside)], "outside", features, tables, units)
    whole = -part.outside[-1].z_mm
    bore = [one.placed for one in steps_of(part.inside)]
    pieces = [_step_text(outside, i, "outside", units) for i in range(len(outside))]
    said = " / ".join(pieces)
    rows = []
    if bore:
        rows.append("bore " + " / ".join(_bore_texts(part, bore, whole, features, tables, units)))
    rows += feature_texts(features, whole, units)
    if part.edge_break_mm:
        rows.append(f"break {length_text(part.edge_break_mm, units)}")
    if part.general_tolerance:
        rows.append(CLASS_WORDS[part.general_tolerance])
    if part.ra_um is not None:
        rows.append(f"ra {plain_text(part.ra_um)}")
    return "; ".join((said, *rows))


def _said_steps(
    placed: list[Placed],
    side: Side,
    features: list[Feature],
    tables: LineTables,
    units: System,
    floor: End | None = None,
) -> list[Placed]:
    """Steps that say their own thread, relief and knurl; those features are taken off the list."""
    found = list(placed)
    for index, one in enumerate(placed):
        if one.step.tapers:
            continue
        for step in _candidates(one, side, features, tables):
            tried = [*found[:index], replace(one, step=step), *found[index + 1 :]]
            try:
                made = attached(tried, side, tables, units, only=index, floor=floor)
            except Misread:
                continue
            if made and all(feature in features for feature in made):
                found = tried
                for feature in made:
                    features.remove(feature)
                break
    return found


def _candidates(one: Placed, side: Side, features: list[Feature], tables: LineTables) -> list[Step]:
    """What a step may say of the features on it, the fullest first."""
    found = []
    for feature in features:
        if (
            feature.kind == "thread"
            and feature.side == side
            and one.z1 - SAME_MM <= feature.from_z_mm <= one.z0 + SAME_MM
        ):
            try:
                thread = known_thread(feature.designation, tables)
            except ToreumaError:
                continue
            d, size = seat_of(thread, side)
            if abs(d - one.d0) < SAME_MM and size == one.step.size:
                bare = replace(one.step, thread=thread, thread_text=feature.designation, size=None)
                found += [replace(bare, relief=ReliefWord(short=short)) for short in (False, True)] + [bare]
        if feature.kind == "relief" and feature.side == side and feature.form != "thread":
            words = (ReliefWord(), ReliefWord(feature.form, radius_mm=feature.radius_mm, depth_mm=feature.depth_mm))
            found += [replace(one.step, relief=word) for word in words]
        if feature.kind == "knurl" and side == "outside":
            found.append(replace(one.step, knurl=(feature.form, feature.pitch_mm)))
    return found


def size_text(size: Size | None, units: System) -> str:
    """Limits as a person types them."""
    if size is None:
        return ""
    if size.fit:
        return f" {size.fit}"
    if abs(size.upper_um + size.lower_um) < 1e-9 and size.upper_um > 0:
        return f" ±{length_text(size.upper_um / 1000, units)}"
    return f" {_signed(size.upper_um, units)}/{_signed(size.lower_um, units)}"


def _signed(um: float, units: System) -> str:
    return ("-" if um < 0 else "+") + length_text(abs(um) / 1000, units)


def _head(one: Placed, units: System) -> str:
    step = one.step
    if step.thread is not None:
        return step.thread_text
    head = length_text(one.d0, units)
    if step.d1 is not None:
        return f"{head}>{length_text(one.d1, units)}{size_text(step.size, units)}"
    return head + size_text(step.size, units)


def _step_text(placed: list[Placed], index: int, side: Side, units: System, through: bool = True, how: str = "") -> str:
    """A step in words; ``how`` stands in place of its length."""
    one = placed[index]
    step = one.step
    words = [_head(one, units), how or f"x {length_text(step.length_mm or 0.0, units)}"]
    if step.radius_mm is not None:
        words.append(f"arc {length_text(step.radius_mm, units)}{' hollow' if step.hollow else ''}")
    words += _corner_words(placed, index, side, units, through)
    if step.relief is not None:
        sizes = ""
        if step.relief.form:
            radius, depth = (length_text(v or 0.0, units) for v in (step.relief.radius_mm, step.relief.depth_mm))
            sizes = f" {step.relief.form} {radius}x{depth}"
        words.append("relief" + sizes)
    if step.knurl is not None:
        words.append(f"knurl {step.knurl[0]} {length_text(step.knurl[1], units)}")
    if step.ra_um is not None:
        words.append(f"ra {plain_text(step.ra_um)}")
    if step.grind_mm is not None:
        words.append(f"grind {length_text(step.grind_mm, units)}")
    if step.name:
        words.append(f"'{_plain_name(step.name)}'")
    if step.face_ra_um is not None:
        words.append(f"face ra {plain_text(step.face_ra_um)}")
    if step.face_name:
        words.append(f"face '{_plain_name(step.face_name)}'")
    return " ".join(words)


def _plain_name(name: str) -> str:
    return name.replace("'", "’").replace("\n", " ")


def _corner_words(placed: list[Placed], index: int, side: Side, units: System, through: bool) -> list[str]:
    """Corners of a step; where one can only be meant for an end, the end is not said."""
    corners = placed[index].step.corners
    signs = {"chamfer": "c", "round": "r"}
    texts = [f"{signs[c.kind]}{length_text(c.size_mm, units)}" for c in corners]
    if len(corners) == 2:
        if texts[0] == texts[1]:
            return [f"{texts[0]} both"]
        return [f"{text} {corner.where}" for text, corner in zip(texts, corners, strict=True)]
    if len(corners) == 1:
        natural = end_of_corner(placed, index, replace(corners[0], where=""), side, through)
        return texts if natural == (corners[0].where,) else [f"{texts[0]} {corners[0].where}"]
    return []


def _bore_texts(
    part: Part, bore: list[Placed], whole: float, features: list[Feature], tables: LineTables, units: System
) -> list[str]:
    """Steps of the bore: the longest of a through one goes through, those behind it are said from the back."""
    if part.inside_from_back:
        return [_from_back_text(bore, i, units, through=False) for i in range(len(bore))]
    through = abs(bore[-1].z1 + whole) < 1e-5
    said = _said_steps(bore, "inside", features, tables, units, None if through else "back")
    if not through:
        return [_step_text(said, i, "inside", units, through=False) for i in range(len(said))]
    longest = max(range(len(said)), key=lambda i: (said[i].step.length_mm or 0.0, -i))
    texts = [_step_text(said, i, "inside", units) for i in range(longest)]
    texts.append(_step_text(said, longest, "inside", units, how="through"))
    for index in range(len(said) - 1, longest, -1):
        one = said[index]
        turned = Placed(_turned_step(one.step, one.d1, one.d0), one.z0, one.d1, one.z1, one.d0)
        run = [*said[:index], turned, *said[index + 1 :]]
        words = _corner_words(said, index, "inside", units, True)
        bare = replace(turned, step=replace(turned.step, corners=()))
        texts.append(" ".join([_step_text([*run[:index], bare, *run[index + 1 :]], index, "inside", units), *words,
                               "from back"]))  # fmt: skip
    return texts


def _turned_step(step: Step, d0: float, d1: float) -> Step:
    return replace(step, d0=d0, d1=d1 if step.d1 is not None else None)


def _from_back_text(bore: list[Placed], index: int, units: System, through: bool) -> str:
    """A step of a blind bore that opens in the back face."""
    one = bore[index]
    bare = replace(one, step=replace(one.step, corners=()))
    run = [*bore[:index], bare, *bore[index + 1 :]]
    text = _step_text(run, index, "inside", units, through)
    signs = {"chamfer": "c", "round": "r"}
    words = [f"{signs[c.kind]}{length_text(c.size_mm, units)} {c.where}" for c in flipped_corners(one.step)]
    return " ".join([text, *words, "from back"])
