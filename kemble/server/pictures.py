"""Pictures as they are kept: read by a well-kept library, made small, encoded anew, and nothing else of the file kept."""

from __future__ import annotations

import io

from kemble.core.facts.problems import refuse
from kemble.core.words import say

MOST_BYTES = 12 * 2**20  # of a file as it comes
_MOST_PIXELS = 50_000_000
_SIDE = 1280  # the longer one, in pixels
_QUALITY = 78
_READ = ("PNG", "JPEG", "WEBP")


def as_webp(data: bytes) -> bytes:
    """The picture turned upright, at most 1280 pixels long, as WebP without its metadata: where it was taken goes.

    Raises Refused for what is no PNG, JPEG or WebP, is damaged, or too large.
    """
    from PIL import Image, ImageOps, UnidentifiedImageError  # only who sends a picture needs it

    if len(data) > MOST_BYTES:
        refuse(
            "picture",
            say("is {megabytes:.0f} MB large", megabytes=len(data) / 2**20),
            say("at most {most_bytes} MB", most_bytes=MOST_BYTES // 2**20),
        )
    try:
        with Image.open(io.BytesIO(data), formats=_READ) as image:
            if image.width * image.height > _MOST_PIXELS:
                refuse(
                    "picture",
                    say("has {width} by {height} pixels", width=image.width, height=image.height),
                    say("at most 50 million pixels"),
                )
            if getattr(image, "n_frames", 1) > 1:
                image.seek(0)
            upright = ImageOps.exif_transpose(image).convert("RGB")
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        refuse("picture", say("cannot be read"), say("a PNG, JPEG or WebP file"))
    upright.thumbnail((_SIDE, _SIDE))
    out = io.BytesIO()
    upright.save(out, "WEBP", quality=_QUALITY)
    return out.getvalue()


def is_plain_webp(data: bytes) -> bool:
    """Whether it is a picture as this keeps them: a WebP no larger than that, one image, nothing said beside it."""
    from PIL import Image, UnidentifiedImageError

    try:
        with Image.open(io.BytesIO(data), formats=("WEBP",)) as image:
            plain = not {"exif", "xmp", "icc_profile"} & image.info.keys() and getattr(image, "n_frames", 1) == 1
            if not plain or max(image.size) > _SIDE:
                return False
            image.load()
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        return False
    return True
