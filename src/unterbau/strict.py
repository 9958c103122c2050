"""How files are validated: a setting each stored dataclass carries, read by `files`."""

STRICT = {"strict": True, "extra": "forbid", "allow_inf_nan": False}
