#!/bin/sh
# Set up .venv for running (run) or for developing (dev), and the system libraries that Qt needs.
set -eu
what=${1:-run}
venv=.venv
qt_libs="libxcb-cursor0 libxcb-icccm4 libxcb-image0 libxcb-keysyms1 libxcb-randr0 libxcb-render-util0 libxcb-shape0 libxcb-xinerama0 libxcb-xkb1 libxkbcommon-x11-0 libegl1 libgl1 libdbus-1-3 libfontconfig1"
[ "$what" = dev ] && qt_libs="$qt_libs xvfb"

as_root() {
    if [ "$(id -u)" = 0 ]; then "$@"
    elif command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then sudo -n "$@"
    else return 1; fi
}

missing() {
    for name in "$@"; do
        dpkg-query -W -f='${db:Status-Abbrev}\n' "$name" 2>/dev/null | grep -q '^ii' || printf '%s ' "$name"
    done
}

install() {
    [ -n "$1" ] || return 0
    # shellcheck disable=SC2086
    if ! { as_root apt-get -qq update && as_root env DEBIAN_FRONTEND=noninteractive apt-get -qq install -y --no-install-recommends $1; } >/dev/null 2>&1; then
        echo "hardkeel: please install these system packages by hand, then try again: $1" >&2
    fi
}

if command -v dpkg-query >/dev/null 2>&1 && command -v apt-get >/dev/null 2>&1; then
    install "$(missing $qt_libs)"
    if ! python3 -c 'import ensurepip' 2>/dev/null; then install python3-venv; fi
else
    echo "hardkeel: not a Debian-like system; Qt needs these libraries (Debian names): $qt_libs" >&2
fi

python3 - <<'PY' || exit 1
import sys
if sys.version_info < (3, 11):
    sys.exit("hardkeel: needs Python 3.11 or newer; python3 here is %d.%d" % sys.version_info[:2])
PY
[ -x "$venv/bin/python" ] || python3 -m venv "$venv"
export PIP_DISABLE_PIP_VERSION_CHECK=1
"$venv/bin/python" -m pip install -q --require-hashes -r "requirements/$what.lock"
if [ "$what" = dev ]; then
    "$venv/bin/python" -m pip install -q --no-deps --no-build-isolation -e .
    touch "$venv/.ready-dev" "$venv/.ready-run"
else
    # the run set-up brings no build tools; pip fetches the one pinned back end for this step
    [ -e "$venv/.ready-dev" ] || "$venv/bin/python" -m pip install -q --no-deps -e .
    touch "$venv/.ready-run"
fi
