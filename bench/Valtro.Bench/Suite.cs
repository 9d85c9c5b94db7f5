using System.Reflection;

namespace Valtro.Bench;

/// <summary>What a benchmark is called, how many times faster than its rival it has to be (0: it is only held against another), and by how
/// many units bytes are divided.</summary>
[AttributeUsage(AttributeTargets.Class)]
internal sealed class SuiteAttribute(string name, double wanted, int units = 0) : Attribute
{
    public string Name { get; } = name;

    public double Wanted { get; } = wanted;

    /// <summary>0 where the benchmark counts its dates itself.</summary>
    public int Units { get; } = units;

    public static SuiteAttribute Of(Type type) =>
        type.GetCustomAttribute<SuiteAttribute>() ?? throw new InvalidOperationException($"{type.Name} does not say what it is.");
}
