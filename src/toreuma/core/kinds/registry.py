"""What a kind declares, and the check that every kind of the model is declared once and whole."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, TypeVar, get_args

from toreuma.core.kinds.field import Field
from toreuma.core.units import System

__all__ = ["FeatureKind", "OperationKind", "ToolKind", "Word", "complete", "declared", "tags"]

K = TypeVar("K")


@dataclass(frozen=True, kw_only=True)
class OperationKind:
    """``tools`` are the kinds of tools it is made with, ``cuts`` the kinds of features it cuts, whose name for a person
    is ``names_what_it_cuts``; ``ranks`` say when each group of its steps is cut in a proposed route. One that is
    ``only_read`` comes out of a program and is never begun empty."""

    label: str
    fields: tuple[Field, ...]
    tools: tuple[str, ...]
    cuts: tuple[str, ...] = ()
    names_what_it_cuts: str = ""
    milled: bool = False
    ranks: Mapping[str, int] = field(default_factory=dict)
    only_read: bool = False


@dataclass(frozen=True)
class Word:
    """A piece of a callout; with a ``field`` it is a number that can be edited."""

    text: str
    field: str = ""


@dataclass(frozen=True, kw_only=True)
class FeatureKind:
    """``place`` is the field that says where it lies, with label and value of each choice; ``facts`` are its few sizes
    in words, given how to write a length; ``callout`` what a drawing writes of it; ``turned`` makes it the feature seen
    from the part's other end, given the back face. ``on_outside`` is what jaws cannot sit on: what it is called and its
    stretch along Z, (high, low), None where it does not lie on the outside. ``along`` adds to changes of some fields
    what a standard changes with them."""

    label: str
    fields: tuple[Field, ...]
    place: tuple[str, tuple[tuple[str, str], ...]] | None
    facts: Callable[[Any, Callable[[float], str]], str]
    callout: Callable[[Any, System], tuple[Word, ...]]
    turned: Callable[[Any, float], Any]
    milled: bool = False
    on_outside: Callable[[Any], tuple[str, float, float] | None] = lambda feature: None
    along: Callable[[Any, Mapping[str, Any]], dict[str, Any]] = lambda feature, changes: dict(changes)


@dataclass(frozen=True, kw_only=True)
class ToolKind:
    """``driven``: it may turn by itself."""

    label: str
    driven: bool = False


def tags(union: object) -> frozenset[str]:
    """The kinds of a union of the model."""
    members = get_args(get_args(union)[0])
    return frozenset(one.model_fields["kind"].default for one in members)


def complete(union: object, kinds: Mapping[str, K], what: str) -> dict[str, K]:
    """The kinds, all of the union and no other. Raises `LookupError` at import where one is missing or unknown."""
    missing, unknown = sorted(tags(union) - set(kinds)), sorted(set(kinds) - tags(union))
    if missing or unknown:
        raise LookupError(f"{what}: missing {', '.join(missing) or 'none'}; unknown {', '.join(unknown) or 'none'}")
    return dict(kinds)


def declared(union: object, **kinds: K) -> dict[str, K]:
    """Kinds by name, each once: a name given twice does not even compile."""
    return complete(union, kinds, "declared kinds")
