using Valtro.Core;
using Valtro.Core.Speaking;

namespace Valtro.Store.Tests;

public class StoredSayingTests
{
    [Fact]
    public void What_is_kept_is_the_same_saying_when_it_is_read()
    {
        ValueList<Saying> parts = [Saying.Of("audience.members"), Saying.Of("audit.named", ("name", "Hall “B”"))];
        var saying = Saying.Of("audit.list", ("parts", parts), ("count", 3), ("general", Saying.Of("role.member")), ("nothing", null));
        Assert.Equal(saying.ToString(), StoredSaying.Read(StoredSaying.Write(saying))!.ToString());
        Assert.Equal("Members", Speech.For("en").Say(StoredSaying.Read(StoredSaying.Write(Saying.Of("audienceHead.members")))!));
    }

    [Fact]
    public void Nothing_is_kept_as_nothing() => Assert.Null(StoredSaying.Read(StoredSaying.Write(null)));

    [Theory]
    [InlineData("members: nothing to complete")]
    [InlineData("{code}")]
    public void What_an_older_version_wrote_is_said_as_it_stands(string text) =>
        Assert.Equal(text, Speech.For("de").Say(StoredSaying.Read(text)!));

    [Fact]
    public void What_somebody_typed_is_never_taken_for_a_saying()
    {
        var typed = """{"code":"language.name","values":{}}""";
        Assert.Equal(typed, Speech.For("en").Say(StoredSaying.Read(StoredSaying.Write(Saying.Of("text.plain", ("text", typed))))!));
    }

    [Fact]
    public void A_code_that_nobody_knows_any_more_is_said_as_it_is() =>
        Assert.Equal("gone.long", Speech.For("en").Say(StoredSaying.Read("""{"code":"gone.long","values":{}}""")!));
}
