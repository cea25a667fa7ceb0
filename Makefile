# Everything a person or a machine does with this checkout. `make demo` and `make test` are enough.

.PHONY: setup demo demo-reset test check bench screenshots api clean

VENV := .venv/bin
DEMO_HOME := $(CURDIR)/var/demo
PYTHON_READY := .venv/.ready
NODE_READY := frontend/node_modules/.ready
LISTS := tests/lists/dist/index.html
BUILT := frontend/dist/manifest.json
INTERFACE := $(shell find frontend/src frontend/public -type f -not -name '*.test.ts') frontend/vite.config.ts

setup: $(PYTHON_READY) $(BUILT)

.PHONY: system
system:
	@setup/system.sh

$(PYTHON_READY): requirements/runtime.txt requirements/development.txt pyproject.toml | system
	python3 -m venv .venv
	$(VENV)/pip install --quiet --disable-pip-version-check --no-deps -r requirements/development.txt
	$(VENV)/pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation --editable .
	@touch $@

$(NODE_READY): frontend/package.json frontend/package-lock.json | system
	cd frontend && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

$(BUILT): $(NODE_READY) $(INTERFACE)
	cd frontend && npm run --silent build -- --logLevel warn
	@touch $@

# The lists that the tests take pictures of, made with the libraries that pages really use.
$(LISTS): $(shell find tests/lists -maxdepth 2 -type f -name '*.js*' -not -path '*/node_modules/*' -not -path '*/dist/*') tests/lists/index.html | system
	cd tests/lists && npm ci --no-audit --no-fund --loglevel=error && npm run --silent build -- --logLevel error
	@touch $@

# Keeps what is in var/demo from one start to the next.
demo: setup
	@TALLPAGE_HOME=$(DEMO_HOME) $(VENV)/python -m tallpage.demo.run

demo-reset:
	rm -rf $(DEMO_HOME)
	@$(MAKE) --no-print-directory demo

check: setup
	$(VENV)/ruff check .
	$(VENV)/ruff format --check .
	$(VENV)/mypy
	$(VENV)/lint-imports --no-logo
	$(VENV)/python setup/api_drift.py
	cd frontend && npm run --silent types && npm run --silent lint

test: check $(LISTS)
	cd frontend && npm run --silent test
	$(VENV)/pytest -n 2 --dist loadgroup

# After a change of the API: write docs/openapi.json and the interface's types anew.
api: setup
	$(VENV)/python setup/api_drift.py --write

bench: setup $(LISTS)
	$(VENV)/pip install --quiet --disable-pip-version-check --no-deps -r requirements/bench.txt
	$(VENV)/python -m bench

screenshots: setup
	PYTHONPATH=. $(VENV)/python setup/screenshots.py

clean:
	rm -rf .venv frontend/node_modules frontend/dist tests/lists/node_modules tests/lists/dist build
