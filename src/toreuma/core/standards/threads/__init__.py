"""Threads: from a designation such as ``M10x1.5-6g`` to limits, depths, wires and the tap drill."""

from toreuma.core.standards.threads.basic import NO_LIMITS, BasicThread, basic_thread
from toreuma.core.standards.threads.designation import thread_of
from toreuma.core.standards.threads.tables import ThreadTables
from toreuma.core.standards.threads.thread import Limits, Side, Thread, Wires

__all__ = ["NO_LIMITS", "BasicThread", "Limits", "Side", "Thread", "ThreadTables", "Wires", "basic_thread", "thread_of"]
