"""Shared fixtures.  Qt is told to stay off the screen before anything loads it."""

import os
from collections.abc import Iterator
from datetime import datetime, timedelta, timezone
from pathlib import Path

import pytest
from hypothesis import settings

from tests.draws import draws

# `make test` and CI take the same examples each time; `make soak` takes new ones.  Past failures stand
# as `@example` beside their test.  No deadline: a slow machine is no fault of the code.
settings.register_profile(
    "steady", derandomize=True, deadline=None, database=None, max_examples=draws(30, 100)
)
settings.register_profile("soak", deadline=None, print_blob=True)
settings.load_profile(os.environ.get("HARDKEEL_HYPOTHESIS", "steady"))

os.environ["QT_QPA_PLATFORM"] = "offscreen"
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    for item in items:
        if {"ui", "integration"} & set(Path(item.fspath).parts):
            item.add_marker(pytest.mark.ui)
        if getattr(getattr(item, "obj", None), "is_hypothesis_test", False):
            item.add_marker(pytest.mark.property)


class StepClock:
    """A clock that goes on by a minute each time it is asked."""

    def __init__(self) -> None:
        self.moment = datetime(2026, 10, 5, 20, 0, tzinfo=timezone(timedelta(hours=1)))

    def __call__(self) -> datetime:
        self.moment += timedelta(minutes=1)
        return self.moment


@pytest.fixture
def clock() -> StepClock:
    return StepClock()


@pytest.fixture(scope="session", autouse=True)
def _own_folders(tmp_path_factory: pytest.TempPathFactory) -> Iterator[None]:
    """Keep the tests away from the builder's own settings and journals."""
    home = tmp_path_factory.mktemp("home")
    with pytest.MonkeyPatch.context() as patch:
        for name in ("XDG_STATE_HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME"):
            patch.setenv(name, str(home / name))
        yield
