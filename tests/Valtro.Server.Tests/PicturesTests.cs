using System.Text;
using SkiaSharp;
using Valtro.Application.Files;
using Valtro.Core;
using Valtro.Store;

namespace Valtro.Server.Tests;

public class PicturesTests
{
    /// <summary>Left half red, right half blue.</summary>
    private static byte[] Picture(int width, int height, SKEncodedImageFormat format)
    {
        using var bitmap = new SKBitmap(width, height);
        bitmap.Erase(SKColors.Red);
        bitmap.Erase(SKColors.Blue, new SKRectI(width / 2, 0, width, height));
        using var data = bitmap.Encode(format, 90);
        return data.ToArray();
    }

    /// <summary>A photograph as cameras write them: with a note of where it was taken, and turned by a quarter.</summary>
    private static byte[] Photograph(int width, int height)
    {
        var jpeg = Picture(width, height, SKEncodedImageFormat.Jpeg);
        // Exif with one entry: orientation (0x0112) = 6, to be turned to the right.
        byte[] exif =
            [.. "Exif\0\0"u8, .. "MM\0*"u8, 0, 0, 0, 8, 0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, 6, 0, 0, 0, 0, 0, 0, .. "GPS at the pier"u8];
        return [jpeg[0], jpeg[1], 0xFF, 0xE1, (byte)((exif.Length + 2) >> 8), (byte)(exif.Length + 2), .. exif, .. jpeg[2..]];
    }

    [Theory]
    [InlineData("image/png", 3_000, 1_500, 2_000, 1_000)]
    [InlineData("image/webp", 400, 300, 400, 300)]
    public void A_picture_is_at_most_two_thousand_dots_long(string type, int width, int height, int expectedWidth, int expectedHeight)
    {
        var format = type == "image/png" ? SKEncodedImageFormat.Png : SKEncodedImageFormat.Webp;
        using var cleaned = SKBitmap.Decode(Pictures.Cleaned("boats", type, Picture(width, height, format)));
        Assert.Equal((expectedWidth, expectedHeight), (cleaned.Width, cleaned.Height));
    }

    [Fact]
    public void What_the_camera_wrote_is_gone_and_the_picture_stands_upright()
    {
        var photograph = Photograph(120, 60);
        Assert.Contains("GPS at the pier", Encoding.Latin1.GetString(photograph), StringComparison.Ordinal);
        var cleaned = Pictures.Cleaned("pier.jpg", "image/jpeg", photograph);
        Assert.DoesNotContain("GPS at the pier", Encoding.Latin1.GetString(cleaned), StringComparison.Ordinal);
        using var upright = SKBitmap.Decode(cleaned);
        Assert.Equal((60, 120), (upright.Width, upright.Height));
        // What was left is on top.
        Assert.True(upright.GetPixel(30, 10).Red > 200 && upright.GetPixel(30, 110).Blue > 200);
    }

    [Fact]
    public void What_only_calls_itself_a_picture_is_refused_and_other_files_stay_as_they_are()
    {
        Assert.Equal("file.pictureUnreadable",
            Assert.Throws<RuleException>(() => Pictures.Cleaned("boats.png", "image/png", "text"u8.ToArray())).Refusals[0].Saying.Code);
        Assert.Equal("text"u8.ToArray(), Pictures.Cleaned("boats.pdf", "application/pdf", "text"u8.ToArray()));
    }

    [Theory]
    [InlineData(480, null, "image/webp", 480, 240)]
    [InlineData(960, "jpeg", "image/jpeg", 960, 480)]
    [InlineData(1_600, null, "image/webp", 1_000, 500)]
    public void A_picture_is_sent_as_narrow_as_it_is_wanted_and_no_wider_than_it_is(
        int wanted, string? form, string type, int width, int height)
    {
        using var pictures = new Pictures();
        var file = new StoredFile(Guid.NewGuid(), "boats.png", "image/png", Picture(1_000, 500, SKEncodedImageFormat.Png), 1);
        var size = PictureSize.Of(wanted, form);
        Assert.Equal(size, PictureSize.Parse(size.ToString()));
        var narrow = pictures.Narrowed(file, size);
        using var bitmap = SKBitmap.Decode(narrow.Content);
        Assert.Equal((type, width, height), (narrow.Type, bitmap.Width, bitmap.Height));
        Assert.Same(narrow, pictures.Narrowed(file, size));
        // Another version of it is another picture.
        Assert.NotSame(narrow, pictures.Narrowed(file with { Version = 2 }, size));
    }

    [Theory]
    [InlineData(481, "jpeg")]
    [InlineData(null, null)]
    [InlineData(-480, "webp")]
    public void Whoever_asks_for_another_width_gets_it_as_it_is(int? wanted, string? form)
    {
        using var pictures = new Pictures();
        var file = new StoredFile(Guid.NewGuid(), "boats.png", "image/png", Picture(1_000, 500, SKEncodedImageFormat.Png), 1);
        Assert.Same(file, pictures.Narrowed(file, PictureSize.Of(wanted, form)));
    }

    [Fact]
    public void What_a_picture_leaves_open_is_white_in_JPEG()
    {
        using var bitmap = new SKBitmap(600, 300);
        bitmap.Erase(SKColors.Transparent);
        using var data = bitmap.Encode(SKEncodedImageFormat.Png, 90);
        using var pictures = new Pictures();
        using var sent = SKBitmap.Decode(pictures.Narrowed(
            new StoredFile(Guid.NewGuid(), "gap.png", "image/png", data.ToArray(), 1), PictureSize.Of(480, "jpeg")).Content);
        Assert.True(sent.GetPixel(100, 100).Red > 250);
    }
}
