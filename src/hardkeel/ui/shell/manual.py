"""The manual in a window of its own beside the work: chapters, a search, and the text."""

from typing import Final

from PyQt6.QtCore import Qt, QUrl
from PyQt6.QtGui import (
    QImageReader,
    QResizeEvent,
    QTextCharFormat,
    QTextCursor,
    QTextDocument,
    QTextFormat,
)
from PyQt6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QTextBrowser,
    QVBoxLayout,
    QWidget,
)

from hardkeel.manual.book import CONTENTS, Chapter, chapter, chapters, folder, search
from hardkeel.messages import manual as say
from hardkeel.ui.theme import Theme, apply_style
from hardkeel.ui.widgets.card import label

_PLACE: Final = int(Qt.ItemDataRole.UserRole)
_LIST_PX: Final = 250
_SIDE_PX: Final = 26
_TEXT_PX: Final = 16
_PRINTED_PX: Final = 14
_OVER_HEADING, _UNDER, _UNDER_LINE = 16, 9, 4
_LEADING: Final = 118.0  # percent
_PICTURE: Final = "\ufffc"  # what stands for one in a text
_BY_SHARE: Final = 1  # a share of the letters' height, as Qt counts
_PICTURE_SHARE: Final = 0.94  # of the text's width


class ManualText(QTextBrowser):
    """Markdown of a chapter; pictures no wider than the text."""

    def show_chapter(self, text: str, theme: Theme) -> None:
        """Show one from its beginning."""
        document = self.document()
        if document is None:
            return
        self.setMarkdown(text)
        document.setDocumentMargin(theme.px(_SIDE_PX))
        _lay(document, theme)
        self.fit_pictures()
        self.moveCursor(QTextCursor.MoveOperation.Start)

    def fit_pictures(self) -> None:
        """Let no picture be wider than the text."""
        document, view = self.document(), self.viewport()
        if document is None or view is None:
            return
        room = _PICTURE_SHARE * (view.width() - 2 * document.documentMargin())
        block = document.begin()
        while block.isValid():
            pieces = block.begin()
            while not pieces.atEnd():
                fragment = pieces.fragment()
                image = fragment.charFormat().toImageFormat()
                if image.isValid() and image.name():
                    size = QImageReader(str(folder() / image.name())).size()
                    if size.isEmpty():
                        break
                    image.setWidth(room)
                    image.setHeight(room * size.height() / size.width())
                    cursor = QTextCursor(document)
                    cursor.setPosition(fragment.position())
                    cursor.setPosition(
                        fragment.position() + fragment.length(), QTextCursor.MoveMode.KeepAnchor
                    )
                    cursor.setCharFormat(image)
                    break
                pieces += 1
            block = block.next()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Pictures go with the text's width."""
        super().resizeEvent(event)
        self.fit_pictures()

    def turn_to_heading(self, heading: str) -> bool:
        """Put a heading at the top; whether there is such a one."""
        document, bar = self.document(), self.verticalScrollBar()
        layout = document.documentLayout() if document is not None else None
        if document is None or layout is None or bar is None:
            return False
        block = document.begin()
        while block.isValid():
            if block.blockFormat().headingLevel() and block.text() == heading:
                self._leave_room_below(document)
                bar.setValue(int(layout.blockBoundingRect(block).top()) - 8)
                return True
            block = block.next()
        return False

    def _leave_room_below(self, document: QTextDocument) -> None:
        """So much that the last heading can stand at the top, too."""
        root, view = document.rootFrame(), self.viewport()
        if root is not None and view is not None:
            shape = root.frameFormat()
            shape.setBottomMargin(view.height())
            root.setFrameFormat(shape)


def _lay(document: QTextDocument, theme: Theme) -> None:
    """Give paragraphs and headings their room, and what a command prints a size that fits."""
    block = document.begin()
    while block.isValid():
        cursor, shape = QTextCursor(block), block.blockFormat()
        printed = shape.hasProperty(QTextFormat.Property.BlockCodeFence)
        if cursor.currentTable() is None and not printed:
            level = shape.headingLevel()
            shape.setTopMargin(theme.px(_OVER_HEADING if level > 1 else 0))
            shape.setBottomMargin(theme.px(_UNDER_LINE if level or block.textList() else _UNDER))
            if block.text() != _PICTURE:
                shape.setLineHeight(_LEADING, _BY_SHARE)
            cursor.setBlockFormat(shape)
        if printed:
            shape.setNonBreakableLines(False)
            cursor.setBlockFormat(shape)
            cursor.select(QTextCursor.SelectionType.BlockUnderCursor)
            letters = QTextCharFormat()
            letters.setFont(theme.font(_PRINTED_PX))
            letters.setFontFixedPitch(True)
            cursor.mergeCharFormat(letters)
        block = block.next()


class ManualDialog(QDialog):
    """Chapters on the left, what a word is found in in their place, the text on the right."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(say.MANUAL)
        self.setWindowFlag(Qt.WindowType.Window)
        self._theme = theme
        self.now = CONTENTS
        self._before: list[str] = []
        self.line = QLineEdit()
        self.line.setPlaceholderText(say.LOOK_FOR)
        self.line.setAccessibleName(say.LOOK_FOR)
        self.line.setClearButtonEnabled(True)
        self.list = QListWidget()
        self.list.setAccessibleName(say.CHAPTERS)
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.none = label("soft", say.NOTHING_FOUND)
        self.back = QPushButton(say.BACK)
        self.back.setShortcut("Alt+Left")
        self.back.setAutoDefault(False)  # Enter is the line's
        self.text = ManualText()
        self.text.setOpenLinks(False)
        self.text.setSearchPaths([str(folder())])
        self.text.setAccessibleName(say.MANUAL)
        self.text.setObjectName("manual")
        size = f"font-size: {theme.px(_TEXT_PX)}px"
        paper, ink = (theme.colour(one).name() for one in ("paper", "ink"))
        self.text.setStyleSheet(
            f"#manual {{ {size}; background: {paper}; color: {ink}; border: none }}"
        )
        self._lay_out()
        self.line.textChanged.connect(lambda _text: self._list())
        self.line.returnPressed.connect(self._take_first)
        self.list.itemActivated.connect(self._on_item)
        self.list.itemClicked.connect(self._on_item)
        self.back.clicked.connect(self.go_back)
        self.text.anchorClicked.connect(self._on_link)
        self.resize(theme.px(1000), theme.px(700))
        self._list()
        self.turn_to(CONTENTS)
        apply_style(self)

    def _lay_out(self) -> None:
        left = QVBoxLayout()
        left.addWidget(self.line)
        left.addWidget(self.none)
        left.addWidget(self.list, 1)
        left.addWidget(self.back)
        side = QWidget()
        side.setLayout(left)
        side.setFixedWidth(self._theme.px(_LIST_PX))
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 10, 0, 0)
        row.addWidget(side)
        row.addWidget(self.text, 1)

    def turn_to(self, chapter_id: str, heading: str = "") -> None:
        """Show a chapter, at a heading where it has it."""
        found = chapter(chapter_id)
        if found.id != self.now:
            self._before.append(self.now)
        self._show(found, heading)

    def go_back(self) -> None:
        """The chapter that was read before."""
        if self._before:
            self._show(chapter(self._before.pop()))

    def _show(self, found: Chapter, heading: str = "") -> None:
        self.now = found.id
        self.back.setEnabled(bool(self._before))
        self.text.show_chapter(found.text, self._theme)
        if heading:
            self.text.turn_to_heading(heading)
        if not self.line.text():
            ids = [one.id for one in chapters()]
            self.list.setCurrentRow(ids.index(found.id))

    def _list(self) -> None:
        words = self.line.text()
        self.list.clear()
        rows = (
            [
                (say.find_words(chapter(one.chapter).title, one.heading, one.around), one.chapter, one.heading)
                for one in search(words)
            ]
            if words.strip()
            else [(one.title, one.id, "") for one in chapters()]
        )  # fmt: skip
        for text, chapter_id, heading in rows:
            item = QListWidgetItem(text)
            item.setData(_PLACE, (chapter_id, heading))
            self.list.addItem(item)
        self.none.setVisible(not rows)
        self.list.setAccessibleName(say.FINDS if words.strip() else say.CHAPTERS)

    def _take_first(self) -> None:
        item = self.list.item(max(0, self.list.currentRow()))
        if item is not None:
            self._on_item(item)

    def _on_item(self, item: QListWidgetItem) -> None:
        chapter_id, heading = item.data(_PLACE)
        self.turn_to(chapter_id, heading)

    def _on_link(self, url: QUrl) -> None:
        name, _, heading = url.toString().partition("#")
        if name.endswith(".md"):
            self.turn_to(name.removesuffix(".md"), heading.replace("-", " "))
