PYTHON ?= python3.11
BIN := .venv/bin
SEED ?= 1

.PHONY: demo test bench fuzz shots clean

demo: .venv/ready
	$(BIN)/nomarium demo demo-school

test: demo
	$(BIN)/ruff check --quiet .
	$(BIN)/ruff format --check --quiet .
	$(BIN)/mypy
	$(BIN)/python -m pytest --numprocesses auto

bench: .venv/ready
	$(BIN)/python -m benchmarks
	$(BIN)/python -m benchmarks.engine
	$(BIN)/python -m benchmarks.district
	$(BIN)/python -m benchmarks.many

fuzz: .venv/ready
	PYTHONPATH=tests $(BIN)/python tests/fuzz.py 20000 $(SEED)

shots: .venv/ready
	sh docs/screenshots/take.sh

.venv/ready: pyproject.toml
	$(PYTHON) -m venv .venv
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --editable '.[dev]'
	touch $@

clean:
	rm -rf .venv demo-school build
