
namespace Valtro.Application.Editions;

/// <summary>Who asks: an address outside, which may cause only so much in a minute, or we ourselves.</summary>
public abstract class Asker
{
    /// <summary>What we ask ourselves is not counted.</summary>
    public static Asker Ourselves { get; } = new Uncounted();

    /// <summary>Asking this costs nothing.</summary>
    public abstract bool HasCausedTooMuch { get; }

    /// <returns>False when it caused too much already.</returns>
    public abstract bool TryCause();

    public void Caused() => TryCause();

    private sealed class Uncounted : Asker
    {
        public override bool HasCausedTooMuch => false;

        public override bool TryCause() => true;
    }
}
