"""`unterbau tap FILE.wav`: what rings in a recording of a tap."""

import json
import math
from pathlib import Path

import click

from unterbau.cli import output


@click.command()
@click.argument("recording", type=click.Path(path_type=Path))
@click.option("--channel", default=0, help="Of the recording, from 0.")
@click.option("--json", "as_json", is_flag=True, help="As JSON.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def tap(recording: Path, channel: int, as_json: bool, target: str) -> None:
    """Print the frequencies that ring in RECORDING, a WAV file, with damping by half power and by decay."""
    from unterbau.files.wav import read_wav
    from unterbau.shop.measure.tap import tap_test

    found = tap_test(*read_wav(recording, channel))
    if as_json:
        rows = [
            {"frequency": one.frequency, "height": one.height, "half_power": one.half_power,
             "decay": one.decay if math.isfinite(one.decay) else None, "lines": one.lines}
            for one in found.peaks
        ]  # fmt: skip
        output.write(target, json.dumps({"seconds": found.seconds, "peaks": rows}, indent=1) + "\n")
        return
    lines = [f"{recording.name}: {found.seconds:.2f} s after the tap"]
    for one in found.peaks:
        few = ", few lines: the recording is short for it" if one.lines < 5 else ""
        lines.append(f"{one.frequency:9.1f} Hz  {one.height:4.0%}  damping {one.half_power:.2%} by half power, "
                     f"{one.decay:.2%} by decay{few}")  # fmt: skip
    output.write(target, "\n".join(lines) + "\n")
