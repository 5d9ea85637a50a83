"""What a picture costs: the worst that is taken 150 MB above rest, however small its file; the rest is refused undecoded."""

import io
import json
import struct
import subprocess
import sys
import zlib
from pathlib import Path

import pytest
from PIL import Image

from kemble.core.facts.problems import Refused
from kemble.server.runs.pictures import MAX_MEGAPIXELS, MAX_SIDE, as_webp

MOST_MB = 150

# In a process of its own, so that what it costs is all there is: the highest that it came to above rest, in MB.
COSTS = """
import sys, json
from pathlib import Path
import django
django.setup()
from kemble.server.runs.pictures import as_webp
def memory(row):
    return int(Path("/proc/self/status").read_text().split(row)[1].split()[0]) / 1024
as_webp(Path(sys.argv[1]).read_bytes())  # so that the library is loaded
costs = {}
for file in sys.argv[2:]:
    data = Path(file).read_bytes()
    Path("/proc/self/clear_refs").write_text("5")
    rest = memory("VmRSS:")
    kept = as_webp(data)
    costs[Path(file).stem] = (memory("VmHWM:") - rest, len(kept))
print(json.dumps(costs))
"""


def drawn(mode, width, height, kind, **how):
    out = io.BytesIO()
    Image.new(mode, (width, height)).save(out, kind, **how)
    return out.getvalue()


@pytest.mark.skipif(not Path("/proc/self/clear_refs").exists(), reason="memory is read as Linux tells it")
def test_the_largest_of_each_kind_costs_less_than_is_promised(tmp_path):
    transparent = MAX_MEGAPIXELS["PNG with transparency or a palette"]
    largest = {
        "jpeg": drawn("RGB", 16_000, 5_000, "JPEG"),
        "progressive": drawn("RGB", 5_000, 4_000, "JPEG", progressive=True, subsampling=0),
        "png": drawn("RGB", 5_000, 4_000, "PNG"),
        **{f"png-{mode}": drawn(mode, 4_000, transparent * 250, "PNG") for mode in ("P", "LA", "RGBA")},
        "webp": drawn("RGB", 4_000, 2_000, "WEBP"),
        "narrow": drawn("RGB", 1, MAX_SIDE, "PNG"),
    }
    files = []
    for name, data in {"small": drawn("RGB", 64, 48, "PNG"), **largest}.items():
        files.append(tmp_path / f"{name}.picture")
        files[-1].write_bytes(data)
    run = [sys.executable, "-c", COSTS, *map(str, files)]
    told = json.loads(subprocess.run(run, capture_output=True, check=True, text=True).stdout)
    assert set(told) == set(largest)
    assert {name: cost for name, (cost, _) in told.items() if cost > MOST_MB} == {}
    assert all(size > 50 for _, size in told.values())


def png(width, height, rows):
    """A PNG of that size, grey, its rows packed without being held."""

    def chunk(kind, content):
        return struct.pack(">I", len(content)) + kind + content + struct.pack(">I", zlib.crc32(kind + content))

    packer = zlib.compressobj(9)
    row = b"\0" * (width + 1) * 10_000
    packed = b"".join(packer.compress(row) for _ in range(rows // 10_000)) + packer.flush()
    head = struct.pack(">IIBBBBB", width, height, 8, 0, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", packed) + chunk(b"IEND", b"")


@pytest.mark.parametrize(
    ("data", "size"),
    [
        (png(1, 49_000_000, 49_000_000), "1 by 49000000"),
        (drawn("L", MAX_SIDE + 1, 1, "PNG"), "16001 by 1"),
        (drawn("L", 5_000, 4_001, "PNG"), "5000 by 4001"),
        (drawn("RGB", 4_000, 2_001, "WEBP"), "4000 by 2001"),
        (drawn("RGB", 5_000, 4_001, "JPEG", progressive=True), "5000 by 4001"),
        (drawn("LA", 4_000, 3_001, "PNG"), "4000 by 3001"),
    ],
    ids=["narrow", "wide", "png", "webp", "progressive", "transparent"],
)
def test_one_too_large_is_refused_before_it_is_decoded(data, size, monkeypatch):
    monkeypatch.setattr(Image.Image, "load", lambda *_: pytest.fail("decoded"))
    with pytest.raises(Refused, match=f"has {size} pixels"):
        as_webp(data)


@pytest.mark.parametrize("mode", ["RGB", "L", "LA", "RGBA", "P", "1", "I;16", "CMYK"])
def test_every_mode_comes_out_small_and_upright(mode):
    out = io.BytesIO()
    exif = Image.Exif()
    exif[0x0112] = 6  # it lies on its side
    kind = "JPEG" if mode == "CMYK" else "PNG"
    Image.new(mode, (3_000, 1_000)).save(out, kind, exif=exif)
    with Image.open(io.BytesIO(as_webp(out.getvalue()))) as kept:
        assert kept.format == "WEBP"
        assert kept.height == 1280
        assert kept.width in (426, 427)
        assert "exif" not in kept.info
