using SkiaSharp;

namespace Pyrometron.Server.Demo;

/// <summary>A drawn stand-in for the photo of a cooler's fins, with more or less dust.</summary>
internal static class FinsPicture
{
    /// <summary>Draws it.</summary>
    /// <param name="grade">Dust, 0 to 4.</param>
    /// <returns>PNG.</returns>
    public static byte[] Draw(int grade)
    {
        using var bitmap = new SKBitmap(960, 640);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(new SKColor(0x5a, 0x57, 0x52));
        using var fin = new SKPaint { Color = new SKColor(0xb9, 0xb4, 0xab), StrokeWidth = 7 };
        for (var x = 20; x < 960; x += 22)
            canvas.DrawLine(x, 30, x + 8, 610, fin);
        var random = new Random(grade);
        for (var i = 0; i < grade * 420; i++)
        {
            var shade = (byte)random.Next(120, 170);
            using var fluff = new SKPaint
            {
                Color = new SKColor(shade, (byte)(shade - 8), (byte)(shade - 18), 190),
                IsAntialias = true,
            };
            canvas.DrawOval(
                random.Next(960),
                640 - (float)Math.Pow(random.NextDouble(), 1.6) * 600,
                random.Next(4, 22),
                random.Next(3, 12),
                fluff
            );
        }
        using var file = bitmap.Encode(SKEncodedImageFormat.Png, 90);
        return file.ToArray();
    }
}
