using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Access;

/// <summary>How the house is reached by a phone.</summary>
/// <param name="Address">Of the bench; null where it answers this machine only.</param>
/// <param name="Qr">The address as a QR code, SVG; null without one.</param>
/// <param name="RootAddress">Where the root of its own authority is fetched; null where it has a certificate that others trust.</param>
/// <param name="RootQr">The same as a QR code.</param>
/// <param name="Fingerprint">SHA-256 of the root, to be compared on the phone.</param>
public sealed record HouseAddressAnswer(string? Address, string? Qr, string? RootAddress, string? RootQr, string? Fingerprint);

/// <summary>Where a phone finds the house, and by what it trusts it.</summary>
internal static class HouseAddress
{
    private const string RootPath = "/api/v1/house/root.crt";

    public static void MapHouseAddress(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/house").WithTags("House").AllowAnonymous();
        group.MapGet("/address", Get);
        group.MapGet("/root.crt", Root).Produces(200, contentType: "application/x-x509-ca-cert");
    }

    /// <summary>The address for phones, with the way to trust it.</summary>
    internal static HouseAddressAnswer Get(HttpContext context, Door door, IServiceProvider services)
    {
        var name = door.NameForOthers;
        if (door.Solo || name == "localhost")
            return new(null, null, null, null, null);
        var host = name.Contains(':', StringComparison.Ordinal) ? $"[{name}]" : name;
        var port = context.Request.Host.Port is { } own and not 443 ? $":{own}" : "";
        var address = $"https://{host}{port}{context.Request.PathBase}";
        var fingerprint = door.SpeaksTls ? services.GetRequiredService<Certificates>().RootFingerprint : null;
        var root = fingerprint is null ? null : address + RootPath;
        var bench = address + "/bench";
        return new(bench, QrCode.Svg(bench), root, root is null ? null : QrCode.Svg(root), fingerprint);
    }

    /// <summary>The root of the authority that was made here, DER. It is no secret.</summary>
    internal static Results<FileContentHttpResult, ProblemHttpResult> Root(Door door, IServiceProvider services) =>
        door.SpeaksTls && services.GetRequiredService<Certificates>().Root is { } root
            ? TypedResults.File(root, "application/x-x509-ca-cert", "pyrometron-root.crt")
            : Problems.Missing("This house has no authority of its own.");
}
