# Installs the npm packages of the lock file when they are missing or it changed. Sourced by ./start and ./check.
# Not "npm ci": it refuses a lock made where the registry offers only this platform's optional binaries.
if ! command -v node >/dev/null || [ "$(node -p 'Number(process.versions.node.split(".")[0])')" -lt 20 ]; then
  echo "Node 20.19 or newer is needed. On Debian: apt-get install nodejs npm" >&2
  exit 1
fi
lock=$(sha256sum package-lock.json | cut -d' ' -f1)
if [ "$(cat node_modules/.vast-lock 2>/dev/null)" != "$lock" ]; then
  echo "Installing npm packages …"
  npm install --no-save --no-audit --no-fund --loglevel=error
  printf %s "$lock" > node_modules/.vast-lock
fi
