using Valtro.Core;
using Valtro.Store;

namespace Valtro.Application.Outside;

/// <summary>What an address of somebody else answered.</summary>
/// <param name="Name">What the file is called, as far as anything says so.</param>
public sealed record OutsideAnswer(byte[] Content, string Name)
{
    /// <summary>It is what it was when it was asked last (RFC 9110 15.4.5): the content is empty.</summary>
    public bool IsUnchanged { get; init; }

    public string? ETag { get; init; }

    /// <summary>As the server writes it.</summary>
    public string? LastModified { get; init; }
}

/// <summary>What is asked of an address.</summary>
/// <param name="Most">Bytes, once unpacked: what would be more is not read.</param>
public sealed record OutsideQuestion(Uri Address, int Most)
{
    /// <summary>Goes to the host of the address, and to no other to which it sends on.</summary>
    public OutsideSecrets Secrets { get; init; } = OutsideSecrets.None;

    /// <summary>As it answered last.</summary>
    public string? ETag { get; init; }

    public string? LastModified { get; init; }
}

/// <summary>Something else that is asked of an address than to get it (RFC 4918, RFC 4791).</summary>
/// <param name="Method">As it stands in the request.</param>
/// <param name="Most">Bytes of the answer, once unpacked: what would be more is not read.</param>
public sealed record OutsideCall(string Method, Uri Address, int Most)
{
    public OutsideSecrets Secrets { get; init; } = OutsideSecrets.None;

    /// <summary>With what it is; null for nothing.</summary>
    public (byte[] Content, string Type)? Body { get; init; }

    /// <summary>Such as Depth or If-Match.</summary>
    public IReadOnlyList<(string Name, string Value)> Headers { get; init; } = [];
}

/// <summary>What was answered, whatever it was.</summary>
/// <param name="Status">RFC 9110 15.</param>
/// <param name="Address">Which answered: it may have been sent on.</param>
public sealed record OutsideReply(int Status, byte[] Content, Uri Address, string? ETag)
{
    public bool IsSuccess => Status is >= 200 and < 300;
}

/// <summary>What an address wants to be told before it answers: a user with a password (RFC 7617), or a header of its own.</summary>
public sealed record OutsideSecrets(string? User, string? Password, string? HeaderName, string? HeaderValue)
{
    private const int Longest = 2_000;

    /// <summary>What carries the request itself is nobody's to say.</summary>
    private static readonly string[] OfTheRequest =
        ["host", "connection", "content-length", "content-type", "transfer-encoding", "upgrade", "te", "trailer", "expect", "cookie",
            "if-none-match", "if-modified-since", "accept", "accept-encoding", "user-agent", "proxy-authorization", "range"];

    public static OutsideSecrets None { get; } = new(null, null, null, null);

    public static OutsideSecrets Of(OutsideAccess access) => new(access.User, access.Password, access.HeaderName, access.HeaderValue);

    /// <summary>To be sealed, with the address that wants them.</summary>
    public OutsideAccess For(Uri address) => new(address.AbsoluteUri, User, Password, HeaderName, HeaderValue);

    /// <exception cref="RuleException">Half of it is missing, or it cannot be sent.</exception>
    public static OutsideSecrets Checked(string? user, string? password, string? headerName, string? headerValue)
    {
        static string? Said(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();
        var (who, name, value) = (Said(user), Said(headerName), Said(headerValue));
        if (who is null && !string.IsNullOrEmpty(password))
            throw new RuleException("user", "outside.userMissing");
        if (who?.Contains(':', StringComparison.Ordinal) == true || !CanBeSent(who) || !CanBeSent(password))
            throw new RuleException("user", "outside.userUnfit");
        if (name is null != value is null)
            throw new RuleException(name is null ? "headerName" : "headerValue", "outside.headerHalf");
        if (name is not null && (name.Length > 100 || !name.All(one => char.IsAsciiLetterOrDigit(one) || one is '-' or '_')
            || OfTheRequest.Contains(name.ToLowerInvariant())))
            throw new RuleException("headerName", "outside.headerName", ("name", name));
        if (value is not null && (value.Length > Longest || !value.All(one => one is >= ' ' and <= '~')))
            throw new RuleException("headerValue", "outside.headerValue");
        return new OutsideSecrets(who, who is null ? null : password ?? "", name, value);
    }

    private static bool CanBeSent(string? text) => text is null || (text.Length <= Longest && !text.Any(char.IsControl));
}

/// <summary>Addresses that people give, and what is there.</summary>
public interface IOutside
{
    /// <summary>An address as somebody typed it.</summary>
    /// <exception cref="RuleException">It is none that is asked.</exception>
    Uri Check(string? typed);

    /// <summary>Gets what an address has.</summary>
    /// <exception cref="RuleException">It cannot be had; the sentence says why.</exception>
    Task<OutsideAnswer> GetAsync(OutsideQuestion question, CancellationToken stopping);

    /// <summary>Asks something else of it. That it wants to know who asks is no answer; all else is.</summary>
    /// <exception cref="RuleException">It is not reached, or wants a password; the sentence says so.</exception>
    Task<OutsideReply> CallAsync(OutsideCall call, CancellationToken stopping);
}
