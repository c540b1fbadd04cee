"""The solid kernel, loaded on first use: it is large and slow to import, and most jobs never need it."""

from functools import cache

__all__ = ["wake"]


@cache
def wake() -> None:
    """Load the kernel and stop it from printing."""
    from OCP.Message import Message

    messenger = Message.DefaultMessenger_s()
    for printer in list(messenger.Printers()):
        messenger.RemovePrinter(printer)
