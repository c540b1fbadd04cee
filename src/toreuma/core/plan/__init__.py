"""From operations to moves: one module per kind, each planning against the stock that is really there."""

from toreuma.core.plan.route import Plan, plan

__all__ = ["Plan", "plan"]
