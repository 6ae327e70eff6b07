"""A drum's label held before a camera: a film of one still picture with its code, as browsers take for a camera."""

from __future__ import annotations

from pathlib import Path

from PIL import Image, ImageDraw
from reportlab.graphics.barcode.code128 import Code128
from reportlab.graphics.barcode.qrencoder import QRCode, QRErrorCorrectLevel

__all__ = ["film_of", "line_code", "square_code"]

WIDE, HIGH, FRAMES = 640, 480, 4


def square_code(words: str) -> Image.Image:
    """As QR, by reportlab: the code our own service cards carry."""
    code = QRCode(None, QRErrorCorrectLevel.M)
    code.addData(words)
    code.make()
    count, size = code.getModuleCount(), 8
    picture = Image.new("L", ((count + 8) * size, (count + 8) * size), 255)
    draw = ImageDraw.Draw(picture)
    for row in range(count):
        for column in range(count):
            if code.isDark(row, column):
                x, y = (column + 4) * size, (row + 4) * size
                draw.rectangle((x, y, x + size - 1, y + size - 1), fill=0)
    return picture


def line_code(words: str) -> Image.Image:
    """As Code 128, by reportlab."""
    code = Code128(words, barWidth=1, quiet=0)
    code.validate()
    code.encode()
    code.decompose()
    bars = code.decomposed
    widths = [ord(each.lower()) - ord("a") + 1 for each in bars]
    module, x = 3, 60
    picture = Image.new("L", (sum(widths) * module + 120, 200), 255)
    draw = ImageDraw.Draw(picture)
    for each, width in zip(bars, widths, strict=True):
        if each.isupper():  # reportlab writes bars in capitals, gaps in small letters
            draw.rectangle((x, 30, x + width * module - 1, 170), fill=0)
        x += width * module
    return picture


def film_of(picture: Image.Image, path: Path) -> Path:
    """The picture in the middle of a grey frame, as YUV4MPEG2 with nothing compressed."""
    frame = Image.new("L", (WIDE, HIGH), 160)
    fitted = picture.copy()
    fitted.thumbnail((WIDE - 40, HIGH - 40), Image.Resampling.NEAREST)
    frame.paste(fitted, ((WIDE - fitted.width) // 2, (HIGH - fitted.height) // 2))
    one = frame.tobytes() + bytes([128]) * (WIDE * HIGH // 2)
    head = f"YUV4MPEG2 W{WIDE} H{HIGH} F10:1 Ip A1:1 C420jpeg\n".encode()
    path.write_bytes(head + b"".join(b"FRAME\n" + one for _ in range(FRAMES)))
    return path
