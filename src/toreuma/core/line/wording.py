"""Many ways of saying one thing, brought to the one that is read: rules over the words of a piece.

Nothing here decides what a piece means. A rule takes a word away that says nothing more, puts another for it, or moves
it to where it is read; tokens keep their places in the text, so that faults stand where the person typed.
"""

import re
from collections.abc import Callable, Sequence
from dataclasses import replace

from toreuma.core.line.tokens import Token

__all__ = ["tidied", "worded"]

_SIDES = ("inside", "internal", "inner", "outside", "external")
_CIRCLE = ("on", "pcd", "bc")
_HOLES = ("hole", "holes")
_TEXTS = (
    (r"\b([Aa])/([Ff])\b", "AF"),
    (r"\b[cC]['’]bore\b", "cbore"),
    (r"\b[oO]-?\s?ring\b", ""),
    (r"\b(dia|thk|lg|deg|diam)\.(?!\d)", r"\1"),
    (r"\b(?:DIN|ISO|ASME|EN)(?:\s(?:EN|ISO))*\s(?:509|76|332|6411|965|471|472|82)(?:-\d)?\b", ""),
)
"""What no token can say: put otherwise as long as it was, so that all places stay."""

_SAME: tuple[tuple[tuple[str, ...], tuple[str, ...]], ...] = (
    (("through", "hole"), ("hole",)),
    (("thru", "hole"), ("hole",)),
    (("blind", "hole"), ("hole",)),
    (("tapped", "hole"), ("hole",)),
    (("tap", "hole"), ("hole",)),
    (("threaded", "hole"), ("hole",)),
    (("tapped", "holes"), ("holes",)),
    (("bolt", "holes"), ("holes",)),
    (("through", "holes"), ("holes",)),
    (("flat", "bottom"), ("flat",)),
    (("flat", "bottomed"), ("flat",)),
    (("circlip", "groove"), ("groove",)),
    (("snap", "ring", "groove"), ("groove",)),
    (("retaining", "ring", "groove"), ("groove",)),
    (("seal", "groove"), ("groove",)),
    (("relief", "groove"), ("groove",)),
    (("cross", "drill"), ("cross",)),
    (("cross", "drilled"), ("cross",)),
    (("radial",), ("cross",)),
    (("taper", "bore"), ("bore",)),
    (("tapered", "bore"), ("bore",)),
    (("conical", "bore"), ("bore",)),
    (("bore", "taper"), ("bore",)),
    (("all", "edges"), ("edges",)),
    (("surface", "ra"), ("ra",)),
    (("finish", "ra"), ("ra",)),
    (("fillet", "r"), ("r",)),
    (("radius", "r"), ("r",)),
    (("centres",), ("centre",)),
    (("centers",), ("centre",)),
    (("equispaced",), ()),
    (("equally", "spaced"), ()),
)
"""Words one behind the other, and what stands for them."""


def tidied(text: str) -> str:
    """A text in which what would part a word, or name a standard that is meant anyway, is gone; as long as before."""
    for pattern, instead in _TEXTS:
        text = re.sub(pattern, lambda m, i=instead: m.expand(i).ljust(len(m.group())), text)  # type: ignore[misc]
    return text


def worded(tokens: Sequence[Token]) -> list[list[Token]]:
    """The tokens of a piece as they are read; one that speaks of both ends becomes two."""
    found = list(tokens)
    for said, instead in _SAME:
        found = _replaced(found, said, instead)
    for rule in _RULES:
        found = rule(found)
    return _ends(found)


def _lows(tokens: Sequence[Token]) -> list[str]:
    return [one.low for one in tokens]


def _replaced(tokens: list[Token], said: tuple[str, ...], instead: tuple[str, ...]) -> list[Token]:
    """The words that stand for others, where they come."""
    lows, n = _lows(tokens), len(said)
    for at in range(len(tokens) - n, -1, -1):
        if tuple(lows[at : at + n]) == said:
            whole = replace(tokens[at], end=tokens[at + n - 1].end)
            tokens = [*tokens[:at], *(replace(whole, text=word) for word in instead), *tokens[at + n :]]
    return tokens


def _to_front(tokens: list[Token], at: int) -> list[Token]:
    return [tokens[at], *tokens[:at], *tokens[at + 1 :]]


def _hole_first(tokens: list[Token]) -> list[Token]:
    """``10 hole``, ``M8 hole x 20`` and ``M8 x 20 hole``: the word comes first."""
    lows = _lows(tokens)
    at = next((n for n, low in enumerate(lows) if low == "hole"), 0)
    begins = bool(at) and tokens[0].kind in ("number", "thread", "sign")
    if lows[0] == "tapped" and len(tokens) > 1 and tokens[1].kind == "thread":
        return [replace(tokens[0], text="hole"), *tokens[1:]]
    return _to_front(tokens, at) if begins and not {*_CIRCLE, "cross"} & set(lows) else tokens


def _side_first(tokens: list[Token]) -> list[Token]:
    """``M36x2 inside x 15`` and ``groove inside 1.1 x 17 at 5``: the side comes first."""
    lows = _lows(tokens)
    turned = tokens[0].kind == "thread" or lows[0] in ("thread", "groove", "grooves", "g", "relief", "undercut")
    at = next((n for n, low in enumerate(lows) if n and low in _SIDES), 0)
    return _to_front(tokens, at) if turned and at and at < len(tokens) - 1 else tokens


def _thread_inside(tokens: list[Token]) -> list[Token]:
    """``M36x2 x 15 inside``: the same at the end."""
    threaded = len(tokens) > 1 and (tokens[0].kind == "thread" or tokens[1].kind == "thread")
    return _to_front(tokens, len(tokens) - 1) if threaded and tokens[-1].low in _SIDES else tokens


def _thread_at_end(tokens: list[Token]) -> list[Token]:
    """``M20 x 25 at front``: on the shaft that is there, from its front or its back."""
    lows = _lows(tokens)
    at = next((n for n in range(len(lows) - 1) if lows[n] in ("at", "@") and lows[n + 1] in ("front", "back")), None)
    if at is None or not (tokens[0].kind == "thread" or lows[0] == "thread"):
        return tokens
    word = [] if lows[0] == "thread" else [replace(tokens[0], kind="word", text="thread")]
    end = [tokens[at + 1]] if lows[at + 1] == "back" else []
    return [*word, *tokens[:at], *tokens[at + 2 :], *end]


def _polygon_first(tokens: list[Token]) -> list[Token]:
    """``24 hex x 10``, ``24 AF x 10`` and ``24 AF hex x 10``."""
    lows = _lows(tokens)
    if tokens[0].kind != "number":
        return tokens
    at = next((n for n, low in enumerate(lows[:3]) if low in ("hex", "hexagon", "square")), 0)
    if at == 2 and lows[1] != "af":
        return tokens
    at = at or (1 if lows[1:2] == ["af"] else 0)
    return [tokens[at], tokens[0], *tokens[at + 1 :]] if at else tokens


def _cross_first(tokens: list[Token]) -> list[Token]:
    """``2 x 5 cross holes at 20`` and ``2 cross holes 5 at 20``."""
    lows = _lows(tokens)
    at = lows.index("cross") if "cross" in lows else 0
    if at == 1 and tokens[0].kind == "number":
        rest = tokens[3:] if lows[2:3] in (["hole"], ["holes"]) else tokens[2:]
        return [tokens[1], tokens[0], replace(tokens[1], text="x"), *rest]
    if at < 2:
        return tokens
    rest = [one for n, one in enumerate(tokens) if n != at and not (one.low in _HOLES and n == at + 1)]
    return [tokens[at], *rest]


def _counted_first(tokens: list[Token]) -> list[Token]:
    """``holes 6 x 9 on 60`` is ``6 x 9 on 60``."""
    lows = _lows(tokens)
    counted = lows[0] in _HOLES and len(tokens) > 3 and tokens[1].kind == "number" and lows[2] == "x"
    return tokens[1:] if counted and set(_CIRCLE) & set(lows) else tokens


def _taper_word(tokens: list[Token]) -> list[Token]:
    """``taper 30 to 40 x 20``: two diameters say it already."""
    said = tokens[0].low in ("taper", "tapered", "conical") and len(tokens) > 1 and tokens[1].kind == "number"
    return tokens[1:] if said else tokens


def _knurl_form(tokens: list[Token]) -> list[Token]:
    """``knurl 1.0 diamond x 20``: the form comes before the pitch."""
    lows = _lows(tokens)
    if lows[0] != "knurl" or len(tokens) < 3 or lows[2] not in ("rge", "raa", "diamond", "straight"):
        return tokens
    return [tokens[0], tokens[2], tokens[1], *tokens[3:]]


def _left_hand(tokens: list[Token]) -> list[Token]:
    """``M20 left hand``: it belongs to the thread."""
    lows = _lows(tokens)
    at = next((n for n, one in enumerate(tokens) if one.kind == "thread"), None)
    if at is None or "left" not in lows[at + 1 :]:
        return tokens
    left = lows.index("left", at + 1)
    hand = left + 1 < len(lows) and lows[left + 1] in ("hand", "handed")
    thread = replace(tokens[at], text=f"{tokens[at].text} LH")
    return [*tokens[:at], thread, *tokens[at + 1 : left], *tokens[left + 1 + hand :]]


def _length_letter(tokens: list[Token]) -> list[Token]:
    """``L80`` is ``x 80``."""
    found = list(tokens)
    for n in range(1, len(found) - 1):
        if found[n].low == "l" and found[n + 1].kind == "number" and not found[n].tight:
            found[n] = replace(found[n], text="x")
    return found


def _square_edges(tokens: list[Token]) -> list[Token]:
    """``edges 0.3 x 45``: broken at 45° anyway."""
    lows = _lows(tokens)
    at = next((n for n, low in enumerate(lows) if low == "x"), 0)
    edges = lows[0] in ("edges", "break", "deburr") and at and at + 1 < len(tokens) and tokens[at + 1].plain == 45
    return tokens[:at] if edges else tokens


def _ends(tokens: list[Token]) -> list[list[Token]]:
    """``M16 x 30 both ends``: once for each."""
    if not tokens:
        return []
    lows = _lows(tokens)
    both = next((n for n in range(len(lows) - 1) if lows[n] == "both" and lows[n + 1] == "ends"), None)
    lead = lows[0]
    if both is None or not (tokens[0].kind == "thread" or lead in ("thread", "centre", "center", "hole")):
        return [tokens]
    rest = [*tokens[:both], *tokens[both + 2 :]]
    if rest[0].kind == "thread":
        rest.insert(0, replace(rest[0], kind="word", text="thread"))
    return [rest, [*rest, replace(tokens[both + 1], text="back")]]


_Rule = Callable[[list[Token]], list[Token]]


def _kept(rule: _Rule) -> _Rule:
    """A rule that leaves a piece without words alone."""
    return lambda tokens: rule(tokens) if tokens else tokens


_RULES: tuple[_Rule, ...] = tuple(
    _kept(rule)
    for rule in (
        _left_hand, _length_letter, _hole_first, _side_first, _thread_inside, _thread_at_end, _polygon_first,
        _cross_first, _counted_first, _taper_word, _knurl_form, _square_edges,
    )
)  # fmt: skip
