"""The shop's schools of practice, put into what is proposed."""

from toreuma.core.model import CutThread, HouseRules, Job

__all__ = ["by_house_rules"]


def by_house_rules(job: Job, rules: HouseRules) -> Job:
    """A proposed route with threads infed, divided and sprung as the house does it."""
    wanted = {"infeed": rules.thread_infeed, "division": rules.thread_division, "spring_passes": rules.spring_passes}
    setups = []
    for setup in job.setups:
        operations = tuple(
            one.changed(**wanted) if isinstance(one, CutThread) and one.division != "typed" else one
            for one in setup.operations
        )
        setups.append(setup.changed(operations=operations))
    return job.changed(setups=tuple(setups))
