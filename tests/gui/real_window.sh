#!/usr/bin/env bash
# Runs a good part of the window's tests in a real window on a virtual screen, and looks whether it is really there.
set -euo pipefail
gui=$1
export QT_QPA_PLATFORM=xcb
exec xvfb-run -a -s "-screen 0 1400x900x24" "$gui" "from a file*","lines are chosen*","a part is chosen*","the board*","the rehearsal plays*"
