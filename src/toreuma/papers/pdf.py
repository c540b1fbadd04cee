"""Pages as PDF, and a PDF's pages as pictures. The libraries are loaded when the first page is made."""

from functools import cache
from typing import Any

from toreuma.core.errors import ToreumaError

__all__ = ["PageImage", "page_images", "pdf_of"]

PageImage = tuple[int, int, bytes]
"""Width and height in pixels, and rows of red, green, blue, unused."""

POINTS_PER_INCH = 72.0


def pdf_of(page: str) -> bytes:
    """The PDF of a document; nothing is fetched for it. Raises `ToreumaError` where its library cannot be loaded."""
    maker = _maker()
    fetcher = maker.urls.URLFetcher(allowed_protocols=("data",))  # only what stands in the document itself is read
    found: bytes = maker.HTML(string=page, url_fetcher=fetcher).write_pdf()
    return found


@cache
def _maker() -> Any:
    try:
        import weasyprint
    except (ImportError, OSError) as error:
        what = f"the library that makes PDF cannot be loaded ({error})"
        raise ToreumaError("papers", what, "install libpango-1.0-0 and libpangoft2-1.0-0, or take HTML") from None
    return weasyprint


def page_images(pdf: bytes, dots_per_inch: float, pages: range | None = None) -> list[PageImage]:
    """Pages of a PDF as pictures."""
    import pypdfium2

    document = pypdfium2.PdfDocument(pdf)
    try:
        wanted = range(len(document)) if pages is None else pages
        found = []
        for number in wanted:
            bitmap = document[number].render(
                scale=dots_per_inch / POINTS_PER_INCH, rev_byteorder=False, prefer_bgrx=True
            )
            found.append((bitmap.width, bitmap.height, bytes(bitmap.buffer)))
        return found
    finally:
        document.close()
