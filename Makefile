# Each target does the set-up it needs, says what it is doing, and is quick the second time.
SHELL := /bin/bash
.SHELLFLAGS := -eu -o pipefail -c
.DEFAULT_GOAL := help
.PHONY: help setup build demo serve check static lint types layers fresh audit web-tests test test-long test-all coverage mutate fuzz bench bench-once shots science api words backup restore key password browser versions

PORT ?= 8000
HOST ?= 127.0.0.1
KEEP ?=
PYTHON ?= $(shell command -v python3.11 || command -v python3.12 || command -v python3)
PY := .venv/bin/python
DEMO_DATA := $(CURDIR)/.data/demo
# Compiled once, and started often: tests start the server some sixty times.
unexport PYTHONDONTWRITEBYTECODE

help:
	@echo "make demo     start with the demo kitchen (PORT=8000, KEEP=1 keeps it from last time)"
	@echo "make test     every test, the real interface in headless Chromium included"
	@echo "make test-long the same, with all examples, sizes and repetitions, and the coverage of the core"
	@echo "make test-all on each Python that is promised"
	@echo "make mutate   put faults into the core and see whether its tests find them (ROOMS=\"plan run\" SAMPLE=300)"
	@echo "make serve    start your own kitchen (PORT=, HOST=)"
	@echo "make check    format, lint, types, layers, generated files, fast tests"
	@echo "make fuzz     ask every route what its document says, and what it does not: make fuzz SECONDS=1800"
	@echo "make bench    measure what is promised to be fast"
	@echo "make shots    take the pictures in docs/screenshots anew"
	@echo "make api      write the OpenAPI document and its types anew"
	@echo "make bench-once run every benchmark once and small, to see that it runs"
	@echo "make words    write the catalogue of words anew: a folder a language in kemble/words"
	@echo "make backup   copy your kitchen's database: make backup FILE=kitchen.sqlite3"
	@echo "make restore  put a backup in its place, keeping what was there: make restore FILE=kitchen.sqlite3"
	@echo "make key      a key that lets one more browser into your kitchen, once"
	@echo "make password set the password for every other browser"

# --- set-up ------------------------------------------------------------------
versions:
	@test -n "$(PYTHON)" || { echo "Python 3.11 or 3.12 is needed and none was found."; exit 1; }
	@"$(PYTHON)" -c 'import sys; sys.exit(not ((3, 11) <= sys.version_info[:2] <= (3, 12)))' \
	  || { echo "Python 3.11 or 3.12 is needed; $(PYTHON) is $$("$(PYTHON)" --version)."; exit 1; }
	@command -v npm >/dev/null || { echo "Node 20 or newer with npm is needed and was not found."; exit 1; }

.stamps/python: requirements-dev.txt pyproject.toml | versions
	@echo "Setting up Python packages (half a minute the first time)"
	@test -x $(PY) || "$(PYTHON)" -m venv .venv
	@test -x .venv/bin/uv || $(PY) -m pip install --quiet --disable-pip-version-check uv
	@.venv/bin/uv pip sync --quiet --compile-bytecode --require-hashes requirements-dev.txt
	@.venv/bin/uv pip install --quiet --no-deps --no-build-isolation --editable . 2>/dev/null \
	  || .venv/bin/uv pip install --quiet --no-deps --editable .
	@mkdir -p .stamps && touch $@

.stamps/npm: web/package-lock.json | versions
	@echo "Setting up front-end packages (under a minute the first time)"
	@cd web && npm ci --no-audit --no-fund --loglevel=error
	@mkdir -p .stamps && touch $@

WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/vite.config.ts web/vite.plugins.ts web/package.json
web/dist/index.html: .stamps/npm .stamps/python $(WEB_SOURCES)
	@echo "Building the front end"
	@cd web && npm run --silent build -- --logLevel warn
	@$(PY) scripts/licences.py > web/dist/licences.txt
	@$(PY) -m whitenoise.compress --quiet web/dist
	@touch $@

setup: .stamps/python .stamps/npm

build: web/dist/index.html

# Its headless shell where there is one: the same browser, at less than half the work a page.
browser:
	@if ! { command -v chromium-headless-shell || command -v chromium || command -v chromium-browser; } >/dev/null; then \
	  if [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null; then \
	    echo "Installing Chromium"; \
	    export DEBIAN_FRONTEND=noninteractive; \
	    { apt-get update -qq; apt-get install -y -qq --no-install-recommends chromium-headless-shell \
	      || apt-get install -y -qq --no-install-recommends chromium; } >/dev/null; \
	  else \
	    echo "Chromium is needed for the browser tests. Install it with: sudo apt-get install chromium-headless-shell"; exit 1; \
	  fi; \
	fi

# --- run ---------------------------------------------------------------------
demo: .stamps/python build
	@KEMBLE_DATA="$(DEMO_DATA)" exec $(PY) manage.py serve --demo $(if $(KEEP),--keep) --host "$(HOST)" --port "$(PORT)"

serve: .stamps/python build
	@exec $(PY) manage.py serve --host "$(HOST)" --port "$(PORT)"

backup: .stamps/python
	@test -n "$(FILE)" || { echo "Say where to: make backup FILE=kitchen.sqlite3"; exit 1; }
	@$(PY) manage.py backup "$(FILE)"

restore: .stamps/python
	@test -n "$(FILE)" || { echo "Say which: make restore FILE=kitchen.sqlite3"; exit 1; }
	@$(PY) manage.py restore "$(FILE)"

key password: .stamps/python
	@$(PY) manage.py $@

# --- check -------------------------------------------------------------------
PYTHONS := 3.11 3.12
# Measured: 97.
CORE_COVERAGE := 96
# One worker more than cores: tests of servers and browsers wait as often as they work.
PYTEST := $(PY) -m pytest -q --durations=10 -n $$(( $$(nproc 2>/dev/null || echo 2) + 1 )) --dist worksteal
# The browser's in processes of their own (tests/conftest.py says why).
PYTESTS := $(PYTEST) tests --ignore=tests/browser && $(PYTEST) tests/browser
EXPORT := $(PY) manage.py export_openapi_schema --api kemble.server.api.api --indent 1 --sorted

science: setup ## Work every case against what cooks report anew
	@$(PY) scripts/science.py

# What the pages say and what the core says. English stands in the code: its catalogue is built for translators and for the
# tests, and is not in git. What another language has already is kept.
words: kemble/words/en/core.po

kemble/words/en/core.po: .stamps/npm .stamps/python scripts/words.py $(shell find kemble -name '*.py') $(WEB_SOURCES)
	@echo "Gathering the catalogue of words"
	@cd web && npx --no-install lingui extract --clean >/dev/null 2>&1
	@$(PY) scripts/words.py kemble/words

api: setup
	@KEMBLE_DATA="$$(mktemp -d)" $(EXPORT) --output docs/openapi.json
	@cd web && npm run --silent api
	@KEMBLE_DATA="$$(mktemp -d)" $(PY) scripts/generate.py web/src/api
	@$(PY) -m kemble.cli schema > docs/sheet.schema.json

# What can be said without running it. Side by side: none of them needs another.
static: setup
	@$(MAKE) --no-print-directory -j2 --output-sync=target types lint layers fresh audit

lint:
	@echo "Format and lint"
	@.venv/bin/ruff format --check --quiet .
	@.venv/bin/ruff check --quiet .
	@cd web && npm run --silent lint

types:
	@echo "Types"
	@cd web && npm run --silent types & KEMBLE_DATA="$$(mktemp -d)" .venv/bin/mypy && wait $$!

layers:
	@echo "Layers"
	@.venv/bin/lint-imports --no-cache >/dev/null || .venv/bin/lint-imports --no-cache

fresh:
	@echo "Generated files"
	@scripts/fresh

audit: setup
	@echo "Dependencies"
	@$(PY) scripts/audit.py

web-tests:
	@echo "Tests of the front end"
	@cd web && NO_COLOR=1 npm test --silent -- --reporter=dot

check: setup
	@$(MAKE) --no-print-directory -j2 --output-sync=target web-tests types lint layers fresh audit
	@$(MAKE) --no-print-directory words
	@echo "Fast tests of the core"
	@$(PYTEST) -m 'not long' tests/core

test: setup build browser words
	@$(MAKE) --no-print-directory web-tests
	@$(PYTESTS)

# The same tests tried as often as they should be: all examples, sizes, kills and rows; then how much of the core they run.
test-long: setup build browser words
	@$(MAKE) --no-print-directory web-tests
	@export KEMBLE_TESTS=long; $(PYTESTS)
	@$(MAKE) --no-print-directory coverage

coverage: setup
	@echo "How much of the core its own tests run ($(CORE_COVERAGE) % at least)"
	@$(PYTEST) tests/core --cov=kemble/core --cov-report=term:skip-covered --cov-fail-under=$(CORE_COVERAGE)

# On every Python that is promised; one that is not installed is said, and fails.
test-all: setup build browser words
	@scripts/test_all $(PYTHONS)

# Whether the tests of the core see a fault that is put into it: a seeded sample of each room. Takes hours; not in CI.
mutate: setup
	@$(PY) scripts/mutate.py $(or $(ROOMS),plan run sheet stations) --sample $(or $(SAMPLE),300)

# Every route asked what its document says it takes, and what not. SECONDS= for how long.
fuzz: setup build
	@$(PY) scripts/fuzz.py --seconds $(or $(SECONDS),120)

# Every benchmark run once and small, to see that it runs at all.
bench-once: setup build browser
	@KEMBLE_BENCH=once $(PYTEST) benchmarks

bench: setup build browser
	@$(PY) -m pytest -q -s benchmarks --benchmark-columns=min,median,max,rounds --benchmark-sort=name

shots: setup build browser
	@$(PY) scripts/shots.py
	@$(PY) scripts/moving.py
