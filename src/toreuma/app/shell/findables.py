"""What can be found by a few letters: commands, operations, surfaces, features, tools."""

from collections.abc import Callable

from toreuma.app.session import Session
from toreuma.app.shell.actions import Actions
from toreuma.app.shell.finder import Findable
from toreuma.app.stages.part.panel import feature_line

__all__ = ["findables"]


def findables(session: Session, actions: Actions, turn: Callable[[str], None]) -> list[Findable]:
    """Everything that can be found now; ``turn`` shows a stage by its key."""

    def go(stage: str, **chosen: object) -> Callable[[], None]:
        def run() -> None:
            turn(stage)
            session.select(**chosen)  # type: ignore[arg-type]

        return run

    found = [
        Findable(one.words, "command", lambda name=one.name: actions.do(name), one.key)  # type: ignore[misc]
        for one in actions
        if one.name != "find" and one.when()
    ]
    job = session.job
    if job is None:
        return found
    found += [Findable(one.name, "operation", go("operations", operation=one.id)) for one in job.operations]
    for index, element in enumerate(job.part.outside):
        name = element.name or f"Element {index + 1}"
        found.append(Findable(name, "surface", go("part", element=index, side="outside")))
    for index, element in enumerate(job.part.inside):
        name = f"{element.name or f'Element {index + 1}'}, bore"
        found.append(Findable(name, "surface", go("part", element=index, side="inside")))
    for index, feature in enumerate(job.part.features):
        found.append(Findable(feature_line(feature, session.system), "feature", go("part", feature=index)))
    for tool in job.tools:
        users = [one.id for one in job.operations if tool.id in one.tools]
        if users:
            found.append(Findable(f"{tool.id} {tool.name}", "tool", go("operations", operation=users[0])))
    return found
