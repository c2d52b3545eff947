using System.Net;
using System.Text;
using SkiaSharp;

namespace Pyrometron.Server.Tests;

/// <summary>Photos at the bench: made anew from their pixels, whole or not at all.</summary>
public sealed class PhotoTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private static byte[] Jpeg(int width = 800, int height = 600)
    {
        using var bitmap = new SKBitmap(width, height);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(SKColors.SlateGray);
        using var data = bitmap.Encode(SKEncodedImageFormat.Jpeg, 80);
        return data.ToArray();
    }

    /// <summary>A JPEG as a camera writes it: turned by a quarter, with the place in its EXIF (CIPA DC-008).</summary>
    private static byte[] JpegWithPlace()
    {
        var exif = new MemoryStream();
        void Bytes(params byte[] b) => exif.Write(b);
        void Text(string t) => exif.Write(Encoding.ASCII.GetBytes(t));
        Text("Exif\0\0MM\0*");
        Bytes(0, 0, 0, 8, 0, 2);
        Bytes(1, 0x12, 0, 3, 0, 0, 0, 1, 0, 6, 0, 0);
        Bytes(0x88, 0x25, 0, 4, 0, 0, 0, 1, 0, 0, 0, 38);
        Bytes(0, 0, 0, 0, 0, 1, 0, 1, 0, 2, 0, 0, 0, 2, (byte)'N', 0, 0, 0, 0, 0, 0, 0);
        Text("GPS 57-12-44 N");
        var block = exif.ToArray();
        var plain = Jpeg();
        return [0xFF, 0xD8, 0xFF, 0xE1, (byte)((block.Length + 2) >> 8), (byte)(block.Length + 2), .. block, .. plain[2..]];
    }

    private async Task<(int Status, byte[] Body)> PutPhoto(string url, Guid key, byte[] file)
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, $"{url}/photos/{key}")
        {
            Content = new ByteArrayContent(file),
        };
        var answer = await _server.Raw(request);
        return ((int)answer.StatusCode, await answer.Content.ReadAsByteArrayAsync());
    }

    [Fact]
    public async Task A_photo_is_kept_upright_small_and_without_the_place_it_was_taken()
    {
        var bench = await Bench.Measured(_server);
        var key = Guid.NewGuid();
        Assert.Equal(409, await bench.Try(new { kind = "photo-taken", photo = key }));
        Assert.Equal(204, (await PutPhoto(bench.Url, key, JpegWithPlace())).Status);
        await bench.Do(
            new
            {
                kind = "photo-taken",
                photo = key,
                caption = "torn pad",
                step = "inspect",
                foundOnOpening = true,
            }
        );
        Assert.Equal("torn pad", bench.Job.GetProperty("photos")[0].GetProperty("caption").GetString());
        foreach (var (small, side) in new[] { (false, 800), (true, 320) })
        {
            var answer = await _server.Raw(new HttpRequestMessage(HttpMethod.Get, $"/api/v1/photos/{key}?small={small}"));
            var bytes = await answer.Content.ReadAsByteArrayAsync();
            using var bitmap = SKBitmap.Decode(bytes);
            Assert.Equal((side * 3 / 4, side), (bitmap.Width, bitmap.Height));
            var text = Encoding.Latin1.GetString(bytes);
            Assert.DoesNotContain("GPS", text);
            Assert.DoesNotContain("Exif", text);
        }
    }

    [Fact]
    public async Task What_is_no_photo_or_too_large_a_one_is_refused_and_nothing_is_kept()
    {
        var bench = await Bench.Measured(_server);
        var key = Guid.NewGuid();
        Assert.Equal(413, (await PutPhoto(bench.Url, key, new byte[50 * 1024 * 1024])).Status);
        Assert.Equal(400, (await PutPhoto(bench.Url, key, Encoding.UTF8.GetBytes("this is a letter"))).Status);
        Assert.Equal(400, (await PutPhoto(bench.Url, key, Jpeg()[..200])).Status);
        Assert.Equal(409, await bench.Try(new { kind = "photo-taken", photo = key }));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await _server.Raw(new HttpRequestMessage(HttpMethod.Get, $"/api/v1/photos/{key}"))).StatusCode
        );
    }

    /// <summary>A photo cut short anywhere is refused, in every format; sent again whole it is there, and whole.</summary>
    [Theory]
    [InlineData(SKEncodedImageFormat.Jpeg)]
    [InlineData(SKEncodedImageFormat.Png)]
    [InlineData(SKEncodedImageFormat.Webp)]
    public async Task A_photo_cut_short_is_refused_and_replaced_when_it_comes_whole(SKEncodedImageFormat format)
    {
        var bench = await Bench.Measured(_server);
        var key = Guid.NewGuid();
        var whole = Noise(700, 500, format);
        foreach (var share in (double[])[0.02, 0.3, 0.6, 0.9, 0.99])
            Assert.Equal(400, (await PutPhoto(bench.Url, key, whole[..(int)(whole.Length * share)])).Status);
        Assert.Equal(204, (await PutPhoto(bench.Url, key, Jpeg(300, 200))).Status);
        Assert.Equal(204, (await PutPhoto(bench.Url, key, whole)).Status);
        var answer = await _server.Raw(new HttpRequestMessage(HttpMethod.Get, $"/api/v1/photos/{key}"));
        using var kept = SKBitmap.Decode(await answer.Content.ReadAsByteArrayAsync());
        Assert.Equal((700, 500), (kept.Width, kept.Height));
    }

    [Fact]
    public async Task The_key_of_another_jobs_photo_is_a_conflict()
    {
        var bench = await Bench.Measured(_server);
        var other = await Bench.Start(_server, "GC-2", "repaste");
        var key = Guid.NewGuid();
        Assert.Equal(204, (await PutPhoto(bench.Url, key, Jpeg(300, 200))).Status);
        Assert.Equal(409, (await PutPhoto(other.Url, key, Jpeg(200, 300))).Status);
        Assert.Equal(204, (await PutPhoto(bench.Url, key, Jpeg(300, 200))).Status);
    }

    /// <summary>Sixty million pixels are taken, in whatever shape, and come out at the size that is kept.</summary>
    [Fact]
    public async Task The_largest_photo_is_taken_and_one_larger_is_refused()
    {
        var bench = await Bench.Measured(_server);
        Assert.Equal(204, (await PutPhoto(bench.Url, Guid.NewGuid(), Jpeg(10_000, 6_000))).Status);
        Assert.Equal(400, (await PutPhoto(bench.Url, Guid.NewGuid(), Jpeg(10_000, 6_001))).Status);
    }

    private static byte[] Noise(int width, int height, SKEncodedImageFormat format)
    {
        using var bitmap = new SKBitmap(width, height);
        var random = new Random(3);
        for (var y = 0; y < height; y++)
        for (var x = 0; x < width; x++)
            bitmap.SetPixel(x, y, new SKColor((uint)random.NextInt64(uint.MaxValue) | 0xFF000000));
        using var data = bitmap.Encode(format, 80);
        return data.ToArray();
    }
}
