"""Pictures as they are kept: read by a well-kept library, made small, encoded anew, and nothing else of the file kept.

How large one may be hangs on what decoding it costs: a JPEG is decoded small, unless it is progressive; a PNG and a WebP
are decoded whole. One is decoded at a time, so that all of them together cost what the worst one does.
"""

from __future__ import annotations

import io
from collections.abc import Mapping
from typing import TYPE_CHECKING, Final

from kemble.core.computing_guard import computes
from kemble.core.facts.problems import Refused, refuse
from kemble.core.sentences import say
from kemble.server.storage.fair_lock import PICTURES

if TYPE_CHECKING:
    from PIL.Image import Image

MOST_BYTES: Final = 12 * 2**20  # of a file as it comes
MAX_SIDE: Final = 16_000  # as it comes, in pixels; each row costs memory of its own, however short it is
# Megapixels, so that decoding costs at most 150 MB: measured (tests/server/test_pictures.py).
MAX_MEGAPIXELS: Final[Mapping[str, int]] = {
    "JPEG": 80,
    "progressive JPEG": 20,
    "PNG": 20,
    "PNG with transparency or a palette": 12,
    "WEBP": 8,
}
_SIDE: Final = 1280  # the longer one as it is kept, in pixels
_QUALITY: Final = 78
_READ: Final = ("PNG", "JPEG", "WEBP")


@computes
def as_webp(data: bytes) -> bytes:
    """The picture turned upright, at most 1280 pixels long, as WebP without its metadata: where it was taken goes.

    Raises Refused for what is no PNG, JPEG or WebP, is damaged, or too large.
    """
    from PIL import Image as Images  # only who sends a picture needs it
    from PIL import ImageOps, UnidentifiedImageError

    if len(data) > MOST_BYTES:
        refuse(
            "picture",
            say("is {megabytes:.0f} MB large", megabytes=len(data) / 2**20),
            say("at most {most_bytes} MB", most_bytes=MOST_BYTES // 2**20),
        )
    out = io.BytesIO()
    try:
        with PICTURES, Images.open(io.BytesIO(data), formats=_READ) as image:
            _check_size(image.width, image.height, _picture_kind(image))
            if getattr(image, "n_frames", 1) > 1:
                image.seek(0)
            longer = max(image.size)
            small = (max(1, image.width * _SIDE // longer), max(1, image.height * _SIDE // longer))
            image.draft(None, small)  # of a JPEG: decoded at a half, a quarter or an eighth
            smaller = image.convert("RGBA") if image.mode == "P" else image
            smaller.thumbnail((_SIDE, _SIDE))
            ImageOps.exif_transpose(smaller).convert("RGB").save(out, "WEBP", quality=_QUALITY)
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Images.DecompressionBombError) as error:
        if isinstance(error, Refused):
            raise
        refuse("picture", say("cannot be read"), say("a PNG, JPEG or WebP file"))
    return out.getvalue()


def _picture_kind(image: Image) -> str:
    """A row of MAX_MEGAPIXELS."""
    if image.format == "JPEG" and "progressive" in image.info:
        return "progressive JPEG"
    if image.format == "PNG" and image.mode in ("P", "PA", "LA", "RGBA"):
        return "PNG with transparency or a palette"
    return str(image.format)


def _check_size(width: int, height: int, kind: str) -> None:
    """Raises Refused for a picture that would cost too much to decode; called before anything of it is decoded."""
    most = MAX_MEGAPIXELS[kind]
    if max(width, height) > MAX_SIDE or width * height > most * 1_000_000:
        refuse(
            "picture",
            say("has {width} by {height} pixels", width=width, height=height),
            say("at most {side:,} a side and {most} million pixels", side=MAX_SIDE, most=most),
        )


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
