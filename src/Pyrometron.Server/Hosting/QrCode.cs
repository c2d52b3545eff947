using QRCoder;

namespace Pyrometron.Server.Hosting;

/// <summary>Texts as QR codes (ISO/IEC 18004).</summary>
internal static class QrCode
{
    /// <summary>The code of a text as an SVG drawing.</summary>
    public static string Svg(string text)
    {
        using var code = QRCodeGenerator.GenerateQrCode(text, QRCodeGenerator.ECCLevel.M, forceUtf8: true);
        using var svg = new SvgQRCode(code);
        return svg.GetGraphic(4, "#000000", "#ffffff", drawQuietZones: true, SvgQRCode.SizingMode.ViewBoxAttribute);
    }
}
