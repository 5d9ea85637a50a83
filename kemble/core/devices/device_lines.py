"""The lines of JSON that every measuring device sends, and the error for a line that is not one.

The protocols are written down in docs/scale.md and docs/probe.md.
"""

from __future__ import annotations

import json
from typing import Literal, TypeVar

from pydantic import BaseModel, ConfigDict, ValidationError

MOST_LINE_BYTES = 400


class DeviceError(ValueError):
    """A line that is no line of the protocol. The message says why."""


class DeviceLine(BaseModel):
    model_config = ConfigDict(frozen=True, extra="ignore")  # a later device may say more


Hello = TypeVar("Hello", bound=DeviceLine)
Reading = TypeVar("Reading", bound=DeviceLine)


def parsed(line: bytes, word: str, hello: type[Hello], reading: type[Reading]) -> Hello | Reading:
    """A line as one of the two: an introduction when it has the device's `word` in it. Raises DeviceError."""
    if len(line) > MOST_LINE_BYTES:
        raise DeviceError(f"a line of {len(line)} bytes: at most {MOST_LINE_BYTES}")
    try:
        content = json.loads(line)
    except (ValueError, RecursionError):
        raise DeviceError("not a line of JSON") from None
    if not isinstance(content, dict):
        raise DeviceError("not a JSON object")
    try:
        return hello.model_validate(content) if word in content else reading.model_validate(content)
    except ValidationError as error:
        raise DeviceError(error.errors()[0]["msg"].removeprefix("Value error, ")) from None


def command(do: Literal["hello", "zero"]) -> bytes:
    """The line that asks a device to introduce itself, or a scale to call what lies on it nothing."""
    return json.dumps({"do": do}).encode() + b"\n"
