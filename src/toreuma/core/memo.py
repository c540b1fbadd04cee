"""Results kept by the content of what they were made from."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from hashlib import blake2b
from typing import TypeVar, cast

from toreuma.core.geometry.region import Region

__all__ = ["Check", "Memo", "fingerprint", "never_cancel"]

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
    """Remembers the most recent results; asking with equal content gives the same result again."""

    def __init__(self, size: int = 4000) -> None:
        self._size = size
        self._kept: OrderedDict[_Key, object] = OrderedDict()
        self._seen: OrderedDict[int, tuple[Region, bytes]] = OrderedDict()
        self.hits = 0
        self.misses = 0

    def fingerprint(self, region: Region) -> bytes:
        """Content of a region as a short key, computed once for each object."""
        known = self._seen.get(id(region))
        if known is None:  # the region is kept with it, so that its identity is not given to another
            known = self._seen[id(region)] = region, blake2b(region.wkb, digest_size=20).digest()
            if len(self._seen) > self._size:
                self._seen.popitem(last=False)
        return known[1]

    def same(self, content: Hashable) -> object:
        """One object that stands for equal contents in other keys: compared and hashed in no time."""
        return self.get(("same", content), object)

    def get(self, key: Hashable, compute: Callable[[], T]) -> T:
        """The result kept under ``key``, or the result of ``compute``, kept from now on."""
        return self._get(_Key(key), compute)

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


def fingerprint(region: Region) -> bytes:
    """Content of a region as a key."""
    return bytes(region.wkb)
