using System.Reflection;

namespace Valtro.Bench;

/// <summary>What a benchmark is called, how many times faster than its rival it has to be, and by how many units bytes are divided.</summary>
[AttributeUsage(AttributeTargets.Class)]
internal sealed class SuiteAttribute(string name, double wanted, int units) : Attribute
{
    public string Name { get; } = name;

    public double Wanted { get; } = wanted;

    public int Units { get; } = units;
}

internal static class Suite
{
    public static (string Name, double Wanted, int Units) Of(Type type)
    {
        var suite = type.GetCustomAttribute<SuiteAttribute>() ?? throw new InvalidOperationException($"{type.Name} does not say what it is.");
        return (suite.Name, suite.Wanted, suite.Units);
    }
}
