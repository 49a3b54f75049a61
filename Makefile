# One command each: `make demo` and `make test` do all set-up on a fresh machine.
SHELL := /bin/bash
.DEFAULT_GOAL := build
VERSION := $(shell git describe --tags --always --dirty 2>/dev/null || echo dev)
GO_FILES := $(shell find cmd core internal -name '*.go' -not -name '*_test.go') web/embed.go
WEB_FILES := $(shell find web/src web/public web/sw -type f) web/index.html web/vite.config.ts web/tsconfig.json docs/lines.md
DEMO_ADDR ?= 127.0.0.1:7656
DEMO_DATA ?= data/demo

.PHONY: build demo test check format race web types bench measure properties shots beside clean

build: bin/sturdyelbow

web/node_modules/.installed: web/package.json web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

web/dist/index.html: $(WEB_FILES) web/node_modules/.installed
	rm -rf web/dist/assets
	cd web && npm run --silent build
	touch $@

web: web/dist/index.html

bin/sturdyelbow: $(GO_FILES) web/dist/index.html go.mod go.sum $(shell find internal core -path '*testdata*' -prune -o \( -name '*.csv' -o -name '*.sql' -o -name '*.json' \) -print)
	go build -ldflags "-s -w -X main.version=$(VERSION)" -o $@ ./cmd/sturdyelbow

demo: bin/sturdyelbow
	./bin/sturdyelbow demo --addr $(DEMO_ADDR) --data $(DEMO_DATA)

# The types of the API: Go is the truth, OpenAPI and TypeScript follow.
types: web/node_modules/.installed
	go run ./internal/fields/write > /tmp/sturdyelbow-fields.json && mv /tmp/sturdyelbow-fields.json internal/server/fields.json
	go run ./cmd/sturdyelbow openapi > web/openapi.json
	go run ./cmd/sturdyelbow schema > docs/frame-4.schema.json
	go run ./cmd/sturdyelbow words > web/src/api/words.json
	cd web && npm run --silent types && npx biome format --write src/api/words.json

GOLINES = go tool -modfile=tools.mod golines -m 140 --base-formatter=gofmt

# Writes every file as the formatters have it.
format: web/node_modules/.installed
	$(GOLINES) -w cmd core internal e2e web/embed.go
	cd web && npx biome format --write src

check: web/node_modules/.installed
	@test -z "$$($(GOLINES) -l cmd core internal e2e web/embed.go | tee /dev/stderr)" || { echo "run make format: the files above are not formatted, or have lines over 140"; exit 1; }
	go vet ./...
	go tool staticcheck ./...
	@# a gesture's method has an error whether it refuses anything or not
	@test -z "$$(go tool -modfile=tools.mod unparam ./... | grep -v '\.on - result 1 (error)' | tee /dev/stderr)" || { echo "the parameters above are not used"; exit 1; }
	@go run ./cmd/sturdyelbow openapi | cmp - web/openapi.json || { echo "the API's types are stale: run make types"; exit 1; }
	@cd web && npx openapi-typescript openapi.json -o /tmp/sturdyelbow-schema.d.ts >/dev/null && cmp /tmp/sturdyelbow-schema.d.ts src/api/schema.d.ts || { echo "the API's types are stale: run make types"; exit 1; }
	cd web && npm run --silent check

chromium:
	@command -v chromium-headless-shell >/dev/null || \
	(apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium-headless-shell fonts-liberation) || \
	command -v chromium >/dev/null

.PHONY: chromium
# The random properties begin at a seed made of what is committed: each commit
# tries frames of its own, and the same commit gives the same run everywhere.
test: export RAPID_SEED ?= $(shell printf %d 0x$$(git rev-parse --short=8 'HEAD^{tree}' 2>/dev/null || echo 1))
test: build check chromium race
	go test -timeout 45m ./...

# The packages with goroutines, with their tests in random order; where there is a C compiler.
race:
	@if [ "$$(go env CGO_ENABLED)" = 1 ] && command -v gcc >/dev/null; then KILLS=3 go test -race -shuffle=on ./internal/server ./internal/store ./core/curve; \
	else echo "SKIPPED, the race detector: it needs gcc"; fi

# The properties of gestures on many more random frames than make test draws:
# some 115,000 sequences in half an hour. It stops at the first that does not
# hold, shrunk.
properties:
	go test -count=1 -timeout 60m -v -run 'TestAnyGestures|TestTypedSizes|TestTheOrder|TestAGestureIsMade|TestPlacesThrough' ./core/edit -rapid.checks=25000
	go test -count=1 -timeout 60m -v -run 'TestAPartIs|TestDeletingMany' ./core/edit -rapid.checks=5000
	go test -count=1 -timeout 60m -v -run TestAStructureIsDrawn ./core/edit -rapid.checks=3400
	go test -count=1 -timeout 60m -v -run TestLongWork ./core/edit -rapid.checks=5000
	go test -count=1 -timeout 60m -v -run 'TestEventsAddUp|TestAnythingIsTakenBack|TestASumIsAdvanced' ./core/record -rapid.checks=50000
	go test -count=1 -timeout 60m -v -run TestWhatIsThereAgainst ./core/procure -rapid.checks=5000
	go test -count=1 -timeout 60m -v -run TestSharesComeToTheWhole ./internal/project -rapid.checks=2000
	KILLS=1000 go test -count=1 -timeout 60m -v -run 'TestNothingAcknowledged|TestWhatIsDoneToSeveral' ./internal/server
	go test -count=1 -timeout 60m -v -run TestASmallestSet ./core/constraint -rapid.checks=100000

# The pictures of the README, from the demo's projects. Look at each.
shots: build chromium
	rm -f docs/screenshots/*.png
	SHOTS=$(CURDIR)/docs/screenshots go test -count=1 -run TestShots ./e2e

# How fast the workbench answers in the browser; it reports and asserts nothing.
measure: build chromium
	MEASURE=1 go test -count=1 -v -run TestMeasure ./e2e

bench:
	go test -run xxx -bench . ./core/frame ./core/edit ./core/plan ./core/stock ./core/packing ./internal/project

# The families of core/packing, and beside it CBC where it is installed (Debian's coinor-cbc): half an hour.
beside:
	go run ./internal/beside

clean:
	rm -rf bin web/node_modules web/dist/assets web/dist/index.html web/dist/icon.svg
