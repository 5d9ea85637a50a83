"""A certificate of its own, for the tablet in the same kitchen: screens stay awake and pages work without the network only
over TLS.

At the first start an authority of this kitchen's is made, and under it a certificate for the names and addresses of this
machine. Devices are told once to trust the authority (docs/door.md); the certificate is made anew when it is near its
end or the names are others, and nobody is asked again. The keys never leave the data folder.
"""

from __future__ import annotations

import ipaddress
import os
import socket
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

_AUTHORITY_YEARS = 10
_LASTS = timedelta(days=397)  # browsers take no certificate that lasts longer
_RENEWED = timedelta(days=30)  # so long before its end
_EARLIER = timedelta(days=1)  # a device's clock may be behind


@dataclass(frozen=True)
class OwnCertificate:
    """Where the certificate, its key and the authority lie, and by what a cook knows the authority again."""

    certificate: Path
    key: Path
    authority: Path
    fingerprint: str


def place_of(data: Path) -> Path:
    return data / "tls"


def own_certificate(data: Path, names: Sequence[str], now: datetime) -> OwnCertificate:
    """The certificate of this machine, made or made anew where it must be. `names` are host names and addresses."""
    place = place_of(data)
    place.mkdir(mode=0o700, exist_ok=True)
    authority, authority_key = _authority(place, now)
    certificate, key = place / "machine.pem", place / "machine-key.pem"
    if not _will_do(certificate, authority, names, now):
        made_key = ec.generate_private_key(ec.SECP256R1())
        made = _issued(names, made_key, authority, authority_key, now)
        _write(key, _private(made_key))
        _write(certificate, made.public_bytes(serialization.Encoding.PEM))
    print_of = authority.fingerprint(hashes.SHA256()).hex(":").upper()
    return OwnCertificate(certificate, key, place / "authority.pem", print_of)


def machine_names(host: str, told: Sequence[str]) -> list[str]:
    """By what this machine is called in its own network: what was told, its host name, and its addresses."""
    own = socket.gethostname()
    names = ["localhost", "127.0.0.1", "::1", own, f"{own.split('.')[0]}.local", *(name.strip("[]") for name in told)]
    if host not in ("0.0.0.0", "::", ""):  # noqa: S104  # compared, not listened on
        names.append(host)
    names += _addresses()
    return [name for name in dict.fromkeys(names) if name]


def _addresses() -> list[str]:
    """The machine's addresses in its network; none where it has none."""
    try:
        result = socket.getaddrinfo(socket.gethostname(), None, type=socket.SOCK_STREAM)
    except OSError:
        result = []
    addresses = [str(item[4][0]).split("%")[0] for item in result]
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as asking:
        try:
            asking.connect(("192.0.2.1", 9))  # nothing is sent: it only tells from where it would be
            addresses.append(str(asking.getsockname()[0]))
        except OSError:
            pass
    return sorted(set(addresses))


def _authority(place: Path, now: datetime) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey]:
    path, key_path = place / "authority.pem", place / "authority-key.pem"
    if path.is_file() and key_path.is_file():
        authority = x509.load_pem_x509_certificate(path.read_bytes())
        key = serialization.load_pem_private_key(key_path.read_bytes(), password=None)
        if isinstance(key, ec.EllipticCurvePrivateKey) and authority.not_valid_after_utc > now + _LASTS:
            return authority, key
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, f"Kemble kitchen of {socket.gethostname()}"[:64])])
    authority = (
        _certificate_builder(name, name, key.public_key(), now, timedelta(days=365 * _AUTHORITY_YEARS))
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs=True), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .sign(key, hashes.SHA256())
    )
    _write(key_path, _private(key))
    _write(path, authority.public_bytes(serialization.Encoding.PEM))
    return authority, key


def _issued(
    names: Sequence[str],
    key: ec.EllipticCurvePrivateKey,
    authority: x509.Certificate,
    authority_key: ec.EllipticCurvePrivateKey,
    now: datetime,
) -> x509.Certificate:
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, names[0][:64])])
    return (
        _certificate_builder(name, authority.subject, key.public_key(), now, _LASTS)
        .add_extension(x509.SubjectAlternativeName([_general_name(name) for name in names]), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_usage(signs=False), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(
            x509.AuthorityKeyIdentifier.from_issuer_public_key(authority_key.public_key()),
            critical=False,
        )
        .sign(authority_key, hashes.SHA256())
    )


def _certificate_builder(
    subject: x509.Name, issuer: x509.Name, key: ec.EllipticCurvePublicKey, now: datetime, lasts: timedelta
) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .public_key(key)
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - _EARLIER)
        .not_valid_after(now + lasts)
    )


def _usage(*, signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=not signs,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        key_cert_sign=signs,
        crl_sign=signs,
        encipher_only=False,
        decipher_only=False,
    )


def _general_name(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _will_do(path: Path, authority: x509.Certificate, names: Sequence[str], now: datetime) -> bool:
    """Whether there is a certificate that is for all these names, of this authority, and not near its end."""
    if not path.is_file():
        return False
    try:
        certificate = x509.load_pem_x509_certificate(path.read_bytes())
        certificate.verify_directly_issued_by(authority)
        told = certificate.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    except Exception:  # whatever is wrong with it, another takes its place
        return False
    return {_general_name(name) for name in names} <= set(told) and certificate.not_valid_after_utc > now + _RENEWED


def _private(key: ec.EllipticCurvePrivateKey) -> bytes:
    return key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )


def _write(path: Path, content: bytes) -> None:
    """Whole or not at all, for its owner's eyes alone."""
    beside = path.with_suffix(".part")
    beside.unlink(missing_ok=True)
    with os.fdopen(os.open(beside, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as file:
        file.write(content)
        file.flush()
        os.fsync(file.fileno())  # every device trusts this one: a power cut must not lose it
    beside.replace(path)
