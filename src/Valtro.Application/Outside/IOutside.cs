using Valtro.Core;

namespace Valtro.Application.Outside;

/// <summary>What an address of somebody else answered.</summary>
/// <param name="Name">What the file is called, as far as anything says so.</param>
public sealed record OutsideAnswer(byte[] Content, string Name);

/// <summary>Addresses that people give, and what is there.</summary>
public interface IOutside
{
    /// <summary>An address as somebody typed it.</summary>
    /// <exception cref="RuleException">It is none that is asked.</exception>
    Uri Check(string? typed);

    /// <summary>Gets what an address has.</summary>
    /// <param name="most">Bytes, once unpacked: what would be more is not read.</param>
    /// <exception cref="RuleException">It cannot be had; the sentence says why.</exception>
    Task<OutsideAnswer> GetAsync(Uri address, int most, CancellationToken stopping);
}
