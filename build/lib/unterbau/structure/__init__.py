"""Which pieces a machine has, where each ends, what joins them and what carries them; no finite elements."""
