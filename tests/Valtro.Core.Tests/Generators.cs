using System.Runtime.CompilerServices;

namespace Valtro.Core.Tests;

internal static class Generators
{
    /// <summary>Most generated rules are ones that the standard forbids. A hundred in a row, at which CsCheck gives up by itself, do
    /// happen.</summary>
    [ModuleInitializer]
    internal static void MayTryOften() => CsCheck.Check.WhereLimit = 100_000;
}
