"""How far a plate reaches beyond its blocks, so that their screws do not come too near its edge."""

from unterbau.catalogue.guides import Block
from unterbau.catalogue.screws import screw_size
from unterbau.materials.edge_distance import least_edge


def rim(size: Block, material: str) -> float:
    """Return how far a plate reaches beyond the side of a block that it lies on, m; 0 where their screws are bought."""
    if size.block_screws is None:
        return 0.0
    name, wide, _ = size.block_screws
    return max(0.0, least_edge(material, screw_size(name).d) - (size.width - wide) / 2)
