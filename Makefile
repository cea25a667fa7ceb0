# Everything a person or a machine does with this checkout. `make demo` and `make test` are enough.

.PHONY: setup demo demo-reset test test-long check bench screenshots api clean

VENV := .venv/bin
# Compiling thousands of modules beforehand takes as long as installing them; most are never used.
PIP := $(VENV)/pip install --disable-pip-version-check --no-deps --no-compile
NPM := PATH="$(CURDIR)/.venv/node:$$PATH" npm
STEP := setup/step.sh
DEMO_HOME := $(CURDIR)/var/demo
PYTHON_READY := .venv/.ready
DEVELOPMENT_READY := .venv/.ready-for-development
NODE_READY := frontend/node_modules/.ready
LISTS := tests/lists/dist/index.html
BUILT := frontend/dist/manifest.json
INTERFACE := $(shell find frontend/src frontend/public -type f -not -name '*.test.ts*' -not -path '*/testing/*') frontend/vite.config.ts

setup: $(PYTHON_READY) $(BUILT)

# What checks and tests need besides.
.PHONY: development
development: $(DEVELOPMENT_READY) $(BUILT)

.PHONY: system system-for-tests
system:
	@setup/system.sh
system-for-tests:
	@setup/system.sh for-tests

$(PYTHON_READY): requirements/runtime.txt pyproject.toml | system
	@$(STEP) "An environment of its own" python3 -m venv .venv
	@$(STEP) "Python packages" $(PIP) -r requirements/runtime.txt
	@$(STEP) "Tall Page itself" $(PIP) --no-build-isolation --editable .
	@touch $@

$(DEVELOPMENT_READY): $(PYTHON_READY) requirements/development.txt | system-for-tests
	@$(STEP) "Python packages for checks and tests" $(PIP) -r requirements/development.txt
	@touch $@

$(NODE_READY): frontend/package.json frontend/package-lock.json setup/node.sh $(PYTHON_READY)
	@$(STEP) "Node" setup/node.sh
	@$(STEP) "The interface's packages" sh -c 'cd frontend && $(NPM) ci --no-audit --no-fund'
	@touch $@

$(BUILT): $(NODE_READY) $(INTERFACE)
	@$(STEP) "The interface" sh -c 'cd frontend && $(NPM) run build && cd .. && $(VENV)/python -m whitenoise.compress --quiet frontend/dist'
	@touch $@

# The lists that the tests take pictures of, made with the libraries that pages really use.
$(LISTS): $(shell find tests/lists -maxdepth 2 -type f -name '*.js*' -not -path '*/node_modules/*' -not -path '*/dist/*') tests/lists/index.html $(NODE_READY)
	@$(STEP) "The lists of the tests" sh -c 'cd tests/lists && $(NPM) ci --no-audit --no-fund && $(NPM) run build'
	@touch $@

# Keeps what is in var/demo from one start to the next.
demo: setup
	@TALLPAGE_HOME=$(DEMO_HOME) $(VENV)/python -m tallpage.demo.run

demo-reset:
	rm -rf $(DEMO_HOME)
	@$(MAKE) --no-print-directory demo

check: development
	$(VENV)/ruff check .
	$(VENV)/ruff format --check .
	$(VENV)/mypy
	$(VENV)/lint-imports --no-logo
	$(VENV)/python setup/api_drift.py
	cd frontend && $(NPM) run --silent types && $(NPM) run --silent lint

# Python's packages and the interface's are installed beside each other, and so run the tests: the
# checks with the tests of the interface, the command line and the server's parts that have a folder of their
# own, the journeys, those of the core, the others of the server.
ALL_INSTALLED := @$(MAKE) --no-print-directory --jobs 2 --output-sync development $(LISTS)
test: | system-for-tests
	$(ALL_INSTALLED)
	@setup/side_by_side.sh "$(MAKE) --no-print-directory checks-and-other-tests" \
		"$(VENV)/pytest tests/browser" "$(VENV)/pytest tests/core" "$(VENV)/pytest $(wildcard tests/server/test_*.py)"

.PHONY: checks-and-other-tests
checks-and-other-tests: check
	cd frontend && $(NPM) run --silent test
	$(VENV)/pytest $(wildcard tests/test_*.py tests/server/*/)

# What takes too long for every change: every kind of page and list, all that is killed, all screens,
# and more examples for all that holds for any.
test-long: | system-for-tests
	$(ALL_INSTALLED)
	@setup/side_by_side.sh "$(VENV)/pytest -m 'long or hypothesis' --hypothesis-profile thorough --ignore tests/browser" "$(VENV)/pytest -m long tests/browser"

# After a change of the API or the command line: write down anew what is made from the code.
api: development
	$(VENV)/python setup/api_drift.py --write

bench: development $(LISTS)
	@$(STEP) "Python packages for measuring" $(PIP) -r requirements/bench.txt
	$(VENV)/python -m bench

screenshots: development
	PYTHONPATH=. $(VENV)/python setup/screenshots.py

clean:
	rm -rf .venv frontend/node_modules frontend/dist tests/lists/node_modules tests/lists/dist build
