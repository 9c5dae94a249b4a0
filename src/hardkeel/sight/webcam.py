"""A webcam as a camera: which there are, and one picture as a file of a camera's would be.

It tells no focal length, and few have more than two million pixels: it wants larger targets than a telephone does.
"""

from pathlib import Path
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.sight.opencv import cv2

_DEVICES: Final = Path("/sys/class/video4linux")  # where the kernel names them
_LARGEST: Final = (4096, 2160)  # asked for: it gives what it has
_SETTLING: Final = 12  # pictures until light and sharpness are found
_QUALITY: Final = 95


def webcams(devices: Path = _DEVICES) -> dict[str, str]:
    """What they are called, by the path of their device; of two of one device the first, which gives the pictures."""
    found: dict[str, str] = {}
    for one in sorted(devices.glob("video*"), key=lambda one: (len(one.name), one.name)):
        try:
            first = (one / "index").read_text().strip() in ("", "0")
            name = (one / "name").read_text().strip()
        except OSError:  # it was pulled just now
            continue
        if first:
            found[f"/dev/{one.name}"] = name or one.name
    return found


def picture_from(device: str) -> bytes:
    """One picture, as JPEG.

    Raises
    ------
    BadInput
        When the device can't be opened or gives none.
    """
    camera = cv2.VideoCapture(device)
    try:
        if not camera.isOpened():
            raise BadInput(
                "webcam",
                f"{device} can't be opened: is it plugged in, does another program use it?",
            )
        camera.set(cv2.CAP_PROP_FRAME_WIDTH, _LARGEST[0])
        camera.set(cv2.CAP_PROP_FRAME_HEIGHT, _LARGEST[1])
        last = None
        for _ in range(_SETTLING):
            good, frame = camera.read()
            if not good:
                break
            last = frame
    finally:
        camera.release()
    if last is None:
        raise BadInput("webcam", f"{device} gives no picture")
    good, data = cv2.imencode(".jpg", last, [cv2.IMWRITE_JPEG_QUALITY, _QUALITY])
    if not good:
        raise BadInput("webcam", f"{device} gives no picture that can be kept")
    return data.tobytes()
