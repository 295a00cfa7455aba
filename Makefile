# Two commands do all set-up on a fresh Debian machine with Go and Node:
# make demo, make test. The rest is for developing.
SHELL := /bin/bash
GOFLAGS_BUILD := -trimpath
# Two modules for the browser: the core, and the bench, which is loaded when it is opened.
WASM := ui/src/core/core.wasm ui/src/core/bench.wasm
EXEC := ui/src/core/wasm_exec.js
GO_SOURCES := $(shell find core store api exchange devices demo cmd wasm -name '*.go' -o -name '*.json' -o -name '*.sql' 2>/dev/null | grep -v '^api/web[s/]')
UI_SOURCES := $(shell find ui/src ui/public -type f 2>/dev/null | grep -v -e 'core\.wasm' -e wasm_exec.js -e lists.json) ui/index.html ui/package.json ui/vite.config.ts \
	ui/styledIDs.ts $(wildcard ui/prerender/*)

# Old logs replay to the letter in the browser's core too.
GOLDEN_IN_WASM = GOOS=js GOARCH=wasm go test -run Golden \
	-exec "$$(go env GOROOT)/lib/wasm/go_js_wasm_exec" ./core/treat ./core/visit ./core/bench

# What asks the cluster, a built program or the browser is run each time; the browser's
# tests take longest, so they begin first. Of the rest Go keeps the result while nothing
# has changed; CI keeps none (.ci/run).
ASKING = ./e2e $$(go list ./api/... ./store/... ./demo/... ./cmd/...)
PURE = $$(go list ./core/... ./exchange/... ./devices/...)
GO_TEST = go test -json -timeout 25m -parallel 4

.PHONY: audit deb licences demo test dev lint format bench bench-large fuzz screenshots build types
build: bin/mokren bin/mokren-stepped

demo: .mokren/has-postgresql bin/mokren ## the application with an invented practice
	@exec bin/mokren demo

test: .mokren/has-postgresql .mokren/has-chromium .mokren/has-pdftotext build ## everything: core, store, API, browser
	cd ui && npm test --silent -- --run
	go vet ./...
	$(GOLDEN_IN_WASM)
	@set -o pipefail; export GOGC=400; \
		{ go run ./cmd/withcluster $(GO_TEST) -count=1 $(ASKING); $(GO_TEST) $(PURE); } | go run ./cmd/testreport

dev: .mokren/has-postgresql build ## Go server and Vite side by side
	@trap 'kill 0' EXIT; bin/mokren demo & cd ui && npx vite

GOFUMPT := go tool -modfile=tools/go.mod gofumpt -extra

lint: build ## formats, limits of lines, functions and files, words, licences, vet, React hooks, import circles, inline styles
	test -z "$$($(GOFUMPT) -l $$(git ls-files '*.go') | tee /dev/stderr)"
	scripts/line-limit
	go tool -modfile=tools/go.mod funlen -test=false ./...
	scripts/inline-style
	scripts/words
	go run ./cmd/licences | cmp - ui/public/licences.txt
	test -z "$$(go tool -modfile=tools/go.mod deadcode -test ./... | tee /dev/stderr)"
	go vet ./...
	cd ui && npm run --silent lint

format: ui/node_modules/.package-lock.json ## what lint asks for, done
	$(GOFUMPT) -w $$(git ls-files '*.go')
	cd ui && npm run --silent format

# What a screen is opened beside: a page of the same framework with nothing on it.
.mokren/blank/index.html: $(wildcard ui/blank/*) ui/node_modules/.package-lock.json
	cd ui && npx vite build --config blank/vite.config.ts --logLevel warn
	node ui/precompress.mjs .mokren/blank/assets .mokren/brotli

BENCH = GOGC=200 MOKREN_BENCH=1 go run ./cmd/withcluster go test -count=1 -v
# The last lines are the three figures that are nearest to their limits, or farthest beyond.
bench: .mokren/has-postgresql .mokren/has-chromium build .mokren/blank/index.html ## coach, server and browser, each figure with its limit, in one run
	@set -o pipefail; { \
		go test -run '^$$' -bench . -benchtime 200ms -benchmem ./core/...; \
		$(BENCH) -timeout 20m -run 'TestBench(History|OwnSQL|Writing|RowSecurity|Size)' ./api; \
		$(BENCH) -timeout 20m -run 'TestBench' ./e2e; \
	} 2>&1 | go run ./cmd/nearest

bench-large: .mokren/has-postgresql .mokren/has-chromium build ## 200,000 visits, a thousand practices, a backup, two copies, a hold of ten minutes, the largest files
	@set -o pipefail; export MOKREN_LONG=1; { \
		go test -run '^$$' -bench LargestFiles -benchtime 1x ./exchange; \
		$(BENCH) -timeout 30m -run 'TestBench(Size|Practices|Backup)' ./api; \
		$(BENCH) -timeout 20m -run 'TestBench(LongHold|TwoCopies)' ./e2e; \
	} 2>&1 | go run ./cmd/nearest

# Each for a minute: package and target.
FUZZ = core/decode:FuzzDecode core/visit:FuzzReduce core/calc:FuzzCoach core/calc:FuzzPlan core/calc:FuzzJudge \
	core/calc:FuzzSuspects exchange:FuzzArchive exchange:FuzzTables exchange:FuzzCards exchange:FuzzCalendar \
	exchange:FuzzPhoto exchange/fhirr4:FuzzBundle
FUZZ_FOR ?= 60s

licences: ui/node_modules/.package-lock.json ## the licences of what ships, from modules and packages
	go run ./cmd/licences > ui/public/licences.txt

audit: ui/node_modules/.package-lock.json ## known weaknesses in modules and packages; says when a database cannot be reached
	go run golang.org/x/vuln/cmd/govulncheck@latest ./... || echo "govulncheck: see above"
	cd ui && npm audit --omit=dev || echo "npm audit: see above"

deb: bin/mokren ## a Debian package of the program, its units and its backup
	packaging/deb

fuzz: .mokren/has-postgresql .mokren/has-chromium build ## what make test tries shortly, for long; whatever a file or a log may hold
	@set -e; for f in $(FUZZ); do \
		echo "$${f#*:} for $(FUZZ_FOR)"; \
		go test -run '^$$' -fuzz "^$${f#*:}$$" -fuzztime $(FUZZ_FOR) ./$${f%:*} | tail -1; \
	done
	MOKREN_LONG=1 go test -count=1 -run TestLogsThatComeToTheSame ./core/treat
	MOKREN_LONG=1 go test -count=1 -run TestWhoeverFollowsTheCoachEndsWell ./core/bench
	go test -count=1 -timeout 20m -run TestTheRecordIsItsModel ./core/record -histories 20000
	MOKREN_LONG=1 go test -count=1 -timeout 10m -run TestHoldsOverTwoCopiesUnderKills ./e2e

screenshots: .mokren/has-postgresql .mokren/has-chromium build ## one picture of each main view, from the demo data
	MOKREN_SHOTS=1 go test -count=1 -run TestScreenshots -v ./e2e

# ---- pieces ----------------------------------------------------------------
.mokren/has-%: scripts/system
	@mkdir -p .mokren && scripts/system $* && touch $@

ui/node_modules/.package-lock.json: ui/package.json ui/package-lock.json
	cd ui && npm install --no-audit --no-fund --loglevel=error
	@touch $@

# What is not hot is not inlined: 75 kB less to load on a tablet.
NOT_HOT := cmp container/heap embed encoding encoding/base64 encoding/json errors fmt internal/... io io/fs iter \
	maps math os path reflect slices sort strconv strings sync syscall syscall/js time unicode unicode/utf16 \
	unicode/utf8 mokren/wasm mokren/wasm/page $(addprefix mokren/core/,assess atlas body bridge calc device ids note picture plan points \
	pose progress record rights decode safety sequence stable treat visit wording)

ui/src/core/core.wasm: OF := ./wasm
ui/src/core/bench.wasm: OF := ./wasm/bench

.mokren/slim/overlay.json: $(GO_SOURCES) go.mod
	go run ./cmd/slim .mokren/slim

$(WASM): .mokren/slim/overlay.json go.mod Makefile
	GOOS=js GOARCH=wasm go build $(GOFLAGS_BUILD) -overlay .mokren/slim/overlay.json -ldflags='-s -w' $(NOT_HOT:%=-gcflags=%=-l) -o $@ $(OF)
	go run ./cmd/slim -join $@ || { rm -f $@; exit 1; }

ui/src/core/lists.json: $(GO_SOURCES) go.mod
	go run ./cmd/bridgegen -lists > $@

$(EXEC): go.mod
	cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" $@

# The sign-in form, run once to be written into the page (signin.html).
.mokren/prerender/form.js: $(UI_SOURCES) ui/node_modules/.package-lock.json
	cd ui && npx vite build --config prerender/vite.config.ts --logLevel warn

api/web/dist/index.html: $(WASM) $(EXEC) ui/src/core/lists.json $(UI_SOURCES) .mokren/prerender/form.js
	cd ui && npm run build --silent
	node ui/prerender/write.mjs .mokren/prerender api/web/dist
	node ui/precompress.mjs api/web/dist/assets .mokren/brotli

bin/mokren: api/web/dist/index.html $(GO_SOURCES)
	go build $(GOFLAGS_BUILD) -o $@ ./cmd/mokren

# The same program with a clock that the browser tests step; never released.
api/webstepped/dist/index.html: api/web/dist/index.html
	cd ui && npx vite build --mode stepped --logLevel warn --outDir ../api/webstepped/dist
	node ui/prerender/write.mjs .mokren/prerender api/webstepped/dist

bin/mokren-stepped: api/webstepped/dist/index.html $(GO_SOURCES)
	go build $(GOFLAGS_BUILD) -tags stepped -o $@ ./cmd/mokren

types: ## the front end's types and docs/events.md from the Go structs
	go run ./cmd/mokren openapi --indent > ui/openapi.json
	cd ui && npm run types --silent
	go run ./cmd/bridgegen > ui/src/core/questions.ts
	go run ./cmd/bridgegen -bench > ui/src/core/benchQuestions.ts
	go run ./cmd/eventdocs > docs/events.md
	MOKREN_GUIDE=1 go test -count=1 -run TestTheGuideShowsTheMachine ./core/treat
