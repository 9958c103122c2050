"""`unterbau tap FILE.wav`: what rings in a recording of a tap."""

import json
import math
from pathlib import Path

import click

from unterbau.cli import output


@click.command()
@click.argument("recording", type=click.Path(path_type=Path))
@click.option("--channel", default=0, help="Of the recording, from 0.")
@click.option(
    "--newton", default=0.0, help="A hammer's force is on channel 0: N at full scale; the place on channel 1."
)
@click.option("--acceleration", default=0.0, help="Of the place, m/s² at full scale, where a force was recorded.")
@click.option("--json", "as_json", is_flag=True, help="As JSON.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def tap(
    recording: Path, channel: int, newton: float, acceleration: float, as_json: bool, target: str
) -> None:  # fmt: skip
    """Print the frequencies that ring in RECORDING, a WAV file, with damping by half power and by decay.

    With a hammer's force on the first channel and the place's acceleration on the second, also what each mode gives.
    """
    if newton or acceleration:
        _struck(recording, newton, acceleration, as_json, target)
        return
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


def _struck(recording: Path, newton: float, acceleration: float, as_json: bool, target: str) -> None:
    from unterbau.files.wav import read_struck
    from unterbau.shop.measure.hammer import hammer_test

    found = hammer_test(*read_struck(recording, newton, acceleration))
    if as_json:
        rows = [{"frequency": one.frequency, "zeta": one.zeta, "give": one.give} for one in found.circles]
        output.write(target, json.dumps({"blow": found.blow, "circles": rows}, indent=1) + "\n")
        return
    lines = [f"{recording.name}: struck with {found.blow:.0f} N"]
    lines += [
        f"{one.frequency:9.1f} Hz  damping {one.zeta:.2%}  gives {one.give * 1e6:.3g} µm/N" for one in found.circles
    ]
    output.write(target, "\n".join(lines) + "\n")
