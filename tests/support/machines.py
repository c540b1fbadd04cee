"""Machines with other carriers."""

from toreuma.core.model import Machine


def with_carrier(machine: Machine, **changes: object) -> Machine:
    """The machine with its first carrier changed."""
    first, *others = machine.carriers
    return machine.changed(carriers=(first.changed(**changes), *others))
