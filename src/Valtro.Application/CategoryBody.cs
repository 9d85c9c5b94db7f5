using Valtro.Core.Events;

namespace Valtro.Application;

public sealed record CategoryBody(Guid Id, string Name, string Colour)
{
    public static CategoryBody? Of(Category? category) => category is null ? null : new(category.Id, category.Name, category.Hue.Name);
}
