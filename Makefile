# make demo    starts Oarweed with demo data        make test   installs what the tests need and runs them all
# make build   builds bin/oarweed                   make bench  measures
# make fuzz    every parser, 10 s each              make load   a class of 500 for a minute
# make crash   200 times killed while writing

ADDR ?= 127.0.0.1:8080
DEMO_DB ?= data/demo.db
SHELL := /bin/bash
.SHELLFLAGS := -eu -o pipefail -c
.PHONY: demo demo-reset build test test-go test-web test-deps bench fuzz load crash shapes-sheet screenshots clean

GO_FILES := $(shell find cmd core catalogue internal web/embed.go -type f)
WEB_FILES := $(shell find web/src web/public web/index.html web/vite.config.ts web/tsconfig.json -type f)

demo: build
	./bin/oarweed demo --db $(DEMO_DB) --addr $(ADDR)

demo-reset: build
	rm -f $(DEMO_DB) $(DEMO_DB)-wal $(DEMO_DB)-shm
	./bin/oarweed demo --db $(DEMO_DB) --addr $(ADDR)

build: bin/oarweed

web/node_modules/.done: web/package.json web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

# The contract: Go types → OpenAPI → TypeScript.
.build/openapi.json: $(GO_FILES) go.mod
	mkdir -p .build
	go run ./cmd/oarweed openapi > $@.new
	mv $@.new $@

web/dist/index.html: web/node_modules/.done .build/openapi.json $(WEB_FILES)
	cd web && npm run --silent types > /dev/null && npm run --silent build

bin/oarweed: web/dist/index.html $(GO_FILES)
	go build -o $@ ./cmd/oarweed

test: test-deps build test-web test-go

test-deps:
	.ci/deps

test-web: web/node_modules/.done .build/openapi.json
	cd web && npm run --silent types > /dev/null && npm run --silent check && npm test

# The build comes first: the end-to-end tests drive the built front end.
test-go: build
	gofmt -l cmd core catalogue internal e2e web/*.go | (! grep .)
	go vet ./...
	go test -timeout 60m $$(go list ./... | grep -v /e2e$$)
	go test -timeout 60m -count=1 ./e2e # it drives a binary that go test does not know of

bench: build
	go test -run '^$$' -bench . -benchtime 1s ./core/... ./catalogue ./internal/...
	go test -run '^$$' -bench . -benchtime 5x ./e2e

FUZZ_TIME ?= 10s
fuzz:
	@mkdir -p .build
	@grep -rl --include='*fuzz_test.go' . core catalogue internal | xargs -n1 dirname | sort -u | while read -r dir; do \
	  for name in $$(grep -ho '^func Fuzz[A-Za-z]*' $$dir/*fuzz_test.go | cut -c6-); do \
	    echo "$$dir $$name"; go test ./$$dir -run '^$$' -fuzz "^$$name$$" -fuzztime $(FUZZ_TIME) > .build/fuzz.txt 2>&1 || { cat .build/fuzz.txt; exit 1; }; \
	  done; done

load: build
	go run ./e2e/strain load --binary bin/oarweed

crash: build
	go run ./e2e/strain crash --binary bin/oarweed

# Every drawing on one page, to be looked at.
shapes-sheet: build
	./bin/oarweed shape sheet > .build/shapes.html
	@echo open .build/shapes.html

screenshots: build
	OARWEED_SHOTS=$(CURDIR)/docs/screenshots go test ./e2e -run TestScreenshots -count 1

clean:
	rm -rf bin .build web/node_modules web/dist/assets web/dist/index.html*
