"""What is entered on the panels of the campus, with mistakes left in.

The cold store's first wall begins with a narrow strip because a joint is pinned there; the bunkhouse is built without
a crane, though its panels are more than people carry; a gable panel of the laboratory lay out of square when it was
read last.
"""

from __future__ import annotations

from nimble_shell.core.setout.choices import JointPin, SetOutChoices
from nimble_shell.core.setout.entered import Anchors, EnteredPost, Screws, Sensor, Socket
from nimble_shell.core.shop.choices import ShopChoices, TapeReadings

_ENGINEER = "structural engineer's sheet S-04"
SET_OUTS: dict[str, SetOutChoices] = {
    "main-laboratory": SetOutChoices(
        posts=(EnteredPost(face="b1.3", u=9.15, width=0.114, load=24_000.0),),
        anchors=(
            Anchors(name="AB1", spacing=1.2, end=0.3, clear=0.05, by=_ENGINEER),
            Anchors(name="HD1", kind="hold_down", face="b1.1", at=(0.15, 11.85), by=_ENGINEER),
        ),
        screws=Screws(spacing=0.15, end=0.05),
        sensors=(
            Sensor(name="HF-W1", face="b1.1", u=0.25, v=1.6, depth=0.2, way="up"),
            Sensor(name="HF-R1", face="b1.roof1", u=6.4, v=4.6, depth=0.25, way="down"),
        ),
        sockets=(Socket(face="b1.1", u=11.5, v=0.45, way="down"), Socket(face="b1.3", u=6.4, v=0.3, way="down")),
    ),
    "sample-cold-store": SetOutChoices(pins=(JointPin(face="b1.1", u=0.15),)),
    "bunkhouse": SetOutChoices(crane=False),
}
#: Read on a panel of the gable whose upper corners had slid 9 mm to the left.
SHOPS: dict[str, ShopChoices] = {
    "main-laboratory": ShopChoices(
        readings=(TapeReadings(panel="B-06", read=(1.550, 2.6455, 1.892, 1.560, 3.0615, 2.2055)),),
    ),
}
