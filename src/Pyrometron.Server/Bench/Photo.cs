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

    /// <summary>Reads a file.</summary>
    /// <returns>Null with a reason when it is no picture that can be used.</returns>
    public static Photo? Read(byte[] file, out string? problem)
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
        using var decoded = SKBitmap.Decode(codec);
        if (decoded is null)
        {
            problem = "The picture is damaged and cannot be read.";
            return null;
        }
        using var upright = Turn(decoded, codec.EncodedOrigin);
        var (picture, width, height) = Scale(upright, LongestSide);
        return new Photo(width, height, picture, Scale(upright, SmallSide).File);
    }

    private static (byte[] File, int Width, int Height) Scale(SKBitmap bitmap, int longest)
    {
        var factor = Math.Min(1.0, (double)longest / Math.Max(bitmap.Width, bitmap.Height));
        var (width, height) = (Math.Max(1, (int)(bitmap.Width * factor)), Math.Max(1, (int)(bitmap.Height * factor)));
        using var scaled = bitmap.Resize(
            new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Opaque),
            new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear)
        );
        using var encoded = scaled.Encode(SKEncodedImageFormat.Jpeg, Quality);
        return (encoded.ToArray(), width, height);
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
