# Style, types, import arrows, and whether what is made from the code agrees with it. Sourced by ./test, after tools/setup.sh.
in_web() { (cd web && NO_COLOR=1 "$@"); }
drift() {
  "$VENV/bin/python" tools/openapi.py > .data/openapi.json && cmp -s .data/openapi.json web/openapi.json || { say "The API changed: run tools/client and commit what it writes."; return 1; }
  (cd web && npx openapi-typescript openapi.json -o ../.data/schema.d.ts >/dev/null) && cmp -s .data/schema.d.ts web/src/api/schema.d.ts || { say "The TypeScript client is stale: run tools/client."; return 1; }
  "$VENV/bin/python" tools/api_page.py web/openapi.json | cmp -s - docs/api.md || { say "docs/api.md is stale: run tools/client."; return 1; }
}
checks() {
  timed "ruff (style)" "$VENV/bin/ruff" check --quiet .
  timed "ruff (format)" "$VENV/bin/ruff" format --check --quiet .
  timed "mypy (core strict, server)" "$VENV/bin/mypy" --no-error-summary
  timed "type tests of the public core" "$VENV/bin/mypy" --no-error-summary core/tests/typed/public_core.py
  timed "import arrows (Python)" "$VENV/bin/lint-imports" --no-cache >/dev/null
  timed "no procedure known by name" "$VENV/bin/python" tools/known_names.py
  timed "migrations match models" manage makemigrations --check --dry-run --verbosity 0
  timed "API, client and docs/api.md agree" drift
  timed "tsc" in_web npx tsc --noEmit --incremental --tsBuildInfoFile ../.data/tsc.info
  timed "tsc (service worker)" in_web npx tsc --noEmit -p worker
  timed "eslint (style, import arrows)" in_web npx eslint --cache --cache-strategy content --cache-location ../.data/eslint.cache --max-warnings 0 src
  timed "no import circles (web)" in_web npx dpdm --no-warning --no-tree --no-progress --exit-code circular:1 'src/**/*.ts' 'src/**/*.tsx' >/dev/null
  timed "prettier" in_web npx prettier --check --log-level warn --cache --cache-location ../.data/prettier.cache src worker vite.config.ts
}
# What the core says of jobs' logs, for the device's fold to be held against; made anew when the core or its maker changed.
golden_logs() {
  local from; from=$(find core/src server/apps/bench tools/golden_logs.py tools/golden_walks.py tools/golden_callouts.py -name '*.py' -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
  fresh golden "$from" && [ -s .data/golden.json ] && [ -s .data/golden_walks.json ] && [ -s .data/golden_callouts.json ] && return
  timed "golden call-outs" "$VENV/bin/python" tools/golden_callouts.py "$ROOT/.data/golden_callouts.json"
  timed "golden walks" "$VENV/bin/python" tools/golden_walks.py "$ROOT/.data/golden_walks.json"
  timed "golden logs" "$VENV/bin/python" tools/golden_logs.py "$ROOT/.data/golden.json" && stamp golden "$from"
}
web_tests() {
  golden_logs
  timed "web unit tests" in_web npx vitest run --reporter=dot
}
engine_coverage() {  # branches of the engine and of what it carries, by its own tests
  "$VENV/bin/python" -m coverage run --data-file=.data/coverage -m pytest -p no:django core/tests/work core/tests/procedures >/dev/null && "$VENV/bin/python" -m coverage report --data-file=.data/coverage --fail-under=88 | tail -n 1
}
