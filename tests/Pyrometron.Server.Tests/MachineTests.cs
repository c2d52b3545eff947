using System.Net;
using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>Machines and their books: edited, set aside, retired; readings and services put right.</summary>
public sealed class MachineTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    [Fact]
    public async Task A_part_is_added_and_none_lost()
    {
        await _server.LoadSmallFleet();
        static object Part(string name) =>
            new
            {
                part = name,
                limitCelsius = 90,
                @interface = "paste",
            };
        static object Edit(params string[] parts) =>
            new
            {
                model = "Sorrel",
                kind = "graphics-card",
                zone = "Z",
                dutyHoursPerDay = 24,
                inServiceSince = "2025-01-01",
                parts = parts.Select(Part),
            };
        Assert.Equal(204, (await _server.Put("/api/v1/assets/GC-1", Edit("core", "memory", "vrm"))).Status);
        var parts = (await _server.Get("/api/v1/assets/GC-1")).Body.GetProperty("parts").EnumerateArray();
        Assert.Equal(["core", "memory", "vrm"], parts.Select(p => p.GetProperty("part").GetString()));
        foreach (
            var odd in (string[][])
                [
                    [],
                    ["core", "memory", "vrm", "vrm"],
                    ["core", "memory", "vrm", "Fan 2"],
                    ["core", "memory", "vrm", "ambient"],
                    ["core", "memory", "vrm", "a\n"],
                ]
        )
            Assert.Equal(400, (await _server.Put("/api/v1/assets/GC-1", Edit(odd))).Status);
        // Its readings are read by the parts they were of.
        var readings = (await _server.Get("/api/v1/assets/GC-1/readings?count=1")).Body[0].GetProperty("partsC");
        Assert.Equal(3, readings.GetArrayLength());
        Assert.Equal(JsonValueKind.Null, readings[2].ValueKind);
        var memory = readings[1].GetDouble();
        // A part that goes takes its readings with it, and brings them back.
        Assert.Equal(204, (await _server.Put("/api/v1/assets/GC-1", Edit("core"))).Status);
        Assert.Equal(
            1,
            (await _server.Get("/api/v1/assets/GC-1/readings?count=1")).Body[0].GetProperty("partsC").GetArrayLength()
        );
        Assert.Equal(204, (await _server.Put("/api/v1/assets/GC-1", Edit("core", "memory"))).Status);
        readings = (await _server.Get("/api/v1/assets/GC-1/readings?count=1")).Body[0].GetProperty("partsC");
        Assert.Equal(memory, readings[1].GetDouble());
    }

    [Fact]
    public async Task A_zone_is_added_before_its_machines_and_removed_while_it_has_none()
    {
        var attic = new
        {
            name = "Attic",
            siteName = "Mill",
            dust = "heavy",
            altitudeMetres = 300,
        };
        var (status, added) = await _server.Post("/api/v1/zones", attic);
        Assert.Equal((200, "MILL-ATTIC"), (status, added.GetProperty("code").GetString()));
        Assert.Equal(400, (await _server.Post("/api/v1/zones", attic)).Status);
        Assert.Equal(400, (await _server.Post("/api/v1/zones", new { name = "Attic" })).Status);
        Assert.Equal(200, (await _server.Post("/api/v1/zones", new { name = "Cellar", siteName = "mill" })).Status);
        await _server.Send("/api/v1/fleet/table", "tag;kind;zone\nPC-1;desktop;Attic\n", "text/csv");
        var zones = (await _server.Get("/api/v1/zones?wait=60")).Body.EnumerateArray().ToArray();
        Assert.Equal(
            [("MILL", 300, "heavy"), ("MILL", 300, "normal")],
            zones.Select(z =>
                (
                    z.GetProperty("site").GetString()!,
                    z.GetProperty("altitudeMetres").GetInt32(),
                    z.GetProperty("dust").GetString()!
                )
            )
        );
        async Task<HttpStatusCode> Remove(string code)
        {
            using var request = new HttpRequestMessage(HttpMethod.Delete, $"/api/v1/zones/{code}");
            return (await _server.Raw(request)).StatusCode;
        }
        Assert.Equal(HttpStatusCode.Conflict, await Remove("MILL-ATTIC"));
        Assert.Equal(HttpStatusCode.NoContent, await Remove("MILL-CELLAR"));
        Assert.Equal(HttpStatusCode.NotFound, await Remove("MILL-CELLAR"));
        Assert.Single((await _server.Get("/api/v1/zones")).Body.EnumerateArray());
    }

    [Fact]
    public async Task A_zone_is_edited_with_its_site_and_its_machines_are_judged_anew()
    {
        await _server.LoadSmallFleet();
        async Task<(JsonElement Zone, double Heading)> Now()
        {
            var zone = (await _server.Get("/api/v1/zones?wait=60")).Body[0];
            var item = (await _server.Get("/api/v1/queue?wait=60&limit=all")).Body.GetProperty("items")[0];
            return (zone, item.GetProperty("strip").GetProperty("heading").GetDouble());
        }
        var (before, heading) = await Now();
        Assert.Equal(204, (await _server.Put("/api/v1/zones/Z", new { name = " Attic ", designAmbientCelsius = 38 })).Status);
        var (after, warmer) = await Now();
        Assert.Equal("Attic", after.GetProperty("name").GetString());
        Assert.Equal(heading + 5, warmer, 1);
        // What is not named stays.
        foreach (var stays in (string[])["dust", "siteName", "altitudeMetres"])
            Assert.Equal(before.GetProperty(stays).ToString(), after.GetProperty(stays).ToString());
        Assert.Equal(204, (await _server.Put("/api/v1/zones/Z", new { siteName = "Mill", altitudeMetres = 900 })).Status);
        Assert.Equal("Mill", (await Now()).Zone.GetProperty("siteName").GetString());
        foreach (
            var odd in (object[])
                [
                    new { name = " " },
                    new { name = new string('x', 81) },
                    new { designAmbientCelsius = 81 },
                    new { siteName = "" },
                    new { altitudeMetres = 9001 },
                    new { dust = "felted" },
                ]
        )
            Assert.Equal(400, (await _server.Put("/api/v1/zones/Z", odd)).Status);
        var (status, nothing) = await _server.Put("/api/v1/zones/Z", null!);
        Assert.Equal((400, "The body is missing."), (status, nothing.GetProperty("detail").GetString()));
        Assert.Equal(404, (await _server.Put("/api/v1/zones/ATTIC", new { name = "Attic" })).Status);
    }

    [Fact]
    public async Task A_machine_is_edited_moved_set_aside_retired_and_put_back()
    {
        await _server.LoadSmallFleet();
        var parts = new[]
        {
            new
            {
                part = "core",
                limitCelsius = 88,
                @interface = "paste",
            },
            new
            {
                part = "memory",
                limitCelsius = 105,
                @interface = "pad",
            },
        };
        object Edit(string zone, string since = "2025-01-01", string? warranty = null) =>
            new
            {
                model = "Sorrel II",
                kind = "graphics-card",
                zone,
                hostTag = (string?)null,
                dutyHoursPerDay = 20,
                inServiceSince = since,
                warrantyUntil = warranty,
                parts,
            };
        Assert.Equal(204, (await _server.Put("/api/v1/assets/GC-2", Edit("Z"))).Status);
        Assert.Equal(400, (await _server.Put("/api/v1/assets/GC-2", Edit("ATTIC"))).Status);
        foreach (var odd in (string[])["9999-12-31", "0001-01-01"])
        {
            Assert.Equal(400, (await _server.Put("/api/v1/assets/GC-2", Edit("Z", since: odd))).Status);
            Assert.Equal(400, (await _server.Put("/api/v1/assets/GC-2", Edit("Z", warranty: odd))).Status);
        }
        var (_, machine) = await _server.Get("/api/v1/assets/GC-2");
        Assert.Equal(
            ("Sorrel II", 88),
            (machine.GetProperty("model").GetString(), machine.GetProperty("parts")[0].GetProperty("limitCelsius").GetInt32())
        );
        Assert.Contains(machine.GetProperty("changes").EnumerateArray(), c => c.GetProperty("field").GetString() == "model");

        Assert.Equal(
            400,
            (await _server.Put("/api/v1/assets/GC-1/set-aside", new { reason = "looked", until = "2020-01-01" })).Status
        );
        Assert.Equal(
            204,
            (
                await _server.Put(
                    "/api/v1/assets/GC-1/set-aside",
                    new { reason = "looked", until = DateTime.UtcNow.AddDays(30).ToString("yyyy-MM-dd") }
                )
            ).Status
        );
        var (_, queue) = await _server.Get("/api/v1/queue?wait=60");
        Assert.Equal(
            "looked",
            queue
                .GetProperty("items")
                .EnumerateArray()
                .Single(i => i.GetProperty("asset").GetString() == "GC-1")
                .GetProperty("setAside")
                .GetProperty("reason")
                .GetString()
        );

        Assert.Equal(400, (await _server.Post("/api/v1/assets/GC-3/retirement", new { retired = true })).Status);
        Assert.Equal(204, (await _server.Post("/api/v1/assets/GC-3/retirement", new { retired = true, reason = "sold" })).Status);
        (_, queue) = await _server.Get("/api/v1/queue?wait=60");
        Assert.DoesNotContain(queue.GetProperty("items").EnumerateArray(), i => i.GetProperty("asset").GetString() == "GC-3");
        Assert.Equal(409, (await _server.Get("/api/v1/assets/GC-3/assessment")).Status);
        Assert.Equal(204, (await _server.Post("/api/v1/assets/GC-3/retirement", new { retired = false })).Status);
        Assert.Equal(200, (await _server.Get("/api/v1/assets/GC-3/assessment?wait=60")).Status);
    }

    [Fact]
    public async Task Wrong_readings_and_services_are_corrected_or_voided()
    {
        await _server.LoadSmallFleet();
        var (_, newest) = await _server.Get("/api/v1/assets/GC-1/readings?count=2");
        var at = newest[0].GetProperty("at").GetString();
        Assert.Equal(400, (await _server.Post("/api/v1/assets/GC-1/readings/void", new { at, voided = true })).Status);
        Assert.Equal(
            204,
            (
                await _server.Post(
                    "/api/v1/assets/GC-1/readings/void",
                    new
                    {
                        at,
                        voided = true,
                        reason = "door open",
                    }
                )
            ).Status
        );
        Assert.Equal(
            400,
            (
                await _server.Post(
                    "/api/v1/assets/GC-1/readings/correct",
                    new
                    {
                        at,
                        column = "core",
                        value = 4000,
                        reason = "typo",
                    }
                )
            ).Status
        );
        Assert.Equal(
            404,
            (
                await _server.Post(
                    "/api/v1/assets/GC-1/readings/correct",
                    new
                    {
                        at,
                        column = "mood",
                        value = 4,
                        reason = "typo",
                    }
                )
            ).Status
        );
        Assert.Equal(
            204,
            (
                await _server.Post(
                    "/api/v1/assets/GC-1/readings/correct",
                    new
                    {
                        at,
                        column = "core",
                        value = 61,
                        reason = "typo",
                    }
                )
            ).Status
        );
        (_, newest) = await _server.Get("/api/v1/assets/GC-1/readings?count=1");
        Assert.Equal((2, 61), (newest[0].GetProperty("amended").GetInt32(), newest[0].GetProperty("partsC")[0].GetInt32()));

        Assert.Equal(
            204,
            (await _server.Post("/api/v1/assets/GC-1/services", new { date = "2026-01-05", level = "dust-out" })).Status
        );
        var (_, machine) = await _server.Get("/api/v1/assets/GC-1");
        var id = machine.GetProperty("services")[0].GetProperty("id").GetInt64();
        Assert.Equal(
            204,
            (await _server.Post($"/api/v1/assets/GC-1/services/{id}/void", new { voided = true, reason = "other card" })).Status
        );
        (_, machine) = await _server.Get("/api/v1/assets/GC-1");
        Assert.Equal("other card", machine.GetProperty("services")[0].GetProperty("voidedReason").GetString());
    }

    [Fact]
    public async Task Where_machines_stand_is_drawn_travels_with_the_fleet_document_and_is_forgotten_by_a_move()
    {
        await _server.LoadSmallFleet();
        object Cell(string asset, int column, int row) => new { asset, place = new { column, row } };
        async Task<int> Draw(params object[] places) => (await _server.Put("/api/v1/zones/Z/floor", new { places })).Status;
        async Task<string?> PlaceOf(string tag) =>
            (await _server.Get("/api/v1/queue?limit=all&wait=60"))
                .Body.GetProperty("items")
                .EnumerateArray()
                .Single(i => i.GetProperty("asset").GetString() == tag)
                .GetProperty("place")
                is { ValueKind: JsonValueKind.Object } place
                ? $"{place.GetProperty("column")}/{place.GetProperty("row")}"
                : null;

        Assert.Equal(204, await Draw(Cell("GC-1", 3, 1), Cell("GC-2", 0, 0)));
        Assert.Equal("3/1", await PlaceOf("GC-1"));
        Assert.Equal(400, await Draw(Cell("GC-1", 200, 1)));
        Assert.Equal(400, await Draw(Cell("GC-1", 1, 1), Cell("GC-1", 2, 1)));
        Assert.Equal(404, await Draw(Cell("NOBODY", 1, 1)));
        Assert.Equal(400, (await _server.Put("/api/v1/zones/Z/floor", new { })).Status);
        Assert.Equal(400, (await _server.Put("/api/v1/zones/Z/floor", new { places = new object?[] { null } })).Status);
        Assert.Equal(404, (await _server.Put("/api/v1/zones/ATTIC/floor", new { places = Array.Empty<object>() })).Status);

        // Out and back: nothing changes; a document that tells no places leaves them.
        var document = (await _server.Get("/api/v1/fleet")).Body.ToString();
        Assert.Contains(
            "\"place\":{\"column\":3,\"row\":1}",
            string.Concat(document.Where(c => !char.IsWhiteSpace(c))),
            StringComparison.Ordinal
        );
        Assert.Equal(8, (await _server.Send("/api/v1/fleet", document)).Body.GetProperty("unchanged").GetInt32());
        var silent = System.Text.Json.Nodes.JsonNode.Parse(document)!;
        foreach (var asset in silent["assets"]!.AsArray())
            asset!.AsObject().Remove("place");
        Assert.Equal(8, (await _server.Send("/api/v1/fleet", silent.ToJsonString())).Body.GetProperty("unchanged").GetInt32());
        Assert.Equal("3/1", await PlaceOf("GC-1"));

        Assert.Equal(204, await Draw(new { asset = "GC-2" }));
        Assert.Null(await PlaceOf("GC-2"));
        await _server.Post("/api/v1/zones", new { name = "Attic", siteName = "Site" });
        var attic = (await _server.Get("/api/v1/zones")).Body.EnumerateArray().Last().GetProperty("code").GetString();
        await _server.Send("/api/v1/fleet/table", $"tag;kind;zone\nGC-1;graphics-card;{attic}\n", "text/csv");
        Assert.Null(await PlaceOf("GC-1"));
    }

    [Fact]
    public async Task The_air_of_a_zone_is_told_through_time()
    {
        await _server.LoadSmallFleet();
        var air = (await _server.Get("/api/v1/zones/Z/air")).Body.EnumerateArray().ToArray();
        Assert.True(air.Length > 50);
        Assert.All(air, p => Assert.InRange(p.GetProperty("sensorCelsius").GetDouble(), 10, 40));
        Assert.Equal(404, (await _server.Get("/api/v1/zones/ATTIC/air")).Status);
    }
}
