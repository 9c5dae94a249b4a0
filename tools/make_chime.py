"""Make the sound of the timers: ``python tools/make_chime.py src/hardkeel/resources/chime.wav``.

Two struck wooden bars a fifth apart, each a fundamental with the fourth of its length's overtones, dying away.
"""

import sys
import wave

import numpy as np

_RATE = 22050
_BARS = ((0.0, 587.3), (0.22, 880.0))  # s, Hz
_LONG = 1.1


def main(path: str) -> None:
    """Write it there."""
    t = np.arange(int(_LONG * _RATE)) / _RATE
    sound = np.zeros_like(t)
    for begin, pitch in _BARS:
        since = np.clip(t - begin, 0, None)
        struck = np.exp(-6 * since) * np.sin(2 * np.pi * pitch * since)
        struck += 0.3 * np.exp(-14 * since) * np.sin(2 * np.pi * 3.93 * pitch * since)
        sound += np.where(t >= begin, struck, 0)
    fade = np.minimum(1, (t[-1] - t) / 0.05)
    samples = (0.55 * sound / np.abs(sound).max() * fade * 32767).astype("<i2")
    with wave.open(path, "wb") as file:
        file.setnchannels(1)
        file.setsampwidth(2)
        file.setframerate(_RATE)
        file.writeframes(samples.tobytes())


if __name__ == "__main__":
    main(sys.argv[1])
