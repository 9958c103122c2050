"""What the names of sections mean; sizes in millimetres."""

NAMES = {
    "shs-60x60x4": "square tube, cold-formed EN 10219-2, side × side × wall; with -hot EN 10210-2",
    "rhs-80x40x4": "rectangular tube, height × width × wall; with -hot EN 10210-2",
    "chs-50x3": "round tube, diameter × wall",
    "flat-80x10": "solid rectangle, height × width",
    "rod-20": "solid round",
    "angle-50x50x5": "angle EN 10056-1, height × width × wall",
    "upn-100": "rolled channel with tapered flanges, by height",
    "ipe-100": "rolled I section, by height",
    "box-160x120x10": "box of bonded plates, sharp corners, height × width × wall",
    "tslot-40L-1x2": "slotted profile: module and weight (L light, H heavy), columns × rows",
    "cprofile-40x80": "slotted profile of six 20 mm modules in a U",
}
