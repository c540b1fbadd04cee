"""The open job and everything derived from it: what every view of the window looks at."""

from toreuma.app.session.results import Results
from toreuma.app.session.search import Search
from toreuma.app.session.selection import Selection
from toreuma.app.session.session import Session, solids_of

__all__ = ["Results", "Search", "Selection", "Session", "solids_of"]
