using System.Buffers.Binary;
using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;

namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>
/// A device that makes and proves one passkey, and does not ask anybody: ES256, no attestation. What it writes follows
/// W3C Web Authentication, level 3: 6.1 (authenticator data), 6.5.4 (attestation object), 5.8.1 (client data); RFC 8949
/// (CBOR) and RFC 9053 (keys).
/// </summary>
internal sealed class SoftPasskey(string domain, string origin) : IDisposable
{
    private const byte Present = 0x01;
    private const byte Verified = 0x04;
    private const byte WithCredential = 0x40;

    private readonly ECDsa _key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
    private readonly byte[] _id = RandomNumberGenerator.GetBytes(32);

    public uint Counter { get; set; }

    /// <summary>Whether it says that it asked for a finger, a face or a PIN.</summary>
    public bool Asks { get; set; } = true;

    /// <summary>The page it believes it is asked by.</summary>
    public string Origin { get; set; } = origin;

    private string Handle { get; set; } = string.Empty;

    private string Id => Base64Url.EncodeToString(_id);

    public void Dispose() => _key.Dispose();

    /// <summary>The answer to options for a new passkey.</summary>
    public string Make(string options)
    {
        var asked = JsonNode.Parse(options)!;
        Handle = asked["user"]!["id"]!.GetValue<string>();
        var point = _key.ExportParameters(includePrivateParameters: false).Q;
        byte[] length = new byte[2];
        BinaryPrimitives.WriteUInt16BigEndian(length, (ushort)_id.Length);
        byte[] key = [0xA5, 0x01, 0x02, 0x03, 0x26, 0x20, 0x01, 0x21, .. Bytes(point.X!), 0x22, .. Bytes(point.Y!)];
        byte[] data = [.. Data(WithCredential), .. new byte[16], .. length, .. _id, .. key];
        byte[] attestation =
        [
            0xA3,
            .. Text("fmt"),
            .. Text("none"),
            .. Text("attStmt"),
            0xA0,
            .. Text("authData"),
            .. Bytes(data),
        ];
        return Credential(
            new JsonObject
            {
                ["clientDataJSON"] = Base64Url.EncodeToString(Client("webauthn.create", asked)),
                ["attestationObject"] = Base64Url.EncodeToString(attestation),
                ["transports"] = new JsonArray("internal"),
            }
        );
    }

    /// <summary>The answer to options for a proof.</summary>
    public string Prove(string options)
    {
        Counter++;
        var (client, data) = (Client("webauthn.get", JsonNode.Parse(options)!), Data(0));
        var signature = _key.SignData(
            [.. data, .. SHA256.HashData(client)],
            HashAlgorithmName.SHA256,
            DSASignatureFormat.Rfc3279DerSequence
        );
        return Credential(
            new JsonObject
            {
                ["clientDataJSON"] = Base64Url.EncodeToString(client),
                ["authenticatorData"] = Base64Url.EncodeToString(data),
                ["signature"] = Base64Url.EncodeToString(signature),
                ["userHandle"] = Handle,
            }
        );
    }

    private string Credential(JsonObject response) =>
        new JsonObject
        {
            ["id"] = Id,
            ["rawId"] = Id,
            ["type"] = "public-key",
            ["clientExtensionResults"] = new JsonObject(),
            ["response"] = response,
        }.ToJsonString();

    private byte[] Client(string kind, JsonNode asked) =>
        Encoding.UTF8.GetBytes(
            new JsonObject
            {
                ["type"] = kind,
                ["challenge"] = asked["challenge"]!.GetValue<string>(),
                ["origin"] = Origin,
                ["crossOrigin"] = false,
            }.ToJsonString()
        );

    private byte[] Data(byte more)
    {
        var counter = new byte[4];
        BinaryPrimitives.WriteUInt32BigEndian(counter, Counter);
        var flags = (byte)(Present | (Asks ? Verified : 0) | more);
        return [.. SHA256.HashData(Encoding.UTF8.GetBytes(domain)), flags, .. counter];
    }

    /// <summary>CBOR: a string of at most 23 letters.</summary>
    private static byte[] Text(string words) => [(byte)(0x60 + words.Length), .. Encoding.ASCII.GetBytes(words)];

    /// <summary>CBOR: bytes, their length in one byte or two.</summary>
    private static byte[] Bytes(byte[] bytes) =>
        bytes.Length < 256
            ? [0x58, (byte)bytes.Length, .. bytes]
            : [0x59, (byte)(bytes.Length >> 8), (byte)bytes.Length, .. bytes];
}
