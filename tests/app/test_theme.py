"""Both themes can be read: contrast by WCAG 2.1, relative luminance of sRGB."""

import pytest
from PySide6.QtGui import QColor, QFontDatabase

from toreuma.app.shell.start import application
from toreuma.app.theme import load_theme
from toreuma.core.kinds.operations import OPERATIONS
from toreuma.shipped.library import theme_tokens
from toreuma.shipped.paths import data_path


def luminance(colour: QColor) -> float:
    parts = [c / 12.92 if c <= 0.03928 else ((c + 0.055) / 1.055) ** 2.4 for c in colour.getRgbF()[:3]]
    return 0.2126 * parts[0] + 0.7152 * parts[1] + 0.0722 * parts[2]


def contrast(a: QColor, b: QColor) -> float:
    high, low = sorted((luminance(a), luminance(b)), reverse=True)
    return (high + 0.05) / (low + 0.05)


@pytest.mark.parametrize("name", ["light", "dark"])
@pytest.mark.parametrize("ground", ["paper", "panel", "raised", "accent_soft"])
@pytest.mark.parametrize("ink", ["ink", "muted", "error", "warning", "ok", "accent"])
def test_words_stand_out_from_their_ground(name: str, ground: str, ink: str) -> None:
    theme = load_theme(name)
    assert contrast(theme.colour(ink), theme.colour(ground)) >= 4.5


@pytest.mark.parametrize("name", ["light", "dark"])
def test_buttons_can_be_read_and_load_darkens_or_lightens_steadily(name: str) -> None:
    theme = load_theme(name)
    assert contrast(theme.colour("on_accent"), theme.colour("accent")) >= 4.5
    tones = [luminance(theme.load_colour(share / 10)) for share in range(11)]
    assert tones[0] > tones[5] > tones[10] * 0.8
    assert theme.load_colour(1.2) == QColor(theme_tokens()[name]["beyond"])


def test_both_themes_have_the_same_tokens() -> None:
    tokens = theme_tokens()
    assert set(tokens["light"]) == set(tokens["dark"])


def test_fonts_and_icons_ship_with_it() -> None:
    application()
    assert {"B612", "B612 Mono"} <= set(QFontDatabase.families())
    assert data_path("fonts", "OFL.txt").exists()
    for kind in OPERATIONS:
        assert data_path("icons", f"{kind}.svg").exists()
