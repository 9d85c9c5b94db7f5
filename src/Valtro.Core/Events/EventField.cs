using System.Reflection;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Events;

/// <summary>One field of <see cref="EventContent"/>, as its declaration says.</summary>
/// <remarks>
/// Masking by level, what differs between two versions, what a date has of its own, what filters read, what an edition leaves out,
/// and the stored document walk over <see cref="All"/>; none of them knows a field by name.
/// </remarks>
public abstract class EventField
{
    private readonly FieldAttribute _declared;

    private protected EventField(FieldAttribute declared, int place) => (_declared, Place) = (declared, place);

    /// <summary>In the order in which they are declared.</summary>
    public static IReadOnlyList<EventField> All { get; } =
        [.. (from property in typeof(EventContent).GetProperties(BindingFlags.Public | BindingFlags.Instance)
             let declared = property.GetCustomAttribute<FieldAttribute>()
             where declared is not null
             select (EventField)Activator.CreateInstance(
                 typeof(EventField<>).MakeGenericType(property.PropertyType), BindingFlags.Instance | BindingFlags.NonPublic, null,
                     [declared, property], null)!)
            .OrderBy(field => field.Place)];

    private static readonly Dictionary<string, EventField> ByName = All.ToDictionary(field => field.Name);

    /// <summary>How many ways there are to grant some and not others.</summary>
    private const int AllGrants = 16;

    /// <summary>Those that nobody gets at a level with some grants: an array each, since composing asks for them once an event.</summary>
    private static readonly EventField[][] Hidden =
        [.. from detail in Enum.GetValues<Detail>()
            from grants in Enumerable.Range(0, AllGrants)
            select All.Where(field => !field.IsToldAt(detail, (Grants)grants)).ToArray()];

    /// <summary>Which fields a date may have of its own.</summary>
    public static IReadOnlyList<EventField> OfOneDate { get; } = [.. All.Where(field => field._declared.OfOneDate)];

    /// <summary>Which fields filters of editions and searches look into.</summary>
    internal static EventField[] Searched { get; } = [.. All.Where(field => field._declared.IsSearched)];

    public string Name => _declared.Name;

    /// <summary>Where it stands among the others.</summary>
    internal int Place { get; }

    public FieldLevel SeenFrom => _declared.Level;

    public Grants Needs => _declared.Needs;

    /// <summary>The fields of the form that say it.</summary>
    public IReadOnlyList<string> Form => _declared.Form.Split(' ');

    public bool IsOfOneDate => _declared.OfOneDate;

    /// <summary>The field that an edition leaves out to leave this one out; null when it is always shown.</summary>
    public ShownField? ShownWith => _declared.ShownWithOrNull;

    public abstract Type Type { get; }

    /// <exception cref="KeyNotFoundException">There is none of that name.</exception>
    public static EventField Named(string name) => ByName[name];

    public static EventField? Find(string name) => ByName.GetValueOrDefault(name);

    internal static ReadOnlySpan<EventField> HiddenAt(Detail detail, Grants grants) => Hidden[((int)detail * AllGrants) + (int)grants];

    public abstract object? Of(EventContent content);

    /// <summary>As it is where nothing was said.</summary>
    public abstract bool IsUnsaid(EventContent content);

    public abstract bool IsSame(EventContent one, EventContent other);

    /// <summary>The value as texts that people read.</summary>
    public IEnumerable<string> TextsOf(EventContent content) => FieldTexts.Of(Of(content));

    internal abstract bool IsSameValue(object? one, object? other);

    /// <remarks>Only into a copy that nobody else has yet.</remarks>
    internal abstract void Put(EventContent copy, object? value);

    /// <remarks>Only into a copy that nobody else has yet.</remarks>
    internal abstract void Clear(EventContent copy);

    private bool IsToldAt(Detail detail, Grants grants) => (grants & Needs) == Needs && SeenFrom switch
    {
        FieldLevel.Times => detail >= Detail.Times,
        FieldLevel.Headline => detail >= Detail.Headline,
        _ => detail >= Detail.Complete,
    };
}

/// <summary>A field of one type, without boxing where composing asks for it.</summary>
internal sealed class EventField<T> : EventField
{
    private static readonly EventContent Blank =
        new(new Series(Time.Timing.WholeDays(new(2000, 1, 1), new(2000, 1, 1), NodaTime.DateTimeZone.Utc)));

    private readonly Func<EventContent, T> _get;
    private readonly Action<EventContent, T> _set;

    private EventField(FieldAttribute declared, PropertyInfo property)
        : base(declared, property.MetadataToken)
    {
        _get = property.GetMethod!.CreateDelegate<Func<EventContent, T>>();
        _set = property.SetMethod!.CreateDelegate<Action<EventContent, T>>();
    }

    public override Type Type => typeof(T);

    public override object? Of(EventContent content) => _get(content);

    public override bool IsUnsaid(EventContent content) => EqualityComparer<T>.Default.Equals(_get(content), _get(Blank));

    public override bool IsSame(EventContent one, EventContent other) => EqualityComparer<T>.Default.Equals(_get(one), _get(other));

    internal override bool IsSameValue(object? one, object? other) => EqualityComparer<T>.Default.Equals((T?)one, (T?)other);

    internal override void Put(EventContent copy, object? value) => _set(copy, (T)value!);

    internal override void Clear(EventContent copy) => _set(copy, _get(Blank));
}
