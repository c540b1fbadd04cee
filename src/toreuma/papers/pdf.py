"""Pages as PDF, and a PDF's pages as pictures. The libraries are loaded when the first page is made."""

from functools import cache
from typing import Any

from toreuma.core.errors import ToreumaError

__all__ = ["PageImage", "Pages", "pdf_of"]

PageImage = tuple[int, int, bytes]
"""Width and height in pixels, and rows of blue, green, red, unused."""


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


class Pages:
    """The pages of a PDF; ``sizes`` are their widths and heights in points."""

    def __init__(self, pdf: bytes) -> None:
        import pypdfium2

        self._document = pypdfium2.PdfDocument(pdf)
        self.sizes: tuple[tuple[float, float], ...] = tuple(
            self._document.get_page_size(number) for number in range(len(self._document))
        )

    def image(self, number: int, width_px: int) -> PageImage:
        """A page, counted from 0, so wide."""
        scale = width_px / self.sizes[number][0]
        bitmap = self._document[number].render(scale=scale, prefer_bgrx=True)
        stride, wide = bitmap.stride, 4 * bitmap.width
        data = bytes(bitmap.buffer)
        if stride != wide:
            data = b"".join(data[row * stride : row * stride + wide] for row in range(bitmap.height))
        return bitmap.width, bitmap.height, data

    def text(self, number: int) -> str:
        """The words of a page."""
        found: str = self._document[number].get_textpage().get_text_range()
        return found

    def letters(self, number: int) -> list[tuple[float, float, float, float]]:
        """Where every letter of a page stands: left, bottom, right, top in points."""
        page = self._document[number].get_textpage()
        boxes = (page.get_charbox(n) for n in range(page.count_chars()))
        return [box for box in boxes if box[2] > box[0]]

    def close(self) -> None:
        self._document.close()
