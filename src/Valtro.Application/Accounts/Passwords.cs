using Microsoft.AspNetCore.Identity;
using Valtro.Core;
using Valtro.Store;

namespace Valtro.Application.Accounts;

/// <summary>What is a password here: long, and none that others would guess.</summary>
public sealed class Passwords(IPasswordHasher<Account> hasher)
{
    private const int Shortest = 12;
    private const int Longest = 200;

    /// <summary>What is longer is good enough by then, and weighing takes its time.</summary>
    private const int LongestWeighed = 64;

    /// <summary>Of 0 to 4, by how many guesses it withstands (zxcvbn).</summary>
    private const int LeastScore = 2;

    /// <exception cref="RuleException">It is too short, too long, or too near to the person.</exception>
    public bool Set(Account account, string field, string? password)
    {
        if (password is null || password.Length < Shortest)
            throw new RuleException(field, "password.tooShort", ("count", password?.Length ?? 0), ("least", Shortest));
        if (password.Length > Longest)
            throw new RuleException(field, "password.tooLong", ("count", password.Length), ("most", Longest));
        // Against lists of common passwords, names, words, rows of keys and dates.
        string[] theirs = [account.Email, .. account.Email.Split('@', '.'), account.Name, .. account.Name.Split(' '), "valtro"];
        var weighed = Zxcvbn.Zxcvbn.MatchPassword(password[..Math.Min(password.Length, LongestWeighed)],
            theirs.Where(word => word.Length > 2).Select(word => word.ToLowerInvariant()));
        if (weighed.Score < LeastScore)
            throw new RuleException(field, "password.tooEasy");
        account.PasswordHash = hasher.HashPassword(account, password);
        return true;
    }
}
