#!/usr/bin/env bash
# Installs launcher, icon and file type for the present user, pointing at this checkout.
set -euo pipefail
here="$(cd "$(dirname "$0")" && pwd)"
data="${XDG_DATA_HOME:-$HOME/.local/share}"
mkdir -p "$data/applications" "$data/icons/hicolor/256x256/apps" "$data/mime/packages"
sed "s|^Exec=riktig|Exec=$(dirname "$here")/riktig|" "$here/riktig.desktop" > "$data/applications/riktig.desktop"
cp "$here/riktig.png" "$data/icons/hicolor/256x256/apps/riktig.png"
cp "$here/riktig.xml" "$data/mime/packages/riktig.xml"
command -v update-mime-database >/dev/null && update-mime-database "$data/mime" || true
command -v update-desktop-database >/dev/null && update-desktop-database "$data/applications" || true
echo "Riktig is in the menu, and .riktig files open with it."
