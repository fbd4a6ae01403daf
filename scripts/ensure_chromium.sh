#!/bin/sh
# The browser journeys drive Debian's Chromium; install it where it is missing.
set -eu
if command -v chromium >/dev/null 2>&1; then exit 0; fi
if [ "$(id -u)" != 0 ]; then
  echo "Chromium is missing and installing it needs root: run 'sudo apt-get install chromium', then again." >&2
  exit 1
fi
echo "Installing Debian's Chromium ..."
apt-get update -qq
DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null
