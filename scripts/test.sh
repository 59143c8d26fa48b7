#!/usr/bin/env bash
# npm test: lint, types, unit, database and browser tests, from a fresh clone.
set -euo pipefail
cd "$(dirname "$0")/.."
export NEXT_TELEMETRY_DISABLED=1
bash scripts/setup.sh with-browser with-nginx
exec node --import tsx scripts/test.ts "$@"
