using System.Globalization;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application;

/// <summary>The language in which whoever asks is answered; it is settled once, where the request comes in.</summary>
public static class Spoken
{
    public static Speech Now => Speech.For(CultureInfo.CurrentUICulture.Name);

    /// <summary>How the desk writes days and rules: as the organisation does where it speaks its language.</summary>
    public static string LocaleIn(Organisation organisation) => Speech.LocaleOf(Now.Language, organisation.Locale);
}
