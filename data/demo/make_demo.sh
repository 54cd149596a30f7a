#!/usr/bin/env bash
# Makes saltmarsh.dotlane from invitation.svg with the command line program. Run it only to change the demo.
set -euo pipefail
cd "$(dirname "$0")"
cli=${1:-../../build/src/cli/dot-lane-cli}
rm -f saltmarsh.dotlane
"$cli" import invitation.svg saltmarsh.dotlane
"$cli" fill saltmarsh.dotlane --line-set "gold foil tip 0.5" --spacing 0.42mm --angle 35
"$cli" place saltmarsh.dotlane --part Invitation --new-sheet "sheet 1" --stock cream-card-12x12
"$cli" place saltmarsh.dotlane --part Invitation --sheet "sheet 1"
"$cli" place saltmarsh.dotlane --part Invitation --new-sheet "sheet 2" --stock cream-card-12x12
"$cli" place saltmarsh.dotlane --part Invitation --sheet "sheet 2"
"$cli" place saltmarsh.dotlane --part Invitation --wanted 4
sed -i 's/"name": "saltmarsh"/"name": "Saltmarsh Lantern Walk"/' saltmarsh.dotlane
"$cli" check saltmarsh.dotlane
