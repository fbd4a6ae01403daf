#!/bin/sh
# The browser journeys drive Debian's headless Chromium; install it where it is missing. The whole
# browser serves too, but takes twice the processor for windows that nobody sees.
set -eu
if command -v chromium-headless-shell >/dev/null 2>&1; then exit 0; fi
if [ "$(id -u)" != 0 ]; then
  if command -v chromium >/dev/null 2>&1; then exit 0; fi
  echo "Chromium is missing and installing it needs root: run 'sudo apt-get install chromium-headless-shell', then again." >&2
  exit 1
fi
echo "Installing Debian's headless Chromium ..."
apt-get update -qq
DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium-headless-shell >/dev/null ||
  DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null
