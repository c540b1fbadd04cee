"""Sheets say what the plan says: no number of their own, the state of the proof, every size of the drawing."""

import json
import re
from datetime import datetime

import pytest

from tests.support.long import everyday
from tests.support.papers import dossier, known_numbers, strange_numbers, words_of
from toreuma.core.errors import JobError
from toreuma.core.model import Job
from toreuma.core.model.identity import code_words, fingerprint, job_id
from toreuma.engine.engine import Engine
from toreuma.engine.papers import chosen_sheets, document, dossier_of, paper_size
from toreuma.engine.pdf_apart import pdf_apart
from toreuma.papers.html import sheets_of
from toreuma.papers.pdf import Pages
from toreuma.papers.sheets import SHEETS, TITLES
from toreuma.papers.square_code import square_code
from toreuma.shipped.library import demo_job, demo_names

POINT_MM = 25.4 / 72


@pytest.mark.parametrize("name", everyday(demo_names(), "spear", "vane-stud"))
def test_no_number_on_paper_that_the_plan_does_not_have(name: str) -> None:
    job = demo_job(name)
    for system in ("mm", "inch"):
        found = dossier(job, system=system)
        known = known_numbers(found)
        for sheet in sheets_of(found):
            for words in words_of(sheet):
                words = words.replace(f"{found.made_at:%Y-%m-%d %H:%M}", "")
                assert not strange_numbers(words, known, system), f"{system}, {sheet.title}: {words}"


def test_a_number_of_nobodys_is_seen(spear: Job) -> None:
    known = known_numbers(dossier(spear))
    assert strange_numbers("stick-out 93.7 mm", known, "mm") == ["93.7"]
    assert strange_numbers("n 1 437 rpm", known, "mm")
    assert strange_numbers("runs 7:43 min", known, "mm") == [":7:43"]


@pytest.mark.parametrize("name", everyday(demo_names(), "spear"))
def test_every_size_thread_and_mark_of_the_drawing_has_a_line_to_fill_in(name: str) -> None:
    job = demo_job(name)
    (sheet,) = SHEETS["inspection"](dossier(job))
    text = " ".join(words_of(sheet))
    for element in (*job.part.outside, *job.part.inside):
        if element.size is not None and not _crest(job, element.d_mm):
            low = element.d_mm + element.size.lower_um / 1000
            assert (f"{low:.3f}" if job.units == "mm" else f"{low / 25.4:.4f}") in text
        if element.ra_um is not None:
            assert "Ra on" in text
    for feature in job.part.features:
        for designation in (getattr(feature, "designation", ""), getattr(feature, "thread", "")):
            assert designation in text
    rows = next(block for block in sheet.blocks if getattr(block, "form", "") == "table").rows
    assert all(sum(cell.box for cell in row) == 3 for row in rows)


def _crest(job: Job, d_mm: float) -> bool:
    return any(f.kind == "thread" and f"{d_mm:g}" in f.designation for f in job.part.features)


def test_a_job_that_is_not_finished_is_unproved_across_every_page(spear: Job) -> None:
    short = spear.with_setup(operations=spear.operations[:-1])
    found = dossier_of(Engine(), short, made_at=datetime(2026, 11, 29), system="mm")
    assert found.verdict is not None
    assert not found.proved
    page = document(found)
    assert page.count("UNPROVED") == page.count('<section class="sheet"')
    assert f"Proof: <b>{found.verdict.state}</b>" in page
    assert "UNPROVED" not in document(dossier(spear))


def test_a_proof_nobody_asked_for_is_not_claimed(spear: Job) -> None:
    found = dossier_of(Engine(), spear, made_at=datetime(2026, 11, 29), prove=False)
    assert "Proof: <b>not proved</b>" in document(found)
    assert "UNPROVED" in document(found)


def test_the_setup_sheet_tells_the_hold_the_datum_and_the_clamps(spear: Job) -> None:
    found = dossier(spear)
    (sheet,) = SHEETS["setup"](found)
    text = "\n".join(words_of(sheet))
    hold, scene = spear.setup.hold, found.sides[0].scene
    for words in (hold.name, f"{hold.stick_out_mm:g} mm", spear.stock.material.name, spear.machine.name):
        assert words in text
    assert f"{-scene.jaw_face_z:g} mm" in text
    for planned in found.sides[0].operations:
        if planned.figures.clamp_rpm is not None:
            assert f"{planned.figures.clamp_rpm:,.0f} rpm".replace(",", "\u2009") in text
    assert found.programs[0].name in text
    assert found.programs[0].fingerprint in text


def test_sides_have_sheets_of_their_own_and_the_turn_between_them() -> None:
    found = dossier(demo_job("seat-ring"))
    sheets = SHEETS["setup"](found)
    assert [sheet.of.split(",")[0] for sheet in sheets] == ["side 1 of 2", "side 2 of 2"]
    assert found.by_hand is not None
    assert all(act.words in "\n".join(words_of(sheets[1])) for act in found.by_hand.channels[1])


def test_edges_for_the_batch_follow_life_and_corners(spear: Job) -> None:
    batch = spear.changed(stock=spear.stock.changed(supply=spear.stock.supply.changed(batch=85)))
    found = dossier(batch)
    for use in found.edges:
        share = sum(
            one.times.cutting_s / 60 / one.figures.life_min
            for one in found.sides[0].operations
            if one.operation.tool == use.tool.id and one.figures.life_min
        )
        if not share:
            assert use.edges is None
            continue
        assert use.parts_per_edge == int(1 / share)
        assert (use.edges - 1) * use.parts_per_edge < 85 <= use.edges * use.parts_per_edge
        each = use.tool.insert.edges if use.tool.kind in ("turning", "boring") else 1
        assert use.inserts == -(-use.edges // each)


def test_the_square_code_says_job_and_revision(spear: Job) -> None:
    known = spear.changed(number="W-1207", revision="C")
    assert code_words(known) == f"toreuma:W-1207:C:{fingerprint(known)}"
    assert job_id(spear) == "Regulating-spear"
    assert fingerprint(known) != fingerprint(spear)
    svg = square_code(code_words(known))
    assert svg.startswith("<svg")
    assert svg != square_code(code_words(spear))


def test_names_of_others_are_words_and_nothing_else(spear: Job) -> None:
    odd = spear.changed(name='<script>alert("1")</script> {{ 7 * 7 }} \\', revision="</style>")
    page = document(dossier_of(Engine(), odd, made_at=datetime(2026, 11, 29), prove=False))
    assert "<script>" not in page
    assert "{{ 7 * 7 }}" in page
    assert page.count("</style>") == 1


class TestPages:
    """The PDF, looked at from outside."""

    @pytest.mark.parametrize("paper", everyday(["A4", "Letter"], "A4"))
    def test_every_word_lies_on_the_page_and_every_page_is_numbered(self, spear: Job, paper: str) -> None:
        found = dossier(spear.changed(revision="B"))
        pages = Pages(pdf_apart(document(found, paper=paper_size(paper))))
        wanted = (210 / POINT_MM, 297 / POINT_MM) if paper == "A4" else (612.0, 792.0)
        count = len(pages.sizes)
        for number, size in enumerate(pages.sizes):
            assert size == pytest.approx(wanted, abs=0.5)
            words = pages.text(number)
            assert f"page {number + 1} of {count}" in words
            assert f"revision B / {fingerprint(found.job)}" in words
            _all_on_paper(pages, number, size)
        titles = {title for title in TITLES.values() for n in range(count) if pages.text(n).startswith(title)}
        assert titles == set(TITLES.values())
        pages.close()

    @pytest.mark.long
    @pytest.mark.parametrize("name", demo_names())
    def test_no_demo_job_writes_past_its_pages(self, name: str) -> None:
        pages = Pages(pdf_apart(document(dossier(demo_job(name)))))
        for number, size in enumerate(pages.sizes):
            _all_on_paper(pages, number, size)
        pages.close()

    def test_only_what_was_chosen_is_set(self, spear: Job) -> None:
        page = document(dossier(spear), chosen_sheets("tools, run"))
        assert re.findall(r'<section class="sheet" id="(\w+)-', page) == ["tools", "run"]
        with pytest.raises(JobError, match="no sheet 'plan'"):
            chosen_sheets("plan")
        with pytest.raises(JobError, match="no paper"):
            paper_size("A7")


def _all_on_paper(pages: Pages, number: int, size: tuple[float, float]) -> None:
    """No letter stands outside the margins the page has."""
    boxes = pages.letters(number)
    assert boxes
    assert min(box[0] for box in boxes) > 8 / POINT_MM * 0.99
    assert max(box[2] for box in boxes) < size[0] - 8 / POINT_MM * 0.99
    assert min(box[1] for box in boxes) > 3 / POINT_MM
    assert max(box[3] for box in boxes) < size[1] - 3 / POINT_MM


def test_json_of_a_job_keeps_number_and_revision(spear: Job) -> None:
    known = spear.changed(number="12", revision="A")
    assert Job.model_validate(json.loads(known.model_dump_json())) == known


def test_a_document_needs_nothing_from_elsewhere(spear: Job) -> None:
    found = dossier(spear)
    page = document(found)
    links = re.findall(r"(?:href=|src=|url\()[\"']?([^\"')\s]{1,60})", page)
    assert links
    assert [link for link in links if not link.startswith("data:")] == []
