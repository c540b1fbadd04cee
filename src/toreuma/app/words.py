"""Words of the window in the person's language: Qt's translation, looked up by the English words where they are shown.

English is what is written in the code. Another language is one file of Qt's kind, ``data/language/XX.ts``, compiled to
``XX.qm`` beside it with ``scripts/words``; what it lacks stays English.
"""

from PySide6.QtCore import QCoreApplication, QLocale, QTranslator

from toreuma.shipped.paths import data_path

__all__ = ["CONTEXT", "languages", "speak", "tr"]

CONTEXT = "toreuma"
_spoken: list[tuple[QTranslator, bytes]] = []
"""With what it was read of: Qt would read on in the file itself, which an update may change under it."""


def tr(text: str) -> str:
    """The text in the language that is spoken."""
    return QCoreApplication.translate(CONTEXT, text) if text else text


def languages() -> dict[str, str]:
    """Languages by their code, each as it calls itself."""
    found = {"en": "English"}
    for path in sorted(data_path("language").glob("*.qm")):
        found[path.stem] = QLocale(path.stem).nativeLanguageName().capitalize() or path.stem
    return found


def speak(code: str) -> str:
    """Speak a language from now on, in what is shown afresh; gives the one that is spoken, English where there is no
    such. An empty code asks the system."""
    while _spoken:
        QCoreApplication.removeTranslator(_spoken.pop()[0])
    code = code or QLocale.system().name()[:2]
    if code == "en" or code not in languages():
        return "en"
    translator, data = QTranslator(), data_path("language", f"{code}.qm").read_bytes()
    if not translator.load(data):
        return "en"
    QCoreApplication.installTranslator(translator)
    _spoken.append((translator, data))
    return code
