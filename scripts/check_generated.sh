#!/bin/sh
# Fail when a generated file no longer follows from the code.
set -eu
new=$(mktemp -d)
trap 'rm -rf "$new"' EXIT
.venv/bin/python scripts/generate_docs.py "$new"
(cd web && npx openapi-typescript "$new/openapi.json" -o "$new/schema.d.ts" >/dev/null 2>&1)
for pair in case.schema.json:docs/case.schema.json openapi.json:docs/openapi.json schema.d.ts:web/src/api/schema.d.ts; do
  if ! cmp -s "$new/${pair%%:*}" "${pair##*:}"; then
    echo "${pair##*:} is stale: run 'make generate' and commit it" >&2
    exit 1
  fi
done
