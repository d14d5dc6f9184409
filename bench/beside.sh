#!/usr/bin/env bash
# This commit beside another: both built from clean trees, run in turn five times, the median ratio of each thing.
# Run by `./solvenda bench beside COMMIT`; the commit must have the mode `beside` itself, or gets it from here.
set -euo pipefail
root=$PWD
then=$(mktemp -d)
git worktree add --detach "$then" "$1" >/dev/null
trap 'git worktree remove --force "$then"' EXIT
# What is measured is what this commit measures.
cp bench/Solvenda.Bench/Beside.cs "$then/bench/Solvenda.Bench/"
if ! grep -q '"beside"' "$then/bench/Solvenda.Bench/Program.cs"; then
  sed -i 's/    case \["hostile"\]:/    case ["beside"]:\n        Beside.Measure();\n        break;\n    case ["hostile"]:/' "$then/bench/Solvenda.Bench/Program.cs"
fi
for tree in "$root" "$then"; do
  (cd "$tree" && dotnet build bench/Solvenda.Bench -c Release -v quiet --nologo >/dev/null)
done
for turn in 1 2 3 4 5; do
  for tree in "$then" "$root"; do
    dotnet "$tree/bench/Solvenda.Bench/bin/Release/net10.0/Solvenda.Bench.dll" beside |
      sed "s|^|$turn\t$([ "$tree" = "$root" ] && echo now || echo then)\t|" | grep -v '//'
  done
done | awk -F'\t' '
  { v[$3, $1, $2] = $4; if (!($3 in seen)) { seen[$3] = 1; names[++n] = $3 } }
  END {
    for (i = 1; i <= n; i++) {
      for (t = 1; t <= 5; t++) r[t] = v[names[i], t, "now"] / v[names[i], t, "then"]
      for (a = 1; a <= 5; a++) for (b = a + 1; b <= 5; b++) if (r[b] < r[a]) { x = r[a]; r[a] = r[b]; r[b] = x }
      printf "%-28s %.2f of what it was (median of five; %.2f to %.2f), %.0f us\n", names[i], r[3], r[1], r[5], v[names[i], 5, "now"] / 1000
    }
  }'
