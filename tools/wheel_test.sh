#!/bin/sh
# Build the wheel, install it in a room of its own, and run the unit tests against that instead of src/.
set -eu
room=$(mktemp -d)
trap 'rm -rf "$room"' EXIT
.venv/bin/python -m pip wheel -q --no-deps --no-build-isolation -w "$room" .
python3 -m venv "$room/venv"
"$room/venv/bin/python" -m pip install -q --require-hashes -r requirements/dev.lock
"$room/venv/bin/python" -m pip install -q --no-deps "$room"/hardkeel-*.whl
"$room/venv/bin/hardkeel" --version
"$room/venv/bin/python" -m pytest -q -m "not ui" tests
