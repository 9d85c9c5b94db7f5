using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using NodaTime;
using Valtro.Server.Public;
using Valtro.Store;

namespace Valtro.Server.Background;

/// <summary>Gathers news into one mail a person, and hands mail over to the SMTP server of the settings (RFC 5321).</summary>
internal sealed class Post(MailStore mails, PublicAddresses addresses, Settings settings, IClock clock, ILogger<Post> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(2);

    protected override async Task ExecuteAsync(CancellationToken stopping)
    {
        if (settings.Smtp is null)
            log.LogWarning("VALTRO_SMTP is not set: mail is kept and not sent");
        while (!stopping.IsCancellationRequested)
        {
            try
            {
                await RunOnceAsync(stopping);
            }
            catch (Exception away) when (Api.ProblemHandler.IsDatabaseAway(away))
            {
                log.LogWarning("Mail has to wait for the database ({Reason})", away.Message);
            }
            catch (OperationCanceledException) when (stopping.IsCancellationRequested)
            {
                return;
            }
            await Task.Delay(Every, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    /// <summary>One round: gathers what is due, sends what is due.</summary>
    internal async Task RunOnceAsync(CancellationToken stopping)
    {
        var now = clock.GetCurrentInstant();
        await mails.GatherAsync(now - Duration.FromSeconds(settings.GatherSeconds), now, Write);
        if (settings.Smtp is not { } smtp)
            return;
        var (_, failure) = await mails.SendDueAsync(now, mail => SendAsync(smtp, mail, stopping));
        if (failure is not null)
            log.LogWarning("A mail could not be handed over ({Reason}); it is tried again", failure);
    }

    private MailLetter Write(Gathered gathered)
    {
        var subject = gathered.News.Count == 1 ? gathered.News[0].Sentence : $"{gathered.News.Count} things at {gathered.OrganisationName}";
        var lines = gathered.News.GroupBy(news => news.Path).Select(group => string.Join('\n', group.Select(news => $"- {news.Sentence}")) + $"\n  {addresses.Desk(group.Key)}");
        return new MailLetter(gathered.Recipient, subject, $"Good day {gathered.Name},\n\n{string.Join("\n\n", lines)}\n\n{gathered.OrganisationName}\n");
    }

    private async Task SendAsync(SmtpSettings smtp, WaitingMail mail, CancellationToken stopping)
    {
        var message = new MimeMessage
        {
            Subject = mail.Subject,
            Body = new TextPart("plain") { Text = mail.Body },
            // The same mail, tried again, is the same message: whoever got it twice can tell.
            MessageId = $"{mail.Id:N}@{settings.PublicUrl.Host}",
        };
        message.From.Add(MailboxAddress.Parse(settings.MailFrom));
        message.To.Add(MailboxAddress.Parse(mail.Recipient));
        message.Headers.Add("Auto-Submitted", "auto-generated");
        using var client = new SmtpClient { Timeout = 20_000 };
        await client.ConnectAsync(smtp.Host, smtp.Port, smtp.Port == 465 ? SecureSocketOptions.SslOnConnect : SecureSocketOptions.StartTlsWhenAvailable, stopping);
        if (smtp.User is { } user)
            await client.AuthenticateAsync(user, smtp.Password ?? "", stopping);
        await client.SendAsync(message, stopping);
        await client.DisconnectAsync(quit: true, stopping);
    }
}
