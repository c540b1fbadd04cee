"""Files and texts made wrong in the ways that were seen to hurt: cut, flipped, doubled, nested, with odd numbers."""

import json
import random
import re
from typing import Any

__all__ = ["ODD_NUMBERS", "ODD_TEXTS", "mutated", "mutated_json"]

ODD_NUMBERS: tuple[Any, ...] = (
    0, 0.0, -0.0, 1e-9, 0.001, 0.008, 0.08, 0.5, 1, 3, 15, 50, 400, 5000, 99999, -1, -0.01, -50, 1e9, -1e12, 1e300,
    True, None, "", "12", [], {}, "nan",
)  # fmt: skip
ODD_TEXTS = (
    "", " ", "\u202e", "<img src='/dev/zero'>", "<b>x", "&amp;", "a" * 5000, "\ud800", "\0", "../../etc/passwd", "%s%n",
    "{0}", "{x.__class__}", "☃", "é" * 200, "'; --", "\n\n", "((((", "1" * 400, "NaN", "-", "1e999", "Ø", "M12x",
)  # fmt: skip
NUMBER = re.compile(rb"-?\d+\.?\d*(?:[eE][-+]?\d+)?")
ODD_BYTES = (
    b"0", b"-1", b"0.0", b"1e300", b"1e-300", b"9" * 400, b"1." + b"9" * 3600, b"nan", b"inf", b"99999", b"0.0001",
    b"-99999", b"", b"1e999",
)  # fmt: skip


def mutated(data: bytes, chance: random.Random) -> bytes:
    """Bytes with a few things made wrong."""
    found = bytearray(data)
    for _ in range(chance.choice((1, 1, 1, 2, 5))):
        if not found:
            return bytes(found)
        at, length = chance.randrange(len(found)), chance.choice((1, 1, 4, 20, 306, 3000))
        how = chance.randrange(9)
        if how == 0:
            del found[at : at + length]
        elif how == 1:
            for _ in range(chance.choice((1, 5, 50))):
                found[chance.randrange(len(found))] = chance.randrange(256)
        elif how == 2:
            found[at:at] = found[at : at + length] * chance.choice((1, 2, 20))
        elif how == 3:
            del found[at:]
        elif how in (4, 5):
            numbers = list(NUMBER.finditer(bytes(found)))
            if numbers:
                one = chance.choice(numbers)
                found[one.start() : one.end()] = chance.choice(ODD_BYTES)
        elif how == 6:
            lines = bytes(found).split(b"\n")
            one, other = chance.randrange(len(lines)), chance.randrange(len(lines))
            lines[one], lines[other] = lines[other], lines[one]
            found = bytearray(b"\n".join(lines))
        elif how == 7:
            found[at:at] = chance.choice(ODD_TEXTS).encode("utf-8", "surrogatepass")
        else:
            found[at:at] = chance.choice((b"(", b"[", b"{", b"<", b'"', b"\0", b"\xff\xfe", b"#1=")) * length
    return bytes(found)


def mutated_json(data: Any, chance: random.Random) -> bytes:
    """JSON that still is JSON, with values, kinds and keys made wrong."""
    data = json.loads(json.dumps(data))
    for _ in range(chance.choice((1, 1, 2, 4))):
        holder, key = chance.choice(list(_places(data)) or [(None, None)])
        if holder is None:
            break
        how = chance.randrange(7)
        if how <= 2:
            holder[key] = chance.choice(ODD_NUMBERS)
        elif how == 3:
            holder[key] = chance.choice(ODD_TEXTS)
        elif how == 4 and isinstance(holder[key], int | float) and not isinstance(holder[key], bool):
            holder[key] = holder[key] * chance.choice((0.1, 0.5, 2, 10, -1))
        elif how == 5 and isinstance(holder, dict):
            del holder[key]
        elif isinstance(holder, list):
            holder.insert(chance.randrange(len(holder) + 1), holder[key])
        else:
            deep: Any = 1
            for _ in range(chance.choice((3, 100, 400))):
                deep = [deep]
            holder[f"x{chance.randrange(9)}"] = deep
    return json.dumps(data, ensure_ascii=chance.random() < 0.5).encode("utf-8", "surrogatepass")


def _places(data: Any) -> Any:
    inner = data.items() if isinstance(data, dict) else enumerate(data) if isinstance(data, list) else ()
    for key, value in inner:
        yield data, key
        yield from _places(value)
