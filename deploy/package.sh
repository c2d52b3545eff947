#!/usr/bin/env bash
# Builds the program as one folder that needs no .NET on the machine, and as a Debian package: deploy/package.sh [FOLDER]
# The package makes a user and a service of its own; an upgrade makes a backup before it replaces the program.
set -euo pipefail
root=$(cd "$(dirname "$0")/.." && pwd)
out=$(mkdir -p "${1:-$root/artifacts/package}" && cd "${1:-$root/artifacts/package}" && pwd)
version=$(sed -n 's:.*<Version>\(.*\)</Version>.*:\1:p' "$root/Directory.Build.props")
[ -n "$version" ] || { echo "package.sh: Directory.Build.props names no version." >&2; exit 1; }
[ -f "$root/src/Pyrometron.Server/wwwroot/index.html" ] || { echo "package.sh: the front end is not built; run ./run.sh once." >&2; exit 1; }
arch=$(dpkg --print-architecture)
case $arch in
  amd64) runtime=linux-x64 ;;
  arm64) runtime=linux-arm64 ;;
  *) echo "package.sh: there is no build for $arch; amd64 and arm64 are known." >&2; exit 1 ;;
esac

tree=$out/tree
rm -rf "$tree"
mkdir -p "$tree/DEBIAN" "$tree/opt/pyrometron" "$tree/usr/lib/systemd/system" "$tree/usr/bin" "$tree/usr/share/doc/pyrometron"
# Lock files of the sources are for builds without a runtime in them: this one has its own.
dotnet publish "$root/src/Pyrometron.Server" -c Release -r "$runtime" --self-contained -o "$tree/opt/pyrometron" --nologo -v quiet \
  -p:NuGetLockFilePath=obj/publish.lock.json -p:OpenApiGenerateDocumentsOnBuild=false
[ -f "$root/artifacts/bundled.txt" ] || { echo "package.sh: the front end was built without a list of its packages; run ./run.sh once." >&2; exit 1; }
node "$root/web/bill-of-materials/make.js" "$tree/opt/pyrometron"
cp "$root/deploy/pyrometron.service" "$tree/usr/lib/systemd/system/"
cp "$root/docs/running.md" "$root/docs/security.md" "$root/docs/third-party.md" "$tree/usr/share/doc/pyrometron/"
printf '#!/bin/sh\nexec /opt/pyrometron/Pyrometron.Server "$@"\n' > "$tree/usr/bin/pyrometron"
chmod 755 "$tree/usr/bin/pyrometron"
mkdir -p "$tree/usr/share/man/man1" "$tree/usr/share/bash-completion/completions" "$tree/usr/share/zsh/vendor-completions" \
  "$tree/usr/share/fish/vendor_completions.d"
"$tree/opt/pyrometron/Pyrometron.Server" man | gzip -9n > "$tree/usr/share/man/man1/pyrometron.1.gz"
"$tree/opt/pyrometron/Pyrometron.Server" completion bash > "$tree/usr/share/bash-completion/completions/pyrometron"
"$tree/opt/pyrometron/Pyrometron.Server" completion zsh > "$tree/usr/share/zsh/vendor-completions/_pyrometron"
"$tree/opt/pyrometron/Pyrometron.Server" completion fish > "$tree/usr/share/fish/vendor_completions.d/pyrometron.fish"
for script in preinst postinst prerm; do install -m 755 "$root/deploy/debian/$script" "$tree/DEBIAN/$script"; done
cat > "$tree/DEBIAN/control" <<CONTROL
Package: pyrometron
Version: $version
Architecture: $arch
Maintainer: The Pyrometron team <team@pyrometron.invalid>
Section: admin
Priority: optional
Depends: adduser, systemd, libc6, libstdc++6, zlib1g
Installed-Size: $(du -sk "$tree/opt" | cut -f1)
Description: which machines need cleaning, repasting or repadding next
 Judges by temperature drift and service intervals which desktops, laptops,
 servers and graphics cards need work, plans it, guides it at the bench and
 proves what it won.
CONTROL
dpkg-deb --root-owner-group --build "$tree" "$out/pyrometron_${version}_$arch.deb"
