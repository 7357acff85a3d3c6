using System.Net.Mail;
using System.Text;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Server.Shared;

/// <summary>A letter with plain words.</summary>
public sealed record Letter(string To, string Subject, string Words);

/// <summary>Sends letters.</summary>
public interface IPostOffice
{
    /// <summary>Throws <see cref="RuleException"/> when the address is none.</summary>
    Task SendAsync(Letter letter, CancellationToken cancel);
}

/// <summary>
/// The post office that ships with the program: every letter becomes an .eml file (RFC 5322) in a folder, from where a
/// mail program or a mail server's pickup takes it.
/// </summary>
public sealed class FolderPostOffice(ZestySettings settings) : IPostOffice
{
    private const string From = "album@household.invalid";

    public async Task SendAsync(Letter letter, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(letter);
        // One address and nothing else: what follows a comma would be another receiver.
        if (!MailAddress.TryCreate(letter.To, out var to) || to.Address != letter.To.Trim())
        {
            throw new RuleException($"“{letter.To}” is no mail address. Nothing was sent: copy the link instead.");
        }

        Directory.CreateDirectory(settings.Letters);
        using var message = new MailMessage
        {
            From = new MailAddress(From, "Zesty Pocket"),
            // A subject is one line, or it could bring headers of its own.
            Subject = string.Concat(letter.Subject.Where(c => !char.IsControl(c))),
            Body = letter.Words,
            SubjectEncoding = Encoding.UTF8,
            BodyEncoding = Encoding.UTF8,
        };
        message.To.Add(to);
        using var client = new SmtpClient
        {
            DeliveryMethod = SmtpDeliveryMethod.SpecifiedPickupDirectory,
            PickupDirectoryLocation = Path.GetFullPath(settings.Letters),
        };
        await client.SendMailAsync(message, cancel);
    }
}
