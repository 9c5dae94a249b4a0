"""OpenCV, loaded when it is first wanted; who needs it takes it from here."""

from typing import TYPE_CHECKING

from hardkeel.base.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

__all__ = ["cv2"]
