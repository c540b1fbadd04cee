"""What sheets cost against planning their job, and a chart of very many sizes against reading them from the file."""

import sqlite3
import tempfile
import time
from collections.abc import Callable
from datetime import datetime
from pathlib import Path

from toreuma.app.picture.chart import ChartData, RunChart
from toreuma.app.theme import load_theme
from toreuma.engine.engine import Engine
from toreuma.engine.logbook.book import Book, begin_run
from toreuma.engine.papers import document, dossier_of
from toreuma.engine.pdf_apart import pdf_apart
from toreuma.log import Measurement, open_store
from toreuma.shipped.library import demo_job

__all__ = ["charting", "printing"]

MANY = 100_000


def timed(work: Callable[[], object]) -> float:
    begun = time.perf_counter()
    work()
    return time.perf_counter() - begun


def printing() -> None:
    """All sheets of a demo job."""
    job = demo_job("spear")
    planned = timed(lambda: Engine().sides(job))
    dossier = dossier_of(Engine(), job, made_at=datetime(2026, 1, 1))
    page = ""

    def write() -> None:
        nonlocal page
        page = document(dossier)

    written, pdf = timed(write), timed(lambda: pdf_apart(page))
    print(f"sheets as HTML / planning the job: {written / planned:.1f}; as PDF: {pdf / planned:.1f} ({pdf:.2f} s)")


def charting() -> None:
    """A size measured very often: what is said of it and its chart, against the bare rows of the file."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "log.sqlite"
        store, engine = open_store(f"sqlite:///{path}"), Engine()
        run = begin_run(store, engine, demo_job("spear"), 1.0)
        values = (21.9695 + 0.003 * ((n * 7919) % 1000 / 1000 - 0.5) for n in range(MANY))
        store.add_many(
            run,
            [
                Measurement(part=n, size="outside 2 d", value=value, at=143.0 * n, gauge="g", uncertainty=0.001)
                for n, value in enumerate(values, 1)
            ],
        )
        book, chart = Book(store, run, engine), RunChart(load_theme("light"))
        chart.resize(900, 400)

        def show() -> None:
            found = book.size("outside 2 d")
            series = store.series(run, "outside 2 d")
            data = ChartData(parts=[one[0] for one in series], values=[one[2] for one in series], title="Ø 22")
            chart.show_data(data, "mm")
            chart.grab()
            assert found.fit is not None

        def bare() -> None:
            with sqlite3.connect(path) as connection:
                connection.execute("SELECT part, at, value FROM measurement ORDER BY part").fetchall()

        show()
        ours, rows = timed(show), timed(bare)
        store.close()
        size = sum(one.stat().st_size for one in Path(folder).iterdir()) / 1e6
        print(f"chart of {MANY:,} sizes / reading their rows: {ours / rows:.1f} ({ours:.2f} s); file {size:.0f} MB")
