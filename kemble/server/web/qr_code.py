"""An address as a square for a camera."""

from __future__ import annotations

import io

import segno


def qr_svg(address: str) -> str:
    """SVG of it."""
    out = io.BytesIO()
    segno.make(address, error="m").save(out, kind="svg", scale=4, border=2, light="#fff", xmldecl=False, svgns=True)
    return out.getvalue().decode()
