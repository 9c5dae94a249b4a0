# Two commands for a fresh clone: `make demo` and `make test`.  The rest is for daily work.
VENV   := .venv
PY     := $(VENV)/bin/python
READY  := $(VENV)/.ready-dev
RUN    := $(VENV)/.ready-run

# two workers on two cores; a slow test is handed over while the other worker has time
PYTEST := $(PY) -m pytest -q -n auto --dist worksteal
MINUTES ?= 20

.PHONY: demo test lint types unit ui soak wreck wheel-test bench screenshots lock clean

demo: $(RUN)
	$(VENV)/bin/hardkeel demo

# Cheapest first, so that a slip is told in seconds.
test: $(READY)
	$(MAKE) --no-print-directory lint types unit ui

lint: $(READY)
	$(VENV)/bin/ruff format --check .
	$(VENV)/bin/ruff check .
	$(VENV)/bin/lint-imports

types: $(READY)
	$(VENV)/bin/mypy

unit: $(READY)
	$(PYTEST) -m "not ui"

ui: $(READY)
	$(PYTEST) -m ui

# Studies with their long draws, properties with new examples each round, then the wreckers: make soak MINUTES=60
soak: $(READY)
	$(PY) tools/soak.py $(MINUTES)
	$(MAKE) --no-print-directory wreck

# A monkey at the window, 500 kills, 5,000 spoiled files: finds are printed.
wreck: $(READY)
	$(PY) tools/monkey.py $(MINUTES)
	$(PY) tools/kill.py 500
	$(PY) tools/spoil.py 5000

# The same unit tests against the built wheel in a room of its own, so that a file left out of the package is noticed.
wheel-test: $(READY)
	sh tools/wheel_test.sh

bench: $(READY)
	$(PY) -m pytest tests/benchmarks -q --benchmark-only --benchmark-columns=min,median,max,rounds
	$(PY) tools/measure_start.py
	$(PY) tools/measure_window.py
	PYTHONPATH=. $(PY) tools/measure_settling.py
	PYTHONPATH=. $(PY) tools/measure_squaring.py
	PYTHONPATH=. $(PY) tools/measure_doubts.py
	PYTHONPATH=. $(PY) tools/measure_advice.py
	PYTHONPATH=. $(PY) tools/measure_sight.py
	$(PY) tools/measure_planning.py
	$(PY) tools/measure_nesting.py 3

screenshots: $(READY)
	QT_QPA_PLATFORM=offscreen $(PY) tools/screenshots.py docs/screenshots

lock:
	sh tools/lock.sh

clean:
	rm -rf $(VENV) dist .mypy_cache .ruff_cache .pytest_cache .hypothesis .benchmarks

$(RUN): requirements/run.lock pyproject.toml tools/setup.py
	python3 tools/setup.py run

$(READY): requirements/dev.lock pyproject.toml tools/setup.py
	python3 tools/setup.py dev
