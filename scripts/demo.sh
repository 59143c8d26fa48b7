#!/usr/bin/env bash
# npm run demo: from a fresh clone to a running Lantern Moor. Ctrl+C stops everything.
set -euo pipefail
cd "$(dirname "$0")/.."
export NEXT_TELEMETRY_DISABLED=1
bash scripts/setup.sh
exec node --import tsx scripts/demo.ts "$@"
