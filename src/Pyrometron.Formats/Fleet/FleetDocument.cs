using System.Text.Json;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Formats.Fleet;

/// <summary>Reads and writes the fleet document <c>pyrometron-fleet/1</c>. Reading is all or nothing.</summary>
public static class FleetDocument
{
    /// <summary>The value of the document's <c>format</c> member.</summary>
    public const string Format = "pyrometron-fleet/1";

    /// <summary>The longest document that is read, in bytes (100,000 machines take about 50 MB).</summary>
    public const int LongestBytes = 128 * 1024 * 1024;

    /// <summary>The most machines, and the most zones, of one document.</summary>
    public const int MostAssets = 100_000,
        MostZones = 2_000;

    /// <summary>
    /// Reads a document; unknown members are kept out with a warning. One machine is in hand at a time: memory is that of the
    /// register, whatever else the document holds.
    /// </summary>
    /// <param name="utf8">The whole document.</param>
    /// <param name="today">UTC: no service lies after it.</param>
    /// <exception cref="RefusedInputException">Not JSON, or anything in it missing, wrong or contradictory.</exception>
    public static (Register Register, IReadOnlyList<Message> Warnings) Read(ReadOnlyMemory<byte> utf8, DateOnly today)
    {
        try
        {
            return new FleetReader(utf8, today).Read();
        }
        catch (JsonException error)
        {
            // The bounded document has no more lines than bytes.
            var line = (int?)error.LineNumber + 1;
            throw new RefusedInputException(
                new InputProblem($"This is no usable JSON: {error.Message.Split(" LineNumber")[0]}", line, Pointer: "")
            );
        }
    }

    /// <summary>Writes a document that reads back as the same register.</summary>
    public static void Write(Stream json, Register register)
    {
        using var w = new Utf8JsonWriter(json, new JsonWriterOptions { Indented = true });
        w.WriteStartObject();
        w.WriteString("format", Format);
        WriteAll(
            w,
            "sites",
            register.Sites,
            site =>
            {
                w.WriteString("code", site.Code);
                w.WriteString("name", site.Name);
                w.WriteNumber("altitudeMetres", site.AltitudeMetres);
                if (site.TimeZone is { } timeZone)
                    w.WriteString("timeZone", timeZone);
                WriteAll(
                    w,
                    "zones",
                    site.Zones,
                    zone =>
                    {
                        w.WriteString("code", zone.Code);
                        w.WriteString("name", zone.Name);
                        w.WriteString("dust", Words.Of(zone.Dust));
                        w.WriteNumber("designAmbientCelsius", zone.DesignAmbient.Value);
                    }
                );
            }
        );
        WriteAll(w, "assets", register.Assets, asset => WriteAsset(w, asset));
        w.WriteEndObject();
    }

    private static void WriteAsset(Utf8JsonWriter w, Asset asset)
    {
        w.WriteString("tag", asset.Tag);
        w.WriteString("kind", Words.Of(asset.Kind));
        w.WriteString("model", asset.Model);
        w.WriteString("zone", asset.Zone);
        if (asset.HostTag is { } host)
            w.WriteString("hostTag", host);
        if (asset.Place is { } place)
        {
            w.WriteStartObject("place");
            w.WriteNumber("column", place.Column);
            w.WriteNumber("row", place.Row);
            w.WriteEndObject();
        }
        w.WriteNumber("dutyHoursPerDay", asset.DutyHoursPerDay);
        w.WriteString("inServiceSince", Iso(asset.InServiceSince));
        if (asset.WarrantyUntil is { } warranty)
            w.WriteString("warrantyUntil", Iso(warranty));
        else
            w.WriteNull("warrantyUntil");
        WriteAll(
            w,
            "parts",
            asset.Parts,
            part =>
            {
                w.WriteString("part", part.Name);
                w.WriteNumber("limitCelsius", part.Limit.Value);
                w.WriteString("interface", Words.Of(part.Joint));
            }
        );
        WriteAll(
            w,
            "services",
            asset.Services,
            service =>
            {
                w.WriteString("date", Iso(service.Date));
                w.WriteString("level", Words.Of(service.Level));
                WriteShares(w, service);
            }
        );
    }

    /// <summary>What a service did beyond its level, or less: a fan changed on the way, a cooler left on.</summary>
    private static void WriteShares(Utf8JsonWriter w, ServiceDone service)
    {
        var usual = new ServiceDone(service.Date, service.Level);
        if (service.LiftedCooler != usual.LiftedCooler)
            w.WriteBoolean("coolerLifted", service.LiftedCooler);
        if (service.FanFailed is { } failed)
            w.WriteBoolean("fanFailed", failed);
        if (service.Renewed == usual.Renewed)
            return;
        w.WriteStartObject("renewed");
        w.WriteNumber("dust", service.Renewed.Dust);
        w.WriteNumber("paste", service.Renewed.Paste);
        w.WriteNumber("pads", service.Renewed.Pads);
        w.WriteNumber("fan", service.Renewed.Fan);
        w.WriteNumber("mount", service.Renewed.Mount);
        w.WriteEndObject();
    }

    private static string Iso(DateOnly date) => date.ToString("O", System.Globalization.CultureInfo.InvariantCulture);

    private static void WriteAll<T>(Utf8JsonWriter w, string name, IReadOnlyList<T> items, Action<T> write)
    {
        w.WriteStartArray(name);
        foreach (var item in items)
        {
            w.WriteStartObject();
            write(item);
            w.WriteEndObject();
        }
        w.WriteEndArray();
    }
}
