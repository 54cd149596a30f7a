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
# Sleeves for the lanterns: two to a sheet, so forty take twenty such sheets.
"$cli" make saltmarsh.dotlane carton --name "Lantern sleeve" --quantity 40 \
    --set kind=sleeve --set width=64mm --set depth=64mm --set height=110mm --set thickness=0.25mm --set frame=12mm
"$cli" place saltmarsh.dotlane --part "Lantern sleeve" --new-sheet "sheet 3" --stock heavy-paper-12x12
"$cli" place saltmarsh.dotlane --part "Lantern sleeve" --sheet "sheet 3"
# The tide as a stencil's edge.
"$cli" make saltmarsh.dotlane edge-strip --name "Tide stencil" \
    --set edge=wave --set length=560mm --set height=70mm --set depth=16mm --set pitch=40mm --set both-sides=yes
"$cli" place saltmarsh.dotlane --part "Tide stencil" --new-sheet "sheet 4" --stock stencil-film-12x24 --mat mat-12x24-standard
# Tags for the way, and a label with a layer that shows around it.
"$cli" make saltmarsh.dotlane label --name "Way-marker tag" --quantity 2 \
    --set edge=oval --set width=46mm --set height=46mm --set hole=round --set hole-size=4mm --set hole-inset=4mm
"$cli" step saltmarsh.dotlane --part "Way-marker tag" --add words --set "text=Quay" --set size=7mm
"$cli" place saltmarsh.dotlane --part "Way-marker tag" --sheet "sheet 2"
"$cli" place saltmarsh.dotlane --part "Way-marker tag" --sheet "sheet 2"
"$cli" make saltmarsh.dotlane label --name "Lamp label" --set width=84mm --set height=50mm --set border=3mm
"$cli" step saltmarsh.dotlane --part "Lamp label" --add words --set "text=Lamp no." --set size=8mm
"$cli" place saltmarsh.dotlane --part "Lamp label" --sheet "sheet 2"
"$cli" make saltmarsh.dotlane layer --name "Lamp label backing" --set "of=Lamp label" --set reveal=-3mm
"$cli" place saltmarsh.dotlane --part "Lamp label backing" --new-sheet "sheet 5" --stock slate-card-12x12
sed -i 's/"name": "saltmarsh"/"name": "Saltmarsh Lantern Walk"/' saltmarsh.dotlane
"$cli" check saltmarsh.dotlane
