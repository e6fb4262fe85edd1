# Everything runs from here; every target is safe to repeat.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
PIP := $(BIN)/pip install --quiet --disable-pip-version-check
WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/vite.config.ts web/tsconfig.json
INTERFACE := src/bendrel/interface/index.html

# what is compiled once is kept: each of the many processes of a run would compile it anew
unexport PYTHONDONTWRITEBYTECODE

.PHONY: demo install web web-test test check quick lint lint-core lint-web lint-web-again types types-current notices notices-current chromium bench matrix \
  mutants golden audit soak journeys screenshots clean

demo: install web
	$(BIN)/bendrel demo --data var/demo

install: $(VENV)/.installed

$(VENV)/.installed: requirements.txt pyproject.toml
	$(PYTHON) -m venv $(VENV)
	$(PIP) --require-hashes -r requirements.txt
	$(PIP) --no-deps --no-build-isolation -e .
	touch $@

$(VENV)/.installed-dev: requirements-dev.txt requirements-reference.txt $(VENV)/.installed
	$(PIP) --require-hashes -r requirements-dev.txt
	$(PIP) --require-hashes --no-deps -r requirements-reference.txt
	touch $@

web: $(INTERFACE)

web/node_modules/.installed: web/package.json web/package-lock.json
	cd web && npm ci --no-audit --no-fund --loglevel=error
	touch $@

$(INTERFACE): web/node_modules/.installed $(WEB_SOURCES)
	cd web && npm run --silent build -- --logLevel error
	touch $@

# The screens' types come from the API's own schema; asked for by hand, for a fresh copy's files have no order in time
types: $(VENV)/.installed web/node_modules/.installed
	$(BIN)/python -m bendrel.api.openapi > web/openapi.json
	cd web && npx --no-install openapi-typescript openapi.json -o src/api/schema.d.ts >/dev/null
	rm web/openapi.json

types-current: $(VENV)/.installed web/node_modules/.installed
	$(BIN)/python -m bendrel.api.openapi > web/openapi.json
	cd web && npx --no-install openapi-typescript openapi.json --check -o src/api/schema.d.ts >/dev/null \
	  || { rm openapi.json; echo "The API's types are old: run make types"; exit 1; }
	rm web/openapi.json

# what others made that is in here, from the packages' own metadata
notices: $(VENV)/.installed-dev web
	$(BIN)/python tools/notices.py

notices-current: $(VENV)/.installed-dev web
	$(BIN)/python tools/notices.py --check

lint: lint-core lint-web notices-current

lint-core: $(VENV)/.installed-dev
	$(BIN)/ruff check src tests tools
	$(BIN)/ruff format --check src tests tools
	$(BIN)/mypy
	$(BIN)/lint-imports

lint-web: web/node_modules/.installed types-current
	cd web && npm run --silent types && npm run --silent lint

# the web's own logic, without a browser
web-test: web/node_modules/.installed
	cd web && npm run --silent test

# while working: what is quick; the screens' lint looks again only at what was changed
check: $(VENV)/.installed-dev web/node_modules/.installed
	$(MAKE) -j2 quick lint-core lint-web-again web-test

quick: $(VENV)/.installed-dev
	$(BIN)/python -m pytest -n 2 -m "not browser" --quick --ignore tests/browser --ignore tests/bench

lint-web-again: web/node_modules/.installed
	cd web && npm run --silent types && npm run --silent lint-again

chromium:
	@command -v chromium >/dev/null || { apt-get update -qq && apt-get install -y -qq chromium >/dev/null; } \
	  || { echo "Chromium is missing: install Debian's package chromium"; exit 1; }

# Python and web are installed and linted side by side
test:
	$(MAKE) -j2 lint web-test web chromium
	$(BIN)/python -m pytest -n 2 --dist worksteal

bench: $(VENV)/.installed-dev
	$(BIN)/python -m pytest tests/bench --benchmark-only --benchmark-columns=median,min,max,rounds -s

# every service with every tube, end, hose, clamp and joint; some minutes
matrix: $(VENV)/.installed-dev
	$(BIN)/python tools/matrix.py --write docs/doubtful.md

# deliberate mistakes, one at a time: do the tests notice? some twenty minutes
mutants: $(VENV)/.installed-dev
	$(PIP) --require-hashes -r requirements-mutants.txt
	$(BIN)/python tools/mutants.py

# the kept answers against today's
golden: $(VENV)/.installed-dev
	$(BIN)/python tools/golden.py
	$(BIN)/python tools/golden.py --made

# pinned, hashed, how old; not whether anything is known against them
audit: $(VENV)/.installed-dev
	$(BIN)/python tools/audit.py

# the kill test at length, and the promises about joints on many more lines; some twenty minutes
soak: $(VENV)/.installed-dev
	BENDREL_KILLS=300 $(BIN)/python -m pytest -n 0 tests/api/test_kills.py
	BENDREL_THOROUGH=1 $(BIN)/python -m pytest -n 2 tests/core/test_measuring.py tests/core/test_splice.py \
	  tests/core/test_findings.py tests/core/test_sentences.py tests/core/test_fixes.py tests/core/test_fit.py tests/services/test_backups.py tests/services/test_drawn_shops.py tests/services/test_proof_runs.py tests/core/test_calibration.py
	BENDREL_HOLD_RUNS=60 BENDREL_FIT_PARTS=60 BENDREL_READ_PARTS=24 BENDREL_ORDERS=8 BENDREL_KEPT=all $(BIN)/python -m pytest \
	  -n 2 tests/core/test_hold.py tests/core/test_fit.py tests/core/test_weighed.py tests/core/test_order.py \
	  tests/core/test_kept_answers.py
	BENDREL_FUZZ=3000 $(BIN)/python -m pytest -n 2 tests/api/test_any_document.py
	BENDREL_CHAINS=500 BENDREL_HOSE_LINES=500 BENDREL_SPLICED=300 BENDREL_LINES=200 $(BIN)/python -m pytest -n 2 \
	  tests/core/test_turned.py tests/core/test_lap.py tests/core/test_splice.py tests/core/test_steps.py

# eight whole jobs through the interface, their actions counted and their sentences read; some four minutes
journeys: $(VENV)/.installed-dev web chromium
	$(BIN)/python tools/journeys.py

screenshots: $(VENV)/.installed-dev web chromium
	$(BIN)/python tools/screenshots.py

clean:
	rm -rf $(VENV) web/node_modules src/bendrel/interface build mutants var
