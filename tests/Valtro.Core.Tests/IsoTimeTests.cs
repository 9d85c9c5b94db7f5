using CsCheck;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Time;

namespace Valtro.Core.Tests;

public class IsoTimeTests
{
    [Fact]
    public void It_writes_what_the_library_writes_of_any_moment_in_any_offset()
    {
        var pattern = OffsetDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:sso<+HH:mm>");
        var local = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:ss");
        (from seconds in Gen.Long[-70_000_000_000, 250_000_000_000]
         from offset in Gen.Int[-18 * 3600, 18 * 3600]
         select Instant.FromUnixTimeSeconds(seconds).WithOffset(Offset.FromSeconds(offset))).Sample(moment =>
            IsoTime.Of(moment) == pattern.Format(moment) && IsoTime.Of(moment.LocalDateTime) == local.Format(moment.LocalDateTime));
    }
}
