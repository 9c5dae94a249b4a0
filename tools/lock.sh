#!/bin/sh
# Write requirements/run.lock and dev.lock with hashes from pyproject.toml.  Needs pip-tools (pip install pip-tools).
set -eu
mkdir -p requirements
for kind in run dev; do
    extra=""
    [ "$kind" = dev ] && extra="--extra dev"
    # shellcheck disable=SC2086
    ${COMPILER:-pip-compile} -q --generate-hashes --strip-extras --allow-unsafe \
        --no-emit-index-url --no-emit-find-links --no-header \
        $extra -o "requirements/$kind.lock" pyproject.toml
done
