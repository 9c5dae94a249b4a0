"""Members of a zip that are not ours: carried from one file to another as they are.

They are copied packed, so that what we can't unpack (encrypted, packed in a way that we do not know, or
damaged) is given back as it came.
"""

import copy
import lzma
import struct
import zipfile
import zlib
from pathlib import Path
from typing import Final

# all that reading a zip of an unknown hand may raise; a name that is no UTF-8 is a ValueError
UNREADABLE: Final = (
    zipfile.BadZipFile,
    zlib.error,
    lzma.LZMAError,
    OSError,
    EOFError,
    NotImplementedError,
    RuntimeError,
    ValueError,
    struct.error,
    zipfile.LargeZipFile,
)
_LOCAL: Final = struct.Struct("<4s22xHH")  # signature, lengths of name and extra field
_DESCRIPTOR: Final = struct.Struct("<4sLLL")
_HAS_DESCRIPTOR: Final = 0x08
_FIELD: Final = struct.Struct("<HH")
_ZIP64: Final = 1


def copy_member(source: Path, info: zipfile.ZipInfo, archive: zipfile.ZipFile) -> None:
    """Append a member of another zip, packed as it is.

    Raises
    ------
    zipfile.BadZipFile
        When its bytes are not all there.
    """
    with source.open("rb") as file:
        file.seek(info.header_offset)
        signature, name, extra = _LOCAL.unpack(file.read(_LOCAL.size))
        if signature != b"PK\x03\x04":
            raise zipfile.BadZipFile(f"{info.filename} is not where the directory says")
        file.seek(name + extra, 1)
        packed = file.read(info.compress_size)
    if len(packed) < info.compress_size:
        raise zipfile.BadZipFile(f"{info.filename} is cut off")
    out = archive.fp
    if out is None:
        raise ValueError("the zip is closed")
    made = copy.copy(info)
    made.extra = _without_zip64(info.extra)
    made.header_offset = out.seek(archive.start_dir)
    out.write(made.FileHeader(zip64=False))
    out.write(packed)
    if made.flag_bits & _HAS_DESCRIPTOR:  # of an encrypted one the key check depends on it: kept
        out.write(_DESCRIPTOR.pack(b"PK\x07\x08", made.CRC, made.compress_size, made.file_size))
    # zipfile has no public way to add what is packed already
    archive.filelist.append(made)
    archive.NameToInfo[made.filename] = made
    archive.start_dir = out.tell()


def _without_zip64(extra: bytes) -> bytes:
    """The extra fields but for the one that holds the old file's own sizes."""
    kept = b""
    while len(extra) >= _FIELD.size:
        kind, length = _FIELD.unpack(extra[: _FIELD.size])
        end = _FIELD.size + length
        kept += extra[:end] if kind != _ZIP64 else b""
        extra = extra[end:]
    return kept
