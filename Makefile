# Everything a new machine needs is made from here: Python 3.11, Node 20, npm 11 and make suffice.
PYTHON ?= $(shell command -v python3.11 || command -v python3)
PORT ?= 8700
BIN := .venv/bin
# One worker a core, each keeping to its core; journeys two at a time, each worker with its own server.
CORE_TESTS := OMP_NUM_THREADS=1 $(BIN)/pytest --ignore=tests/browser -n auto
WEB_SOURCES := $(shell find web/src web/public web/index.html web/vite.config.ts -type f -not -name schema.d.ts)
# Compiled once and kept: half of the time a command takes to start.
unexport PYTHONDONTWRITEBYTECODE

.PHONY: help setup demo serve dev build test test-all test-fast lint format generate bench measure screenshots fuzz clean

help:
	@echo "make demo   set up and start the application with demo data"
	@echo "make test   set up and pass all tests"
	@echo "make test-all   the same, every simulation in full"
	@echo "also: setup, serve, dev, build, lint, format, generate, bench, measure, fuzz, screenshots, clean"

setup: .venv/.ready

.venv/.ready: requirements-dev.txt pyproject.toml
	$(PYTHON) -m venv .venv
	$(BIN)/python -m pip install --quiet --disable-pip-version-check uv==0.13.9
	$(BIN)/uv pip sync --quiet --require-hashes requirements-dev.txt
	$(BIN)/uv pip install --quiet --no-deps --no-build-isolation --editable .
	touch $@

web/node_modules/.ready: web/package.json web/package-lock.json web/.npmrc
	cd web && npm ci --silent
	touch $@

build: web/dist/index.html

# The client's types follow from the API's description; they are made, not kept.
web/src/api/schema.d.ts: docs/openapi.json web/node_modules/.ready
	cd web && npx openapi-typescript ../docs/openapi.json -o src/api/schema.d.ts >/dev/null

web/dist/index.html: web/node_modules/.ready web/src/api/schema.d.ts $(WEB_SOURCES)
	cd web && npm run --silent build -- --logLevel warn
	touch $@

demo: setup build
	$(BIN)/firm-footing demo --port $(PORT)

serve: setup build
	$(BIN)/firm-footing serve --port $(PORT)

# Two servers: the API with demo data on 8700, the screens with hot reload on the port Vite names.
dev: setup build
	$(BIN)/firm-footing demo --port 8700 & cd web && npm run --silent dev

test: setup build
	scripts/ensure_chromium.sh
	cd web && npm run --silent test
	$(CORE_TESTS)
	$(BIN)/pytest tests/browser -n 2 --dist worksteal

# The same with every simulation in full (`tests/sizes.py` says which are shorter in `make test`).
test-all:
	WHOLE_TESTS=1 $(MAKE) test

test-fast: setup
	$(CORE_TESTS)

lint: setup web/src/api/schema.d.ts
	$(BIN)/ruff check src tests scripts bench
	$(BIN)/ruff format --check src tests scripts bench
	$(BIN)/mypy
	$(BIN)/python scripts/check_defined_once.py
	cd web && npm run --silent types && npm run --silent lint
	scripts/check_generated.sh

format: setup web/src/api/schema.d.ts
	$(BIN)/ruff check --fix --quiet src tests scripts bench
	$(BIN)/ruff format --quiet src tests scripts bench
	cd web && npm run --silent format

# The case file's schema and the API's description follow from the code.
generate: setup
	$(BIN)/python scripts/generate_docs.py docs

bench: setup build
	scripts/ensure_chromium.sh
	$(BIN)/python -m bench

# How good the ranking is on simulated students; takes some minutes.
measure: setup
	$(BIN)/python -m bench.measure --seed 1 --students 2000

# Twenty thousand requests that nobody would send.
fuzz: setup
	$(BIN)/python -m tests.fuzzing --requests 20000

screenshots: setup build
	scripts/ensure_chromium.sh
	$(BIN)/python scripts/take_screenshots.py

clean:
	rm -rf .venv web/node_modules web/dist web/src/api/schema.d.ts
