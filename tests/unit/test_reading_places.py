"""Where a reading is wrong is told by its place in the file, of the airframe's and of a frame's alike."""

import json

import pytest

from hardkeel.base.errors import BadInput
from hardkeel.demo import fleet
from hardkeel.demo.kettlewick import demo_build
from hardkeel.storage.format import build_from_text, text_of


def test_no_kind_stands_in_the_place() -> None:
    airframe = json.loads(text_of(demo_build()))
    airframe["survey"]["readings"][2]["value"] = "far"
    with pytest.raises(BadInput, match=r"^survey\.readings\[2\]\.value: "):
        build_from_text(json.dumps(airframe))
    frame = json.loads(text_of(fleet.sallow()))
    frame["fuselage"]["squaring"]["readings"][1]["value"] = "far"
    with pytest.raises(BadInput, match=r"^fuselage\.squaring\.readings\[1\]\.value: "):
        build_from_text(json.dumps(frame))
