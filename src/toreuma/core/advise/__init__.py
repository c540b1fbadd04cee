"""Which tool for which surface: what is still to be cut, ranked candidates, and the reason beside each."""

from toreuma.core.advise.advice import Advice, advise
from toreuma.core.advise.candidate import Candidate
from toreuma.core.advise.compare import Comparison, compare
from toreuma.core.advise.reach_view import ReachView, reach_view
from toreuma.core.advise.wishes import Wish, wishes

__all__ = ["Advice", "Candidate", "Comparison", "ReachView", "Wish", "advise", "compare", "reach_view", "wishes"]
