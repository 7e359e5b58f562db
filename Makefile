# Two commands matter: `make demo` and `make test`. Each does its own set-up and only what changed.
# Set-up is kept in stamps, so a second run starts at once.

PYTHON ?= python3.11
BIN := .venv/bin
UV := .uv/bin/uv
UV_VERSION := 0.13.9
export DJANGO_SETTINGS_MODULE := jamreel.site.settings
FRONTEND_SOURCES := $(shell find frontend/src frontend/public -type f 2>/dev/null) frontend/index.html frontend/vite.config.ts

.PHONY: demo demo-data serve test prove lint screenshots bench types build clean chromium

# The first time both installs run side by side, and what the demo shows is made meanwhile.
demo:
	@$(MAKE) -sq frontend/dist/.built .venv/.run || $(MAKE) -s -j2 frontend/dist/.built demo-data
	@$(BIN)/python -m jamreel demo

demo-data: .venv/.run
	@$(BIN)/python -m jamreel demo --prepare

# A bench for real, as the environment says: docs/running.
serve: .venv/.run frontend/dist/.built
	@$(BIN)/python -m jamreel serve

# The front end's logic first; then two processes side by side, the longest files first (tests/conftest).
test: .venv/.dev frontend/dist/.built chromium
	@cd frontend && npm run -s test
	@$(BIN)/pytest -n 2 --dist loadfile --no-loadscope-reorder

# The whole sweeps, where `make test` takes samples: before an issue is closed.
prove: .venv/.dev frontend/dist/.built chromium
	@JAMREEL_PROVE=1 $(BIN)/pytest -n 2 --dist loadfile --no-loadscope-reorder

lint: .venv/.dev frontend/node_modules/.installed
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/lint-imports
	$(BIN)/mypy
	$(BIN)/python -m jamreel.site.documents frontend/.documents | diff docs/format/digests.txt - || (echo "The API or a format has changed: if it was meant to, run make types and commit docs/format/digests.txt." && false)
	cd frontend && npm run -s types
	$(BIN)/django-admin makemigrations --check --dry-run -v0
	cd frontend && npm run -s lint

# The front end's types of the API, for an editor and for lint; the digests that tell of a change.
types: .venv/.run frontend/node_modules/.installed
	$(BIN)/python -m jamreel.site.documents frontend/.documents > docs/format/digests.txt
	cd frontend && npm run -s types

screenshots: .venv/.dev frontend/dist/.built chromium
	$(BIN)/python tools/screenshots.py

# How long things take: in the core, over the API, and for a hand while others are at work. Beside
# another commit: make bench BESIDE=HEAD~1.
bench: .venv/.dev frontend/dist/.built
	$(BIN)/python tools/bench.py $(if $(BESIDE),--beside $(BESIDE))
	$(BIN)/python tools/hands.py $(if $(BESIDE),--beside $(BESIDE))

build: frontend/dist/.built

chromium:
	@test -x /usr/bin/chromium || (echo "Installing Debian's Chromium" && \
	  if [ "$$(id -u)" = 0 ]; then S=; else S=sudo; fi; \
	  $$S apt-get update -qq && $$S apt-get install -y -qq --no-install-recommends chromium > /dev/null)

$(UV):
	@$(PYTHON) -m venv .uv && .uv/bin/pip install -q uv==$(UV_VERSION)

.venv/.python: $(UV)
	@test -x $(BIN)/python || $(UV) venv -q --python $(PYTHON) .venv
	@touch $@

# `make test` needs all of `make demo` and more, so .dev satisfies .run too.
.venv/.run: .venv/.python requirements/run.txt pyproject.toml
	@test -e .venv/.dev && test .venv/.dev -nt requirements/dev.txt || $(UV) pip sync -q --compile-bytecode --python $(BIN)/python requirements/run.txt
	@$(UV) pip install -q --python $(BIN)/python --no-deps -e .
	@$(BIN)/python -m compileall -q src
	@touch $@

.venv/.dev: .venv/.python requirements/dev.txt pyproject.toml
	@$(UV) pip sync -q --compile-bytecode --python $(BIN)/python requirements/dev.txt
	@$(UV) pip install -q --python $(BIN)/python --no-deps -e .
	@$(BIN)/python -m compileall -q src
	@touch $@ .venv/.run

frontend/node_modules/.installed: frontend/package-lock.json
	@cd frontend && npm ci --silent --no-progress
	@touch $@

frontend/dist/.built: .venv/.run frontend/node_modules/.installed $(FRONTEND_SOURCES)
	@$(BIN)/python -m jamreel.site.documents frontend/.documents > /dev/null & \
	  (cd frontend && npm run -s build) && wait $$! && mkdir -p frontend/dist/docs && \
	  cp frontend/.documents/*.json frontend/dist/docs/
	@$(BIN)/python -m whitenoise.compress -q frontend/dist
	@touch $@

requirements/%.txt: requirements/%.in | $(UV)
	$(UV) pip compile -q --generate-hashes --no-header --python-version 3.11 $< -o $@

clean:
	rm -rf .venv .uv frontend/node_modules frontend/dist
