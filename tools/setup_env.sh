#!/usr/bin/env bash
# Makes the project's own environment in .venv and sees that Qt can start.
# Sourced by ./demo, ./check and ./riktig; quiet when there is nothing to do.
set -euo pipefail
root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
venv="$root/.venv"
# What Qt needs from the system, by Debian's package names.
system_packages=(libegl1 libgl1 libopengl0 libxkbcommon0 libxkbcommon-x11-0 libdbus-1-3
  libfontconfig1 libfreetype6 libglib2.0-0 libxcb-cursor0 libxcb-icccm4 libxcb-image0
  libxcb-keysyms1 libxcb-randr0 libxcb-render-util0 libxcb-shape0 libxcb-xinerama0 libxcb-xkb1)

# Python keeps what it has compiled beside the sources. Without that every start compiles all of them again: a window
# came 1.5 s later, and each worker of the tests spent 14 s on it.
unset PYTHONDONTWRITEBYTECODE

say() { printf '%s\n' "riktig: $*" >&2; }

# The system's own Python first: distributions build it with profile-guided optimisation, which a Python compiled by
# hand often lacks; the plan of the kelp shed took 14 % less with it (median of six). It must be able to make an
# environment, which on Debian needs python3-venv; else the first on the path that can.
find_python() {
  local candidate
  for candidate in /usr/bin/python3.11 /usr/bin/python3.12 /usr/bin/python3.13 \
    python3.11 python3.12 python3.13 python3; do
    if command -v "$candidate" >/dev/null 2>&1 &&
      "$candidate" -c 'import ensurepip, sys, venv; sys.exit(not (3, 11) <= sys.version_info[:2] <= (3, 13))' \
        2>/dev/null; then
      echo "$candidate"
      return 0
    fi
  done
  say "Python 3.11, 3.12 or 3.13 with its module venv was not found. Install it (Debian: apt-get install python3-venv)."
  return 1
}

# make_environment [check]: what the program runs with; with "check" also what checks it.
make_environment() {
  local locks=("$root/requirements.lock")
  [ "${1:-}" = check ] && locks+=("$root/requirements-check.lock")
  local digest stamp
  digest="$(sha256sum "${locks[@]}" "$root/pyproject.toml" | sha256sum | cut -c1-16)"
  stamp="$venv/.lock-of-${1:-run}-$digest"
  [ -e "$stamp" ] && return 0
  local python
  python="$(find_python)" || return 1
  say "making the environment in .venv (about a minute the first time) ..."
  if [ ! -x "$venv/bin/python" ] && ! "$python" -m venv "$venv" >&2; then
    say "python could not make an environment. Install the package python3-venv and try again."
    return 1
  fi
  local quiet=(-q --disable-pip-version-check) lock
  for lock in "${locks[@]}"; do
    "$venv/bin/python" -m pip install "${quiet[@]}" -r "$lock" >&2 || {
      say "the locked packages could not be installed; see the lines above."
      return 1
    }
  done
  "$venv/bin/python" -m pip install "${quiet[@]}" --no-deps -e "$root" >&2
  rm -f "$venv/.lock-of-${1:-run}"-*
  touch "$stamp"
  rm -f "$venv/.planner-compiled"
}

qt_starts() {
  QT_QPA_PLATFORM=offscreen "$venv/bin/python" -c \
    'from PySide6.QtWidgets import QApplication; QApplication([])' >/dev/null 2>&1
}

see_that_qt_starts() {
  [ -e "$venv/.qt-starts" ] && return 0
  if ! qt_starts; then
    if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null 2>&1; then
      say "installing the system libraries that Qt needs ..."
      apt-get update -qq >&2 || true
      DEBIAN_FRONTEND=noninteractive apt-get install -y -qq "${system_packages[@]}" >&2 || true
    fi
    if ! qt_starts; then
      say "Qt cannot start because system libraries are missing. Install them with:"
      say "  sudo apt-get install ${system_packages[*]}"
      return 1
    fi
  fi
  touch "$venv/.qt-starts"
}

# The planner is compiled once, so that the first "Plan for me" does not wait for it.
compile_planner() {
  local stamp="$venv/.planner-compiled"
  [ -e "$stamp" ] && [ -z "$(find "$root/src/riktig/core/optimiser" -name '*.py' -newer "$stamp")" ] && return 0
  say "compiling the planner (some ten seconds, once) ..."
  "$venv/bin/python" -m riktig.core.optimiser.warm_up && touch "$stamp"
}

# A window needs more than a picture does: the X11 plugin's own libraries.
see_that_a_window_can_open() {
  [ -n "${WAYLAND_DISPLAY:-}" ] && return 0
  local plugin missing
  plugin="$(find "$venv" -name libqxcb.so 2>/dev/null | head -n 1)"
  [ -n "$plugin" ] || return 0
  missing="$(ldd "$plugin" 2>/dev/null | awk '/not found/ {print $1}' | sort -u | tr '\n' ' ')"
  [ -z "$missing" ] && return 0
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null 2>&1; then
    say "installing the system libraries that a window needs ..."
    apt-get update -qq >&2 || true
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq "${system_packages[@]}" >&2 || true
    missing="$(ldd "$plugin" | awk '/not found/ {print $1}' | sort -u | tr '\n' ' ')"
    [ -z "$missing" ] && return 0
  fi
  say "a window cannot open because these libraries are missing: $missing"
  say "install them with:  sudo apt-get install ${system_packages[*]}"
  return 1
}

# A general circuit solver, asked as a second opinion by the tests of the live panel.
see_that_ngspice_is_there() {
  command -v ngspice >/dev/null 2>&1 && return 0
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null 2>&1; then
    say "installing ngspice, a second opinion for the tests ..."
    apt-get update -qq >&2 || true
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq ngspice >&2 || true
  fi
  command -v ngspice >/dev/null 2>&1 && return 0
  say "ngspice is missing: the tests that ask it are left out. Install it with:"
  say "  sudo apt-get install ngspice"
}

# The shop's server, which the tests start on a port and with data of their own.
see_that_postgresql_is_there() {
  compgen -G '/usr/lib/postgresql/*/bin/initdb' >/dev/null && return 0
  command -v initdb >/dev/null 2>&1 && return 0
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null 2>&1; then
    say "installing PostgreSQL, for the tests of the shop's server ..."
    apt-get update -qq >&2 || true
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq postgresql >&2 || true
  fi
  compgen -G '/usr/lib/postgresql/*/bin/initdb' >/dev/null && return 0
  say "PostgreSQL is missing, which the tests of the shop's server start. Install it with:"
  say "  sudo apt-get install postgresql"
  return 1
}
