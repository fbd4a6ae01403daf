#!/bin/sh
# Fail when a generated file no longer follows from the code.
set -eu
new=$(mktemp -d)
trap 'rm -rf "$new"' EXIT
.venv/bin/python scripts/generate_docs.py "$new"
for name in case.schema.json learned.schema.json openapi.json SCHOOLS.md; do
  if ! cmp -s "$new/$name" "docs/$name"; then
    echo "docs/$name is stale: run 'make generate' and commit it" >&2
    exit 1
  fi
done
