using System.Security.Cryptography;
using System.Text;

namespace Valtro.Application.Editions;

/// <summary>The fields of what pages read of an edition, as a digest: with any field it is another.</summary>
internal static class PartForm
{
    public static string Digest { get; } = Of(typeof(MonthBody), typeof(ChangesBody));

    private static string Of(params Type[] types)
    {
        var (seen, said) = (new HashSet<Type>(), new StringBuilder());
        foreach (var type in types)
            Say(type, seen, said);
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(said.ToString())).AsSpan(0, 8));
    }

    private static void Say(Type type, HashSet<Type> seen, StringBuilder said)
    {
        foreach (var inside in type.GetGenericArguments().Append(type.GetElementType()).OfType<Type>())
            Say(inside, seen, said);
        if (type.Namespace?.StartsWith("Valtro", StringComparison.Ordinal) != true || !seen.Add(type))
            return;
        said.Append(type.Name).AppendJoin(',', type.IsEnum ? Enum.GetNames(type) : []);
        foreach (var property in type.GetProperties().Where(property => property.GetMethod is { IsStatic: false }))
        {
            said.Append(' ').Append(property.Name).Append(':').Append(property.PropertyType);
            Say(property.PropertyType, seen, said);
        }
        said.Append(';');
    }
}
