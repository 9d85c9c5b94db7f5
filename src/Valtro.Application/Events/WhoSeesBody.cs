using Valtro.Core.Disclosure;

namespace Valtro.Application.Events;

/// <param name="Was">What they see of it now.</param>
public sealed record WhoSeesBody(Audience Audience, Detail Detail, Detail Was, string Sentence)
{
    public static WhoSeesBody Of(WhoSees who) => new(who.Audience, who.Detail, who.Was, who.Sentence);
}
