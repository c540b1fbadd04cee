"""The job: everything the person decided, as one value."""

from collections import Counter
from collections.abc import Callable
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from toreuma.core.model.carrier import SpindleName
from toreuma.core.model.conditions import Conditions
from toreuma.core.model.hold import Centre, Hold, SecondHold
from toreuma.core.model.machine import Machine
from toreuma.core.model.material import Material
from toreuma.core.model.operation import Operation
from toreuma.core.model.part import Part
from toreuma.core.model.rest import Rest
from toreuma.core.model.stock import Stock
from toreuma.core.model.tool import Tool
from toreuma.core.model.transfer import HandOver, TurnRound
from toreuma.core.model.trial import Trial
from toreuma.core.value import Identifier, Name, Value

__all__ = ["FORMAT_VERSION", "Followed", "HandChange", "Job", "ProgramOptions", "Setup"]

FORMAT_VERSION = 1

Followed = Literal["blank", "hold", "stick_out", "second_hold"]


class HandChange(Value):
    """One stretch of the program as a person wrote it, in place of what the plan wrote there then.

    ``operation`` is the operation's id, empty for what stands before the first one; texts have no block numbers.
    """

    setup: Name = ""
    operation: str = Field(default="", max_length=40)
    was: str = Field(max_length=2_000_000)
    now: str = Field(max_length=2_000_000)


class ProgramOptions(Value):
    """How the program is written."""

    dialect: Identifier = "system-a"
    arcs: Literal["R", "IK"] = "R"
    number: int = Field(default=1001, ge=1, le=999999)
    parts: int = Field(default=1, ge=1, le=9999, description="Made in one run, one after the other from the bar")
    numbering: Literal["as usual", "none"] = Field(
        default="as usual", description="Block numbers; contours keep theirs"
    )
    long_hand: bool = Field(default=False, description="Every move is written, no cycle of the control")
    by_hand: tuple[HandChange, ...] = Field(default=(), max_length=1000, description="Stretches changed by hand")


class Setup(Value):
    """One holding of the blank and what is cut in it; ``spindle`` is where it is held."""

    name: Name = ""
    spindle: SpindleName = "main"
    hold: Hold
    centre: Centre | None = None
    rest: Rest | None = Field(default=None, description="What carries it between its ends")
    operations: tuple[Operation, ...] = Field(default=(), max_length=1000)
    stations: tuple[tuple[str, Annotated[int, Field(ge=1, le=999)]], ...] = Field(
        default=(), max_length=500,
        description="Tools and their stations, where the machine is set up anew for this hold; empty: as in the job",
    )  # fmt: skip


class Job(Value):
    """A part, its blank, a machine, the tools in it and the route."""

    version: Literal[1] = Field(default=1, description="Format of this file")
    name: Name
    number: Name = Field(default="", description="The shop's own number of this job")
    revision: Name = Field(default="", description="Of the drawing, or of the job as the shop counts it")
    units: Literal["mm", "inch"] = Field(default="mm", description="What the person reads; stored values are mm")
    part: Part
    stock: Stock
    machine: Machine
    tools: tuple[Tool, ...] = Field(default=(), max_length=500)
    setups: tuple[Setup, ...] = Field(min_length=1, max_length=2)
    second_hold: SecondHold | None = Field(default=None, description="What the second side will be held by")
    hand_over: HandOver | None = Field(default=None, description="How a second spindle takes the part over")
    turn_round: TurnRound | None = Field(default=None, description="How it is turned round by hand; empty: as usual")
    program: ProgramOptions = ProgramOptions()
    follows: tuple[Followed, ...] = Field(
        default=(), max_length=8, description="What is proposed from the part and follows it until the person sets it"
    )
    prove_out: Material | None = Field(default=None, description="A softer material for the first piece")
    conditions: Conditions = Conditions()
    trials: tuple[Trial, ...] = Field(default=(), max_length=2000, description="What was seen of tools tried")

    @model_validator(mode="after")
    def _names_are_unique(self) -> Self:
        for label, names in (
            ("tools share the id", [tool.id for tool in self.tools]),
            *(("operations share the id", [op.id for op in setup.operations]) for setup in self.setups),
        ):
            twice = [name for name, count in Counter(names).items() if count > 1]
            if twice:
                raise ValueError(f"two {label} '{twice[0]}'")
        return self

    @property
    def setup(self) -> Setup:
        return self.setups[0]

    @property
    def operations(self) -> tuple[Operation, ...]:
        return self.setup.operations

    @property
    def second_runout_um(self) -> float:
        """How far the second hold may run out, as it is checked when the part is turned round."""
        return (self.turn_round or TurnRound()).runout_um

    @property
    def is_pair(self) -> bool:
        """Two parts back to back are made from one blank."""
        return self.stock.supply.back_to_back

    def tool(self, tool_id: str) -> Tool | None:
        return next((tool for tool in self.tools if tool.id == tool_id), None)

    def operation(self, operation_id: str) -> Operation | None:
        return next((op for op in self.operations if op.id == operation_id), None)

    def free_operation_id(self) -> str:
        """An operation id that is not taken."""
        taken = {operation.id for operation in self.operations}
        return next(name for name in (f"op{n}" for n in range(1, 10_000)) if name not in taken)

    def with_setup(self, **changes: object) -> "Job":
        return self.changed(setups=(self.setup.changed(**changes), *self.setups[1:]))

    def with_operation(self, operation_id: str, change: Callable[[Operation], Operation]) -> "Job":
        """The job with one operation replaced by ``change(operation)``."""
        return self.with_setup(operations=tuple(change(op) if op.id == operation_id else op for op in self.operations))
