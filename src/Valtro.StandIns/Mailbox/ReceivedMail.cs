using System.Buffers;
using MimeKit;
using SmtpServer;
using SmtpServer.Mail;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace Valtro.StandIns.Mailbox;

/// <summary>A mail as it was received, latest first in every list.</summary>
/// <param name="Html">Empty where it is plain only.</param>
/// <param name="EndAddress">Where a press ends such mails (RFC 8058); empty where there is no such way.</param>
public sealed record Mail(
    string Id, string From, string To, string Subject, string Text, string Html, string EndAddress, DateTimeOffset At);

/// <summary>Takes whatever mail is handed over (RFC 5321) and keeps the latest in memory, for people to look at.</summary>
public sealed class ReceivedMail(TimeProvider clock) : MessageStore
{
    private const int Most = 200;

    private readonly LinkedList<Mail> _mails = [];
    private readonly Lock _gate = new();

    public IReadOnlyList<Mail> All
    {
        get
        {
            lock (_gate)
                return [.. _mails];
        }
    }

    public override async Task<SmtpResponse> SaveAsync(
        ISessionContext context, IMessageTransaction transaction, ReadOnlySequence<byte> buffer, CancellationToken cancellationToken)
    {
        using var content = new MemoryStream(buffer.ToArray());
        var message = await MimeMessage.LoadAsync(content, cancellationToken);
        var mail = new Mail(
            message.MessageId ?? Guid.NewGuid().ToString("N"),
            message.From.ToString(),
            string.Join(", ", transaction.To.Select(mailbox => mailbox.AsAddress())),
            message.Subject ?? "",
            message.TextBody ?? "",
            message.HtmlBody ?? "",
            message.Headers["List-Unsubscribe-Post"] is null ? "" : (message.Headers["List-Unsubscribe"] ?? "").Trim('<', '>'),
            clock.GetUtcNow());
        lock (_gate)
        {
            _mails.AddFirst(mail);
            while (_mails.Count > Most)
                _mails.RemoveLast();
        }
        return SmtpResponse.Ok;
    }
}

/// <summary>Listens for mail while the stand-ins run.</summary>
internal sealed class MailListener(ReceivedMail received, int port) : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stopping)
    {
        var options = new SmtpServerOptionsBuilder()
            .ServerName("mailbox.pinewick.example")
            .Endpoint(endpoint => endpoint.Endpoint(new System.Net.IPEndPoint(System.Net.IPAddress.Loopback, port)))
            .Build();
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add(received);
        return new SmtpServer.SmtpServer(options, services).StartAsync(stopping);
    }
}
