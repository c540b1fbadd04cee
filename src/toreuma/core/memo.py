"""Results kept by the content of what they were made from."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from dataclasses import fields, is_dataclass
from enum import Enum
from hashlib import blake2b
from typing import TypeVar, cast

import numpy as np
from pydantic import BaseModel
from shapely.geometry.base import BaseGeometry

__all__ = ["Check", "Memo", "never_cancel"]

T = TypeVar("T")
Check = Callable[[], None]
"""Called between pieces of long work; raises `toreuma.core.errors.Cancelled` to stop it."""


def never_cancel() -> None:
    """The check for work that runs to its end."""


class _Key:
    """A key that is hashed once."""

    __slots__ = ("content", "hash")

    def __init__(self, content: Hashable) -> None:
        self.content = content
        self.hash = hash(content)

    def __hash__(self) -> int:
        return self.hash

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Key) and self.hash == other.hash and self.content == other.content


class Memo:
    """Remembers the most recent results; asking with equal content gives the same result again.

    It holds at most ``size`` results, and drops the one not asked for the longest. One thread uses it: nothing in it
    is locked. Values given to it are frozen: they are told apart by their content when they first come.
    """

    def __init__(self, size: int = 4000) -> None:
        self._size = size
        self._kept: OrderedDict[_Key, object] = OrderedDict()
        self._seen: OrderedDict[int, tuple[object, Hashable]] = OrderedDict()
        self.hits = 0
        self.misses = 0

    def of(self, function: Callable[..., T], *arguments: object) -> T:
        """``function(*arguments)``, computed once for equal arguments.

        The key is made from the very arguments the function is given, so it cannot leave one out. A function that sees
        more than its arguments (a lambda, a method, one made inside another) is refused with `TypeError`. A `Memo`
        among the arguments is handed on and is no part of the key.
        """
        if "<" in function.__qualname__ or getattr(function, "__self__", None) is not None:
            raise TypeError(f"{function.__qualname__} may see more than its arguments")
        key = _Key((function.__module__, function.__qualname__, *map(self.digest, arguments)))
        return self._get(key, lambda: function(*arguments))

    def clear(self) -> None:
        """Forget everything."""
        self._kept.clear()
        self._seen.clear()

    def get(self, key: Hashable, compute: Callable[[], T]) -> T:
        """The result kept under ``key``, or that of ``compute``, kept from now on: for what is no function of values,
        as reading on from where a reader stands."""
        return self._get(_Key(key), compute)

    def digest(self, value: object) -> Hashable:
        """The content of a value as a short key. Raises `TypeError` for what has no content of its own.

        Regions, arrays and compound values are looked through once for each object. A value class made with slots is
        small and hashable: it is its own key.
        """
        if value is None or isinstance(value, str | int | float | bytes | Enum):
            return value
        if isinstance(value, Memo):
            return Memo
        if isinstance(value, tuple | list):
            return (type(value), *map(self.digest, value))
        if is_dataclass(value) and "__slots__" in type(value).__dict__:
            return cast(Hashable, value)
        known = self._seen.get(id(value))
        if known is None:  # the value is kept with it, so that its identity is not given to another
            known = self._seen[id(value)] = value, self._content(value)
            if len(self._seen) > self._size:
                self._seen.popitem(last=False)
        return known[1]

    def _content(self, value: object) -> Hashable:
        if isinstance(value, BaseGeometry):
            return blake2b(value.wkb, digest_size=20).digest()
        if isinstance(value, np.ndarray):
            return value.shape, value.dtype.str, blake2b(value.tobytes(), digest_size=20).digest()
        if is_dataclass(value):
            parts = tuple(self.digest(getattr(value, one.name)) for one in fields(value))
            return self._same((type(value), parts))
        if isinstance(value, BaseModel):
            more = (value.__pydantic_extra__ or {}).items()
            parts = tuple(self.digest(one) for one in value.__dict__.values())
            return self._same((type(value), parts, tuple((name, repr(one)) for name, one in more)))
        if isinstance(value, dict):
            return (dict, *sorted((key, self.digest(one)) for key, one in value.items()))
        raise TypeError(f"{type(value).__name__} has no content to remember it by")

    def _same(self, content: Hashable) -> object:
        """One object that stands for equal contents in other keys: compared and hashed in no time."""
        return self._get(_Key(("same", content)), object)

    def _get(self, key: _Key, compute: Callable[[], T]) -> T:
        if key in self._kept:
            self.hits += 1
            self._kept.move_to_end(key)
            return cast(T, self._kept[key])
        self.misses += 1
        value = compute()
        self._kept[key] = value
        if len(self._kept) > self._size:
            self._kept.popitem(last=False)
        return value
