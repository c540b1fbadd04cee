"""``decode``, ``thread`` and ``fit``: what the standards say."""

from collections.abc import Callable, Iterator
from dataclasses import asdict
from typing import Annotated

import typer

from toreuma.commands.code_report import code_lines, code_report
from toreuma.commands.common import JsonOption, print_json
from toreuma.commands.standard_report import fit_report, thread_report
from toreuma.core.standards.codes import decode
from toreuma.core.standards.fits import Tolerance, fit_of
from toreuma.core.standards.threads import NO_LIMITS, BasicThread, Side, basic_thread, thread_of
from toreuma.shipped.standards import code_tables, fit_tables, thread_tables

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    app.command("decode")(decode_command)
    app.command("thread")(thread_command)
    app.command("fit")(fit_command)


def decode_command(
    code: Annotated[str, typer.Argument(metavar="CODE", help="CNMG 120408, CNMG 432, PCLNR 2525 M12, A25R-PCLNR12")],
    as_json: JsonOption = False,
) -> None:
    """What the code on an insert's box, a holder or a boring bar says."""
    found = decode(code, code_tables())
    if as_json:
        print_json(code_report(found, code_tables()))
    else:
        print("\n".join(code_lines(found, code_tables())))


def thread_command(
    designation: Annotated[str, typer.Argument(metavar="DESIGNATION", help="M10x1.5-6g, 1/2-13 UNC, G1/2, Tr20x4")],
    as_json: JsonOption = False,
) -> None:
    """Limits, depth, wires and tap drill of a thread."""
    basic = basic_thread(designation)
    if basic is not None:
        if as_json:
            print_json({**asdict(basic), "limits": None})
        else:
            print("\n".join(_basic_lines(basic)))
        return
    thread = thread_of(designation, thread_tables())
    if as_json:
        print_json(thread_report(thread))
        return
    hand = ", left hand" if thread.left_hand else ""
    show = _in_inches if thread.family in INCH_FAMILIES else _in_mm
    turns = f", {25.4 / thread.pitch_mm:g} threads per inch" if thread.family in INCH_FAMILIES else ""
    pitch = show(thread.pitch_mm, 4)
    print(f"{thread.designation}  {thread.family}, pitch {pitch}{turns}, {thread.starts} start{hand}")
    for name, side in (("external", thread.external), ("internal", thread.internal)):
        print(f"  {name} {side.tolerance}: {_side(side, show)}")
    depths = show(thread.depth_external, 4), show(thread.depth_internal, 4)
    print(f"  depth on radius: external {depths[0]}, internal {depths[1]}")
    wires = thread.wires
    print(f"  over three wires of {show(wires.best, 4)}: {show(wires.over.min, 4)} to {show(wires.over.max, 4)}")
    print(f"  tap drill {show(thread.tap_drill_mm, 3)}")
    for note in thread.notes:
        print(f"  {note}")
    print(f"  source: {thread.source}")


INCH_FAMILIES = ("unified", "whitworth", "acme", "npt", "npsm")


def _basic_lines(basic: BasicThread) -> Iterator[str]:
    """A thread of which only the basic sizes are known."""
    loaded, other = basic.flanks_deg
    starts = f"{basic.starts} start{'s' if basic.starts > 1 else ''}"
    flanks = f"flanks {loaded:g}° and {other:g}°"
    yield f"{basic.designation}  {basic.family}, pitch {basic.pitch_mm:.4f} mm, {starts}, {flanks}"
    for at, name in enumerate(("external", "internal")):
        sizes = basic.major_d_mm[at], basic.pitch_d_mm, basic.minor_d_mm[at], basic.depth_mm[at]
        yield "  {}: major Ø {:.3f} mm, pitch Ø {:.3f} mm, minor Ø {:.3f} mm, depth on radius {:.4f} mm".format(
            name, *sizes
        )
    yield f"  {NO_LIMITS}"
    yield f"  source: {basic.source}"


def _in_mm(mm: float, places: int) -> str:
    return f"{mm:.{places}f} mm"


def _in_inches(mm: float, places: int) -> str:
    """As the inch standards print: a place more than in millimetres, with those beside it."""
    return f"{mm / 25.4:.4f} in ({mm:.{places}f} mm)"


def _side(side: Side, show: Callable[[float, int], str]) -> str:
    return ", ".join(
        f"{name} Ø {show(limits.min, 3)} to {show(limits.max, 3)}"
        for name, limits in (("major", side.major), ("pitch", side.pitch), ("minor", side.minor))
    )


def fit_command(
    designation: Annotated[str, typer.Argument(metavar="FIT", help="25 H7, 30f7 or 20 H7/g6")],
    as_json: JsonOption = False,
) -> None:
    """Limits of a size with a tolerance letter, or of a hole and its shaft."""
    fit = fit_of(designation, fit_tables())
    if as_json:
        print_json(fit_report(fit))
        return
    for one in (fit.first, fit.second):
        if one is not None:
            print(_limits(one))
    if fit.clearance_um is not None:
        least, most = fit.clearance_um
        print(f"  {fit.kind} fit: clearance {least:+g} to {most:+g} µm (minus is interference)")
    print(f"  source: {fit.first.source}")


def _limits(one: Tolerance) -> str:
    kind = "hole" if one.is_hole else "shaft"
    limits = f"{one.min_mm:.4f} to {one.max_mm:.4f} mm"
    return f"{one.nominal_mm:g} {one.zone}  {kind}: {one.upper_um:+g} / {one.lower_um:+g} µm, Ø {limits}"
