"""Is a label cut off?  For every page at every text size."""

from PyQt6.QtWidgets import QLabel


def is_cut(label: QLabel) -> bool:
    """Whether a label has less room than its text wants, pixels."""
    if not label.text().strip():
        return False
    if label.wordWrap():
        return label.height() + 2 < label.heightForWidth(label.width())
    return (
        label.width() + 1 < label.sizeHint().width()
        or label.height() + 2 < label.sizeHint().height()
    )
