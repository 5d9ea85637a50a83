"""A certificate of its own: under an authority that a device can trust, for this machine's names, renewed in time."""

import socket
import ssl
import stat
import urllib.request
from datetime import UTC, datetime, timedelta
from ipaddress import ip_address

import pytest
from cryptography import x509
from cryptography.x509.verification import PolicyBuilder, Store, VerificationError
from serving import Server, until

from kemble.server.web import tls
from kemble.server.web.tls import machine_names, own_certificate

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
NAMES = ["kitchen.local", "localhost", "192.0.2.20", "2001:db8::7"]


def certificate(own):
    return x509.load_pem_x509_certificate(own.certificate.read_bytes())


def trusts(own, name, at):
    """What a device that trusts the authority says, by a verifier that made neither."""
    authority = x509.load_pem_x509_certificate(own.authority.read_bytes())
    policy = PolicyBuilder().store(Store([authority])).time(at)
    policy.build_server_verifier(name).verify(certificate(own), [])


class TestCertificate:
    def test_a_device_that_trusts_the_authority_trusts_the_machine(self, tmp_path):
        own = own_certificate(tmp_path, NAMES, NOW)
        trusts(own, x509.DNSName("kitchen.local"), NOW)
        trusts(own, x509.IPAddress(ip_address("192.0.2.20")), NOW)
        with pytest.raises(VerificationError):
            trusts(own, x509.DNSName("other.example"), NOW)
        with pytest.raises(VerificationError):
            trusts(own, x509.DNSName("kitchen.local"), NOW + timedelta(days=400))

    def test_only_its_owner_reads_the_keys(self, tmp_path):
        own = own_certificate(tmp_path, NAMES, NOW)
        for path in tmp_path.joinpath("tls").iterdir():
            assert stat.S_IMODE(path.stat().st_mode) == 0o600
        assert stat.S_IMODE(tmp_path.joinpath("tls").stat().st_mode) == 0o700
        assert b"PRIVATE" not in own.certificate.read_bytes() + own.authority.read_bytes()

    def test_it_stays_as_it_is_until_it_must_be_another(self, tmp_path):
        first = certificate(own_certificate(tmp_path, NAMES, NOW))
        assert certificate(own_certificate(tmp_path, NAMES[:2], NOW + timedelta(days=300))) == first
        later = own_certificate(tmp_path, NAMES, NOW + timedelta(days=370))
        assert certificate(later) != first
        trusts(later, x509.DNSName("kitchen.local"), NOW + timedelta(days=370))

    def test_another_name_is_another_certificate_of_the_same_authority(self, tmp_path):
        first = own_certificate(tmp_path, NAMES, NOW)
        kept = first.authority.read_bytes()
        more = own_certificate(tmp_path, [*NAMES, "pantry.local"], NOW)
        trusts(more, x509.DNSName("pantry.local"), NOW)
        assert more.authority.read_bytes() == kept
        assert more.fingerprint == first.fingerprint

    def test_a_damaged_one_is_made_anew(self, tmp_path):
        own = own_certificate(tmp_path, NAMES, NOW)
        own.certificate.write_text("nonsense")
        trusts(own_certificate(tmp_path, NAMES, NOW), x509.DNSName("kitchen.local"), NOW)

    def test_an_authority_that_is_nearly_over_goes_first(self, tmp_path):
        first = own_certificate(tmp_path, NAMES, NOW)
        later = own_certificate(tmp_path, NAMES, NOW + timedelta(days=365 * 10 - 100))
        assert later.fingerprint != first.fingerprint

    def test_the_names_of_a_machine(self, monkeypatch):
        monkeypatch.setattr(socket, "gethostname", lambda: "pantry")
        monkeypatch.setattr(tls, "_addresses", lambda: ["192.0.2.20"])
        names = machine_names("0.0.0.0", ["kitchen.example", "[::1]"])
        assert {"localhost", "127.0.0.1", "::1", "pantry", "pantry.local", "kitchen.example", "192.0.2.20"} == set(
            names
        )


def test_served_over_tls_of_its_own(tmp_path):
    """A client that trusts the authority alone is answered, with cookies and HSTS as over any TLS; another is not."""
    server = Server(tmp_path / "data", KEMBLE_TLS="own")
    server._begin("serve", "--port", str(server.port))
    try:
        authority = tmp_path / "data" / "tls" / "authority.pem"
        until(authority.is_file)
        trusting = ssl.create_default_context(cafile=str(authority))
        url = f"https://127.0.0.1:{server.port}"

        def asked(path, context):
            try:
                return urllib.request.urlopen(url + path, context=context, timeout=10)
            except urllib.error.URLError as error:
                if isinstance(error.reason, ConnectionRefusedError):
                    return None
                raise

        answer = until(lambda: asked("/api/health", trusting))
        assert answer.status == 200
        assert "max-age=" in answer.headers["Strict-Transport-Security"]
        assert asked("/api/authority.pem", trusting).read() == authority.read_bytes()
        cookies = asked("/api/session", trusting).headers.get_all("Set-Cookie") or []
        assert cookies
        assert all("Secure" in cooky for cooky in cookies)
        with pytest.raises(urllib.error.URLError) as refused:
            asked("/api/health", ssl.create_default_context())
        assert isinstance(refused.value.reason, ssl.SSLCertVerificationError)
    finally:
        server.stop()


@pytest.mark.django_db
class TestHealth:
    def test_well(self, client):
        answer = client.get("/api/health", HTTP_HOST="127.0.0.1:8000")
        assert (answer.status_code, answer.json()) == (200, {"state": "well", "says": []})

    def test_a_disk_that_is_nearly_full(self, client, monkeypatch):
        from kemble.server.api import health

        monkeypatch.setattr(health, "SPARE_BYTES", 10**18)
        answer = client.get("/api/health", HTTP_HOST="127.0.0.1:8000")
        assert (answer.status_code, answer.json()["says"]) == (503, ["The disk is nearly full."])

    def test_no_authority_where_it_speaks_no_tls(self, client):
        assert client.get("/api/authority.pem", HTTP_HOST="127.0.0.1:8000").status_code == 404


def test_django_has_nothing_to_say_of_how_it_is_served(tmp_path):
    """check --deploy over TLS; what is silenced stands in the settings with its reason."""
    server = Server(tmp_path / "data", KEMBLE_TLS="own")
    told = server.manage("check", "--deploy", "--fail-level", "INFO")
    assert (told.returncode, "no issues" in told.stdout) == (0, True), told.stderr[:2000]
