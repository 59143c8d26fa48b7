#!/usr/bin/env bash
# Brings what the commands need and the machine lacks: node modules, PostgreSQL and Chromium. Safe to run again.
set -euo pipefail
cd "$(dirname "$0")/.."

say() { printf '  %s\n' "$*"; }
fail() { printf '\n%s\n' "$*" >&2; exit 1; }

command -v node >/dev/null || fail "Node.js 20 or newer is needed and was not found. Install it, then run this again."
[ "$(node -p 'Number(process.versions.node.split(".")[0]) >= 20')" = true ] || fail "Node.js 20 or newer is needed; this is $(node --version)."

lock_hash=$(sha256sum package-lock.json | cut -d' ' -f1)
stamp=node_modules/.nest-key-lock
# The modules are fetched while Debian's packages are.
modules=
if [ "$(cat "$stamp" 2>/dev/null)" != "$lock_hash" ]; then
  say "Installing node modules from the lock file (a minute or two)"
  npm ci --no-fund --no-audit --loglevel=error &
  modules=$!
fi

if [ "$(id -u)" = 0 ]; then as_root() { "$@"; }
elif command -v sudo >/dev/null && sudo -n true 2>/dev/null; then as_root() { sudo "$@"; }
else as_root() { return 1; }
fi

missing=()
if [ -z "${DATABASE_URL:-}" ] && ! grep -qs "^DATABASE_URL=." .env .env.local; then ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || missing+=(postgresql); fi
# Where there is a whole Chromium, it will do; its headless shell is several times faster.
shell_wanted=
if [[ " $* " == *" with-browser "* ]] && [ ! -x /usr/bin/chromium-headless-shell ]; then
  if [ -x /usr/bin/chromium ]; then shell_wanted=yes; else missing+=(chromium-headless-shell); fi
fi
if [[ " $* " == *" with-nginx "* ]]; then [ -x /usr/sbin/nginx ] || missing+=(nginx); fi
if [ "${#missing[@]}" -gt 0 ]; then
  say "Installing from Debian's packages: ${missing[*]}"
  # PostgreSQL's package would start a server of its own; these commands bring their own instead.
  if [ ! -e /etc/postgresql-common/createcluster.conf ]; then
    as_root mkdir -p /etc/postgresql-common && echo 'create_main_cluster = false' | as_root tee /etc/postgresql-common/createcluster.conf >/dev/null || true
  fi
  # So would nginx's: Debian asks this file before it starts a service.
  policy=/usr/sbin/policy-rc.d
  if [ ! -e "$policy" ]; then
    printf '#!/bin/sh\nexit 101\n' | as_root tee "$policy" >/dev/null && as_root chmod +x "$policy" && trap 'as_root rm -f "$policy"' EXIT || true
  fi
  log=$(mktemp)
  { as_root env DEBIAN_FRONTEND=noninteractive apt-get update &&
    as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends -o Dpkg::Options::=--force-confold "${missing[@]}"; } >"$log" 2>&1 || {
    tail -n 5 "$log" >&2
    fail "Could not install ${missing[*]}. Install it by hand (as root: apt-get install ${missing[*]}), or, for PostgreSQL, set DATABASE_URL to a server of version 15 or newer; then run this again."
  }
  rm -f "$log"
fi
if [ -n "$shell_wanted" ]; then
  { as_root env DEBIAN_FRONTEND=noninteractive apt-get update && as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends chromium-headless-shell; } >/dev/null 2>&1 ||
    say "Debian's chromium-headless-shell could not be installed: the browser tests take longer with Chromium itself"
fi
if [ -n "$modules" ]; then
  wait "$modules" || fail "Could not install the node modules. Look above for the reason, put it right, then run this again."
  echo "$lock_hash" > "$stamp"
fi
