using Valtro.Core.Disclosure;
using Valtro.Core.Speaking;

namespace Valtro.Application;

/// <summary>Audiences and levels as people are told of them.</summary>
public static class DetailWords
{
    public static Saying Of(Audience audience) => Saying.Of($"audienceHead.{audience.ToString().ToLowerInvariant()}");

    public static Saying Of(Detail detail) => Saying.Of($"detail.{detail.ToString().ToLowerInvariant()}");

    /// <summary>"Members: nothing to complete".</summary>
    public static Saying Changed(Audience audience, Detail before, Detail after) =>
        Saying.Of("audit.changed", ("audience", Of(audience)), ("before", Of(before)), ("after", Of(after)));
}
