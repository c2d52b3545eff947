using Pyrometron.Core.Messages;
using SkiaSharp;

namespace Pyrometron.Server.Bench;

/// <summary>
/// A photo made anew from its pixels: turned upright, brought to a bounded size, without anything that a camera writes
/// beside them, such as the place.
/// </summary>
internal sealed record Photo(int Width, int Height, byte[] Picture, byte[] Small)
{
    /// <summary>The largest file taken, bytes.</summary>
    public const int LargestFile = 12 * 1024 * 1024;

    /// <summary>The most pixels that are unpacked: a small file can claim to be a huge picture.</summary>
    private const long MostPixels = 60_000_000;

    private const int LongestSide = 2048,
        SmallSide = 320,
        Quality = 82;

    /// <summary>Photos unpacked at the same time: each may take 240 MB.</summary>
    private static readonly SemaphoreSlim AtOnce = new(2, 2);

    /// <summary>Reads a file, when it is its turn.</summary>
    /// <returns>Null with a reason when it is no picture that can be used.</returns>
    public static async Task<(Photo? Photo, Message? Problem)> ReadAsync(byte[] file, CancellationToken cancellation)
    {
        await AtOnce.WaitAsync(cancellation);
        try
        {
            return (Read(file, out var problem), problem);
        }
        finally
        {
            AtOnce.Release();
        }
    }

    internal static Photo? Read(byte[] file, out Message? problem)
    {
        problem = null;
        using var data = SKData.CreateCopy(file);
        using var codec = SKCodec.Create(data);
        if (
            codec is null
            || codec.EncodedFormat is not (SKEncodedImageFormat.Jpeg or SKEncodedImageFormat.Png or SKEncodedImageFormat.Webp)
        )
        {
            problem = "This file is no picture that can be read: JPEG, PNG or WebP.";
            return null;
        }
        if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
        {
            problem =
                $"The picture has {codec.Info.Width} × {codec.Info.Height} pixels; {MostPixels / 1_000_000} million are the most.";
            return null;
        }
        // A JPEG can be unpacked at a half or a quarter of its size: a large one costs no more memory than is needed of it.
        var longest = Math.Max(codec.Info.Width, codec.Info.Height);
        var size = codec.GetScaledDimensions(Math.Min(1, (float)LongestSide / longest));
        using var decoded = new SKBitmap(new SKImageInfo(size.Width, size.Height, SKColorType.Rgba8888, SKAlphaType.Premul));
        if (codec.GetPixels(decoded.Info, decoded.GetPixels()) != SKCodecResult.Success)
        {
            problem = "The picture is damaged or cut short. Send it again, whole.";
            return null;
        }
        using var small = Scale(decoded, LongestSide);
        using var upright = Turn(small, codec.EncodedOrigin);
        using var thumbnail = Scale(upright, SmallSide);
        return new Photo(upright.Width, upright.Height, Encode(upright), Encode(thumbnail));
    }

    private static byte[] Encode(SKBitmap bitmap)
    {
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Jpeg, Quality);
        return encoded.ToArray();
    }

    private static SKBitmap Scale(SKBitmap bitmap, int longest)
    {
        var factor = Math.Min(1.0, (double)longest / Math.Max(bitmap.Width, bitmap.Height));
        return bitmap.Resize(
            new SKImageInfo(
                Math.Max(1, (int)(bitmap.Width * factor)),
                Math.Max(1, (int)(bitmap.Height * factor)),
                SKColorType.Rgba8888,
                SKAlphaType.Premul
            ),
            new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear)
        );
    }

    /// <summary>Turns the pixels as the camera was held; afterwards the orientation need not be told.</summary>
    private static SKBitmap Turn(SKBitmap bitmap, SKEncodedOrigin origin)
    {
        var aside =
            origin
            is SKEncodedOrigin.LeftTop
                or SKEncodedOrigin.RightTop
                or SKEncodedOrigin.RightBottom
                or SKEncodedOrigin.LeftBottom;
        var turned = new SKBitmap(aside ? bitmap.Height : bitmap.Width, aside ? bitmap.Width : bitmap.Height);
        using var canvas = new SKCanvas(turned);
        canvas.Clear(SKColors.White);
        var (w, h) = ((float)bitmap.Width, (float)bitmap.Height);
        canvas.SetMatrix(
            origin switch
            {
                SKEncodedOrigin.TopRight => new SKMatrix(-1, 0, w, 0, 1, 0, 0, 0, 1),
                SKEncodedOrigin.BottomRight => new SKMatrix(-1, 0, w, 0, -1, h, 0, 0, 1),
                SKEncodedOrigin.BottomLeft => new SKMatrix(1, 0, 0, 0, -1, h, 0, 0, 1),
                SKEncodedOrigin.LeftTop => new SKMatrix(0, 1, 0, 1, 0, 0, 0, 0, 1),
                SKEncodedOrigin.RightTop => new SKMatrix(0, -1, h, 1, 0, 0, 0, 0, 1),
                SKEncodedOrigin.RightBottom => new SKMatrix(0, -1, h, -1, 0, w, 0, 0, 1),
                SKEncodedOrigin.LeftBottom => new SKMatrix(0, 1, 0, -1, 0, w, 0, 0, 1),
                _ => SKMatrix.Identity,
            }
        );
        canvas.DrawBitmap(bitmap, 0, 0);
        return turned;
    }
}
