#!/usr/bin/env bash
# Makes saltmarsh.dotlane from invitation.svg with the command line program. Run it only to change the demo.
set -euo pipefail
cd "$(dirname "$0")"
cli=${1:-../../build/src/cli/dot-lane-cli}
rm -f saltmarsh.dotlane
"$cli" import invitation.svg saltmarsh.dotlane
# Foiled as one stroke a letter, so that nothing gapes where the tip lands.
"$cli" fill saltmarsh.dotlane --line-set "gold foil tip 0.5" --spacing 0.42mm --angle 35 --ends one-stroke
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
# A script title cut as one piece, and the layer that shows around it.
"$cli" make saltmarsh.dotlane lettering --name "Title" \
    --set "text=Saltmarsh" --set "font=Dancing Script" --set weight=700 --set size=24mm --set join=yes --set snug=0.8mm
# Thick enough that card does not tear where the bowl of an a hangs on its stem.
"$cli" check saltmarsh.dotlane --mend piece.thicken --part "Title"
"$cli" make saltmarsh.dotlane layer --name "Title backing" --set "of=Title" --set reveal=-3mm --set corners=round
"$cli" place saltmarsh.dotlane --part "Title" --new-sheet "sheet 6" --stock cream-card-12x12
"$cli" place saltmarsh.dotlane --part "Title backing" --sheet "sheet 5"
# A signpost whose three places stand evenly, whatever they are called.
"$cli" make saltmarsh.dotlane label --name "Signpost" \
    --set edge=rounded --set width=110mm --set height=70mm --set hole=slot --set slot-width=14mm --set hole-inset=5mm
for place in Quay "Reed bed" "Tide mill"; do
    "$cli" step saltmarsh.dotlane --part "Signpost" --add words --set "text=$place" --set size=8mm
done
sets=$("$cli" step saltmarsh.dotlane --part "Signpost" --json | python3 -c \
    'import json, sys; print(*[s["result"] for s in json.load(sys.stdin)["steps"]])')
# shellcheck disable=SC2086
"$cli" step saltmarsh.dotlane --part "Signpost" --add distribute --of $sets \
    --set way=down --set within=the-rest --set inset=15mm
"$cli" place saltmarsh.dotlane --part "Signpost" --sheet "sheet 6"
"$cli" make saltmarsh.dotlane badge --name "Crew badge" --quantity 2 --set size=37/49
"$cli" step saltmarsh.dotlane --part "Crew badge" --add words --set "text=crew" --set size=9mm
"$cli" place saltmarsh.dotlane --part "Crew badge" --sheet "sheet 6"
"$cli" place saltmarsh.dotlane --part "Crew badge" --sheet "sheet 6"
# What is sung on the way, and stars to spray beside the tide.
"$cli" make saltmarsh.dotlane folded-card --name "Song sheet" --set width=105mm --set height=148mm
"$cli" step saltmarsh.dotlane --part "Song sheet" --add words --set "text=Songs for the ebb" --set size=7mm \
    --set right-by=105mm/2
"$cli" place saltmarsh.dotlane --part "Song sheet" --sheet "sheet 6"
"$cli" make saltmarsh.dotlane repeat-pattern --name "Star stencil" \
    --set motif=star --set size=14mm --set gap=5mm --set width=120mm --set height=82mm --set rows=brick \
    --set frame=yes
"$cli" place saltmarsh.dotlane --part "Star stencil" --sheet "sheet 4"
# What is sprayed on the boats: letters whose islands are held by bridges.
"$cli" make saltmarsh.dotlane lettering --name "Boat stencil" --step stencil \
    --set text=BOAT --set "font=League Spartan" --set size=45mm
"$cli" place saltmarsh.dotlane --part "Boat stencil" --sheet "sheet 4"
# Bunting: big letters, too long for a sheet in a row, each laid where there is room.
"$cli" make saltmarsh.dotlane lettering --name "Bunting letters" \
    --set "text=LANTERN" --set "font=League Spartan" --set size=70mm
"$cli" step saltmarsh.dotlane --part "Bunting letters" --add corners --set radius=2mm
"$cli" step saltmarsh.dotlane --part "Bunting letters" --add lay-apart
"$cli" place saltmarsh.dotlane --part "Bunting letters" --new-sheet "sheet 7" --stock heavy-paper-12x12 --pieces
# A sheet to be doodled on: petals in ink, a pencil's grid within them; and a heron as dark as a picture of it.
"$cli" import petals.svg saltmarsh.dotlane --name "Doodle sheet"
"$cli" lane saltmarsh.dotlane --add draw --tool pen-0.4 --pen-colour "#22282c"
"$cli" lane saltmarsh.dotlane --add draw --tool pen-0.4 --pen-colour "#8d9398"
"$cli" lane saltmarsh.dotlane --part "Doodle sheet" --all --to "ink pen 0.4"
"$cli" fill saltmarsh.dotlane --part "Doodle sheet" --lane "grey pen 0.4" --style grid --spacing 2mm --angle 45 \
    --set phase=piece --keep-outline
"$cli" make saltmarsh.dotlane label --name "Heron study" --set edge=plain --set width=64mm --set height=80mm
"$cli" fill saltmarsh.dotlane --part "Heron study" --lane "ink pen 0.4" --inset 3mm --keep-outline --tone heron.png
"$cli" place saltmarsh.dotlane --part "Doodle sheet" --new-sheet "sheet 8" --stock cream-card-12x12
"$cli" place saltmarsh.dotlane --part "Heron study" --sheet "sheet 8"
# A heron of four fabrics for the tote bags: pieces to be fused, cut from the back, and the map to lay them by.
"$cli" import heron_patch.svg saltmarsh.dotlane --name "Heron patch"
"$cli" part saltmarsh.dotlane --part "Heron patch" --copy --name "Heron map"
"$cli" step saltmarsh.dotlane --part "Heron map" --add patch --set lines=map --set satin=3.5mm
"$cli" step saltmarsh.dotlane --part "Heron patch" --add patch --set underlap=4mm --set copies=12
"$cli" apart saltmarsh.dotlane --part "Heron patch" --by colour
"$cli" place saltmarsh.dotlane --part "Heron patch gold" --new-sheet "sheet 9" --stock cotton-on-web-12x12
for fabric in teal rust silver; do # a piece of each cloth on the same mat
    "$cli" place saltmarsh.dotlane --part "Heron patch $fabric" --sheet "sheet 9"
done
"$cli" place saltmarsh.dotlane --part "Heron map" --new-sheet "sheet 10" --stock heavy-paper-12x12
# The same heron, as tall as a door, of card in layers that reach below one another.
"$cli" import heron_patch.svg saltmarsh.dotlane --name "Big heron"
"$cli" place saltmarsh.dotlane --part "Big heron" --scale 750%
"$cli" part saltmarsh.dotlane --part "Big heron" --stock slate-card-12x12
"$cli" lane saltmarsh.dotlane --part "Big heron" --all --to "fine blade"
"$cli" step saltmarsh.dotlane --part "Big heron" --add knock-out --set underlap=4mm
# A border of waves and drops to be painted along the quay: one sheet of film, whatever falls out of it.
"$cli" import tide.svg saltmarsh.dotlane --name "Tide border"
"$cli" step saltmarsh.dotlane --part "Tide border" --add stencil --set margin=12mm
"$cli" place saltmarsh.dotlane --part "Tide border" --sheet "sheet 4"
# A step for a lantern to stand on when the song sheet is opened.
"$cli" step saltmarsh.dotlane --part "Song sheet" --add pop-up --of outline fold \
    --set width=34mm --set height=30mm --set depth=24mm --set at=70
sed -i 's/"name": "saltmarsh"/"name": "Saltmarsh Lantern Walk"/' saltmarsh.dotlane
"$cli" check saltmarsh.dotlane
