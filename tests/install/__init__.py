"""The built package, installed as a stranger installs it."""
