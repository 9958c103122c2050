"""All cautions: each names the hazard, then the action. They stand at the step where they matter, nowhere as a block.

Each was read twice for a second meaning: no action is written so that it could be taken for its opposite. Common
practice, no source; where it says so, local rules and licensed practice decide.
"""

from dataclasses import dataclass
from typing import Literal

RULES = "Follow local rules."


@dataclass(frozen=True, slots=True)
class Caution:
    """A hazard and what to do about it."""

    hazard: str
    action: str

    @property
    def text(self) -> str:
        """The caution as it is shown."""
        return f"Caution: {self.hazard} {self.action}"


SAWING = Caution(
    "Saw blades and grinding sparks injure hands, eyes and ears.",
    "Keep the guard on, clamp the piece, and wear eye and ear protection.",
)
CUT_PLAN = Caution(
    "A loose offcut is thrown by the blade.",
    "Clamp the piece on both sides of the cut, keep the guard on, and wear eye and ear protection.",
)
DRILLING = Caution("A drill catches a loose plate and spins it.", "Clamp the plate before you drill it.")
SHEET_EDGES = Caution(
    "Fresh sheet edges and burrs cut hands.", "Wear cut-resistant gloves to carry it, and deburr it first."
)
TURNING = Caution(
    "A lathe or drill winds up gloves, sleeves and long hair.",
    "Work without gloves, with short sleeves, and with long hair tied back.",
)
PARTS = Caution(
    "Rotating tools throw chips and grip loose clothing.",
    "Clamp every piece, wear eye protection, and wear no gloves at a rotating tool.",
)
LIFTING = Caution(
    "A heavy load crushes feet and strains the back.",
    "Know where it goes before you lift, keep the back straight, and use a hoist if in doubt.",
)
HANGING_CARRIAGE = Caution(
    "A hanging carriage falls, and rails trap fingers.",
    "Block it from below and keep hands off the rails.",
)
COUNTERWEIGHT = Caution(
    "A broken rope or chain drops the weight and the head.",
    "Block both while you work, and guard the way of the weight.",
)
ROPE = Caution(
    "A broken rope or chain drops the weight and the head.",
    "Fit a guard around the weight and a second rope or a brake on the motor. A trained person decides.",
)
FALLING_HEAD = Caution(
    "A head that falls when the power fails crushes.",
    f"A trained person decides on brakes. {RULES}",
)
BELT = Caution("A belt pulls fingers in where it meets its pulley.", "Cover that place before you switch on.")
BLOCK = Caution(
    "A cast block or base crushes when it is lifted or tipped.",
    f"Use two people or a hoist. {RULES}",
)
WELDING = Caution(
    "Welding blinds, burns, starts fires, and zinc coatings give off toxic fumes.",
    "Use a screen and extraction, remove zinc first, and let a trained person weld.",
)
RESIN = Caution(
    "Epoxy resin can sensitise skin, and a thick pour grows hot.",
    "Wear nitrile gloves, pour thin layers, and follow the maker's data sheet.",
)
EPOXY_GRANITE = Caution(
    "Epoxy resin can sensitise skin, a full bucket overheats and smokes, and stone dust harms the lungs.",
    f"Wear nitrile gloves and a dust mask, air the room, and carry a hot bucket outdoors. {RULES}",
)
BONDING = Caution("Epoxy resin can sensitise skin.", "Wear nitrile gloves and air the room.")
CONCRETE = Caution(
    "Wet cement burns skin and eyes, its dust harms the lungs, and a full form crushes.",
    f"Wear gloves, goggles and a dust mask, and check that the floor carries the form. {RULES}",
)
MORTAR = Caution(
    "Wet cement burns skin and eyes, and its dust harms the lungs.",
    f"Wear gloves, goggles and a dust mask. {RULES}",
)
SAND = Caution("Quartz dust harms the lungs.", f"Wear a dust mask and wipe up wet instead of sweeping. {RULES}")
SHOT = Caution(
    "Lead shot is toxic, and spilled shot rolls underfoot.",
    f"Wear gloves, wash your hands, and sweep up what is spilled. {RULES}",
)
POURING = Caution(
    "Resin and cement harm skin and lungs, and a pour can overheat.",
    f"Read the cautions of this mix in Pour before you open a container. {RULES}",
)
PAINTING = Caution(
    "Paint and solvent vapour harms the lungs and burns.",
    "Wear a respirator with the right filter, air the room, and keep flames away.",
)
MAINS = Caution("Mains voltage kills.", "A licensed electrician connects and earths it to the local code.")
PLASMA_WIRING = Caution(
    "A plasma arc's start destroys electronics, and mains voltage kills.",
    "Earth the table separately, keep the controller in a closed metal box, and let a licensed electrician connect it.",
)
HOMING = Caution(
    "An axis that homes for the first time crushes what is in its way.",
    "Keep one hand on the stop button and the other off the axes.",
)
PUSH = Caution(
    "A frame tips or an anchor fails when somebody hangs on it.",
    "Pull with a scale only, with the spindle switched off. Nobody hangs on the machine.",
)
FIRST_CUTS: dict[Literal["cutting", "laser", "plasma", "knife", "carrying"], Caution] = {
    "cutting": Caution(
        "A cutter throws chips and breaks.",
        "Wear eye and ear protection and keep hands away until it stands still.",
    ),
    "laser": Caution(
        "A laser blinds in an instant, starts fires, and its fumes are toxic.",
        "Run it only in a closed, interlocked enclosure with extraction, and stay beside it.",
    ),
    "plasma": Caution(
        "A plasma arc burns, blinds and gives off fumes, and water beside it conducts.",
        "Clamp the earth lead first, use extraction, welding glass and dry gloves, and keep water off the wiring.",
    ),
    "knife": Caution(
        "A drag knife or hot tool cuts and burns when an axis moves by surprise.",
        "Keep hands off the table while the drives are powered.",
    ),
    "carrying": Caution(
        "A load that drops or swings hurts whoever stands below.",
        "Keep everybody out from under it and secure the load twice.",
    ),
}
"""At the first use, by process."""
