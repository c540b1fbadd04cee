"""From planned moves to program text."""

from toreuma.core.post.writer import Posted, post

__all__ = ["Posted", "post"]
