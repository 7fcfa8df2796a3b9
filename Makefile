# `make demo` sets up and starts the application; `make test` sets up and runs all tests. Both skip what is up to date.
PYTHON ?= python3
BIN := .venv/bin
# Node.js: the machine's own where it is new enough, else the one that set-up puts into .venv.
export PATH := $(CURDIR)/.venv/bin:$(PATH)
DATA ?= .data
PORT ?= 8137
SEQUENCES ?= 5000
INPUTS ?= 700
# Each day other sequences; `FIRST=…` runs again from one that failed.
FIRST ?= $(shell date +%Y%j)000
ROUNDS ?= 25
HANDS ?= 200
BOMBS ?= 1
SECONDS ?= 1200
WEB_SOURCES := $(shell find web/src web/public docs/guide docs/screenshots -type f 2>/dev/null) docs/architecture.md docs/extending.md web/index.html web/vite.config.ts web/package.json web/tsconfig.json

.PHONY: demo test test-quick hard check check-python check-web bench types screenshots clean new-rule new-look new-note new-format
.DELETE_ON_ERROR:

demo: .venv/.ready web/dist/index.html
	@$(BIN)/vine-swing demo --data $(DATA) --port $(PORT)

test: .venv/.ready-dev web/dist/index.html .venv/.ready-browser
	cd web && npx vitest run
	$(BIN)/pytest -n 2 -m "not journey"
	$(BIN)/pytest -n 2 tests/journeys

# The everyday loop: no journeys, and property tests in a small size.
test-quick: .venv/.ready-dev
	QUICK=1 $(BIN)/pytest -n 2 -m "not journey and not slow"

# Random edits, hostile inputs, killed servers and hands that press anything, in a large size:
# `make hard SEQUENCES=5000 INPUTS=700 ROUNDS=25 HANDS=200 BOMBS=1 SECONDS=1200 FIRST=0`.
hard: .venv/.ready-dev web/dist/index.html .venv/.ready-browser
	FIRST=$(FIRST) SEQUENCES=$(SEQUENCES) INPUTS=$(INPUTS) ROUNDS=$(ROUNDS) BOMBS=$(BOMBS) SECONDS=$(SECONDS) $(BIN)/pytest -n 2 tests/hard
	FIRST=$(FIRST) HANDS=$(HANDS) $(BIN)/pytest -n 2 tests/journeys/test_any_hand.py

check: check-python check-web

check-python: .venv/.ready-dev
	$(BIN)/ruff check .
	$(BIN)/ruff format --check --quiet .
	$(BIN)/mypy

check-web: web/src/api/schema.d.ts
	cd web && npx vue-tsc --noEmit && npx eslint --max-warnings 0 . && npx prettier --check --log-level warn .

bench: .venv/.ready-dev .venv/.ready-browser web/dist/index.html
	for one in ratios page many load pictures looks sheet notes; do echo "== $$one"; $(BIN)/python -m tests.bench.$$one || exit 1; done

types: .venv/.ready-dev web/node_modules/.ready
	$(BIN)/python tools/write_schemas.py
	$(MAKE) web/src/api/schema.d.ts

web/src/api/schema.d.ts: docs/openapi.json web/node_modules/.ready
	cd web && npx openapi-typescript ../docs/openapi.json -o src/api/schema.d.ts >/dev/null
	@touch $@

.venv/bin/python:
	sh tools/need.sh python "$(PYTHON)"
	$(PYTHON) -m venv .venv

.venv/.ready: .venv/bin/python requirements.lock pyproject.toml
	$(BIN)/python -m pip install --quiet --disable-pip-version-check -r requirements.lock
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	@touch $@

.venv/.ready-dev: .venv/.ready requirements-dev.lock
	$(BIN)/python -m pip install --quiet --disable-pip-version-check -r requirements-dev.lock
	@touch $@

.venv/.ready-browser:
	sh tools/need.sh browser
	@touch $@

web/node_modules/.ready: web/package-lock.json .venv/bin/python
	sh tools/need.sh node $(BIN)/python
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

web/dist/index.html: web/src/api/schema.d.ts $(WEB_SOURCES)
	cd web && npx vite build --logLevel warn
	@touch $@

clean:
	rm -rf .venv web/node_modules web/dist

screenshots: .venv/.ready-dev web/dist/index.html .venv/.ready-browser
	$(BIN)/python -m tools.screenshots

# A new part from the examples of docs/extending.md: `make new-rule NAME=gather`.
new-rule new-look new-note new-format: .venv/.ready-dev
	$(BIN)/python -m tools.new_part $(patsubst new-%,%,$@) $(NAME)
