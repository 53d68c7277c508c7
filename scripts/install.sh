# Brings what is missing. Sourced by ./start and ./test; everything here is quick where nothing is missing.

say() { printf '\033[1m%s\033[0m\n' "$*" >&2; }

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi
}

# apt_packages COMMAND-OR-FILE PACKAGE …: installs the package where its program is missing.
apt_packages() {
  local missing=()
  while [ $# -gt 1 ]; do
    command -v "$1" >/dev/null 2>&1 || compgen -G "$1" >/dev/null || missing+=("$2")
    shift 2
  done
  [ ${#missing[@]} = 0 ] && return
  if ! command -v apt-get >/dev/null; then
    say "Please install: ${missing[*]} (no apt-get here to do it)."
    exit 1
  fi
  say "Installing ${missing[*]} …"
  as_root env DEBIAN_FRONTEND=noninteractive apt-get update -qq
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends --no-upgrade "${missing[@]}" >/dev/null
}

need_postgres() { apt_packages '/usr/lib/postgresql/*/bin/initdb' postgresql; }
need_browser() { apt_packages chromium chromium chromedriver chromium-driver; }

need_toolchains() {
  apt_packages cc gcc
  if ! command -v cargo >/dev/null; then
    say "Rust is missing: install Rust 1.94 or newer (rustup.rs or your distribution), then run this again."
    exit 1
  fi
  if ! node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' 2>/dev/null; then
    say "Node 20.19 or newer is missing: install it from nodejs.org or your distribution, then run this again."
    exit 1
  fi
}

need_node_packages() {
  if [ ! -e web/node_modules/.package-lock.json ] || [ web/package-lock.json -nt web/node_modules/.package-lock.json ]; then
    say "Installing the front end's packages …"
    (cd web && npm ci --no-audit --no-fund --loglevel=error)
  fi
}

# Builds the front end unless nothing of it changed since the last build.
build_web() {
  local newer
  newer=$(find web/src web/public web/index.html web/vite.config.ts web/package-lock.json -newer web/dist/index.html -print -quit 2>/dev/null || echo missing)
  if [ ! -e web/dist/index.html ] || [ -n "$newer" ]; then
    say "Building the front end …"
    (cd web && npx --no-install vite build --logLevel warn)
  fi
}
