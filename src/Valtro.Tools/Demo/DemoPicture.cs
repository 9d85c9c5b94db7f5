using System.Buffers.Binary;
using System.IO.Compression;
using System.IO.Hashing;

namespace Valtro.Tools.Demo;

/// <summary>Pictures that belong to nobody: a harbour in the evening and in the morning, painted dot by dot.</summary>
internal static class DemoPicture
{
    private const int Width = 960;
    private const int Height = 540;

    /// <summary>A PNG (RFC 2083) of 24-bit colour.</summary>
    public static byte[] Evening() =>
        Paint(new Light((255, 214, 150), (34, 58, 104), (244, 158, 110), (214, 140, 112), (20, 52, 78), (38, 62, 84), SunAt: 250));

    public static byte[] Morning() =>
        Paint(new Light((255, 250, 224), (112, 172, 214), (250, 238, 214), (196, 222, 226), (36, 104, 132), (70, 112, 96), SunAt: 130));

    private readonly record struct Light(
        (byte, byte, byte) Sun, (int, int, int) High, (int, int, int) Low, (int, int, int) Near, (int, int, int) Deep,
        (byte, byte, byte) Hills, int SunAt);

    private static byte[] Paint(Light light)
    {
        var dots = new byte[Height * (1 + Width * 3)];
        for (var y = 0; y < Height; y++)
        {
            for (var x = 0; x < Width; x++)
            {
                var (red, green, blue) = At(x, y, light);
                var place = y * (1 + Width * 3) + 1 + x * 3;
                (dots[place], dots[place + 1], dots[place + 2]) = (red, green, blue);
            }
        }
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Fastest, leaveOpen: true))
            zlib.Write(dots);
        using var png = new MemoryStream();
        png.Write([0x89, (byte)'P', (byte)'N', (byte)'G', 13, 10, 26, 10]);
        var head = new byte[13];
        BinaryPrimitives.WriteInt32BigEndian(head, Width);
        BinaryPrimitives.WriteInt32BigEndian(head.AsSpan(4), Height);
        (head[8], head[9]) = (8, 2);
        Chunk(png, "IHDR"u8, head);
        Chunk(png, "IDAT"u8, packed.ToArray());
        Chunk(png, "IEND"u8, []);
        return png.ToArray();
    }

    private static (byte, byte, byte) At(int x, int y, Light light)
    {
        // A sun low over the water, hills, a lantern-lit pier, three sails.
        if (Math.Pow(x - 700, 2) + Math.Pow(y - light.SunAt, 2) < 52 * 52 && y < 300)
            return light.Sun;
        var hill = 268 - 34 * Math.Sin(x / 140.0) - 18 * Math.Sin(x / 53.0 + 2);
        if (y > hill && y < 300)
            return light.Hills;
        foreach (var (left, foot, size) in new[] { (210, 340, 120), (395, 318, 70), (540, 356, 150) })
        {
            var up = foot - y;
            if (up >= 0 && up < size && x > left && x < left + (size - up) * 0.55)
                return (250, 243, 228);
            if (up >= 0 && up < size * 0.8 && x < left - 3 && x > left - (size * 0.8 - up) * 0.35)
                return (226, 120, 70);
            if (up < 0 && up > -14 && x > left - size * 0.35 + -up && x < left + size * 0.6 + up)
                return (92, 38, 34);
        }
        if (y > 430 && y < 448)
            return x % 90 < 8 ? ((byte)255, (byte)222, (byte)140) : ((byte)54, (byte)42, (byte)38);
        if (y > 448 && x % 90 < 10)
            return (44, 34, 32);
        if (y < 300)
            return Mix(light.High, light.Low, Math.Pow(y / 300.0, 1.6));
        var wave = (y * 7 + (int)(18 * Math.Sin(x / 37.0 + y / 5.0))) % 23 < 3 ? 0.22 : 0;
        return Mix(light.Near, light.Deep, Math.Min(1, (y - 300) / 150.0) - wave);
    }

    private static (byte, byte, byte) Mix((int R, int G, int B) one, (int R, int G, int B) other, double share) =>
        (Part(one.R, other.R, share), Part(one.G, other.G, share), Part(one.B, other.B, share));

    private static byte Part(int one, int other, double share) => (byte)Math.Clamp(one + (other - one) * share, 0, 255);

    private static void Chunk(Stream png, ReadOnlySpan<byte> type, byte[] data)
    {
        Span<byte> number = stackalloc byte[4];
        BinaryPrimitives.WriteInt32BigEndian(number, data.Length);
        png.Write(number);
        png.Write(type);
        png.Write(data);
        BinaryPrimitives.WriteUInt32BigEndian(number, Crc32.HashToUInt32([.. type, .. data]));
        png.Write(number);
    }
}
