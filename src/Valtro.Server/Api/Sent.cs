using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json;
using NodaTime;
using Valtro.Core;

namespace Valtro.Server.Api;

/// <summary>Looks at all that a request sent before anybody works with it: what no field here can hold is refused by name.</summary>
/// <remarks>
/// Lists have no empty places; text has no characters that nobody can write or store (U+0000, U+FFFE, U+FFFF, halves of surrogate pairs);
/// and the
/// list has an end. What a single field wants beyond that is said where that field is checked.
/// </remarks>
internal sealed class SentFilter : IEndpointFilter
{
    public ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var refusals = new RefusalList();
        foreach (var argument in context.Arguments)
        {
            if (argument is not null && IsSent(argument.GetType()))
                Look(argument, "", refusals, 0);
        }
        foreach (var (name, values) in context.HttpContext.Request.Query)
        {
            foreach (var value in values)
                LookAtText(value ?? "", name, refusals);
        }
        foreach (var (name, value) in context.HttpContext.Request.RouteValues)
            LookAtText(value as string ?? "", name, refusals);
        refusals.ThrowIfAny();
        return next(context);
    }

    private const int Deepest = 12;
    private const int MostInAList = 10_000;

    private static readonly ConcurrentDictionary<Type, (PropertyInfo Property, string Name, bool HoldsNull)[]> Shapes = new();

    private static bool IsSent(Type type) =>
        type.IsClass
            && type != typeof(string)
            && !type.IsArray
            && type.Namespace?.StartsWith("Valtro.", StringComparison.Ordinal) == true
            && type.GetMethod("<Clone>$") is not null;

    private static void Look(object value, string path, RefusalList refusals, int depth)
    {
        if (depth > Deepest)
            return;
        foreach (var (property, name, holdsNull) in Shapes.GetOrAdd(value.GetType(), ShapeOf))
        {
            var field = path.Length == 0 ? name : $"{path}.{name}";
            switch (property.GetValue(value))
            {
                case null:
                    break;
                case string text:
                    LookAtText(text, field, refusals);
                    break;
                case IEnumerable list:
                    LookAtList(list, field, holdsNull, refusals, depth);
                    break;
                case { } inner when IsSent(inner.GetType()):
                    Look(inner, field, refusals, depth + 1);
                    break;
            }
        }
    }

    private static void LookAtList(IEnumerable list, string field, bool holdsNull, RefusalList refusals, int depth)
    {
        var index = 0;
        foreach (var item in list)
        {
            var place = $"{field}[{index++}]";
            if (index > MostInAList)
            {
                refusals.Add(field, "request.listTooLong", ("most", MostInAList));
                return;
            }
            if (item is null && !holdsNull)
                refusals.Add(place, "request.emptyPlace");
            else if (item is string text)
                LookAtText(text, place, refusals);
            else if (item is not null && IsSent(item.GetType()))
                Look(item, place, refusals, depth + 1);
        }
    }

    private static void LookAtText(string text, string field, RefusalList refusals)
    {
        if (!Texts.CanBeWritten(text))
            refusals.Add(field, "request.cannotBeWritten");
    }

    private static (PropertyInfo, string, bool)[] ShapeOf(Type type)
    {
        var nullability = new NullabilityInfoContext();
        return [.. type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
            .Where(property => property.GetIndexParameters().Length == 0
                && property.CanRead
                && property.GetMethod!.GetParameters().Length == 0
                && HoldsWhatWasSent(property))
            .Select(property =>
                (property, JsonNamingPolicy.CamelCase.ConvertName(property.Name), HoldsNull(nullability.Create(property))))];
    }

    /// <summary>Worked out from others is what has no way in.</summary>
    private static bool HoldsWhatWasSent(PropertyInfo property) =>
        property.CanWrite && property.PropertyType != typeof(LocalDate) && property.PropertyType != typeof(DateTimeZone);

    private static bool HoldsNull(NullabilityInfo property) =>
        property.GenericTypeArguments is [var item]
            ? item.ReadState == NullabilityState.Nullable
            : property.ElementType?.ReadState == NullabilityState.Nullable;
}
