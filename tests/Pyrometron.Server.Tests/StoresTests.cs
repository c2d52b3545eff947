using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>The shelf as a client sees it: what comes in, what jobs take, what is refused and why.</summary>
public sealed class StoresTests : IAsyncLifetime, IDisposable
{
    private readonly Server _server = new();

    public Task InitializeAsync() => _server.LoadSmallFleet();

    public Task DisposeAsync() => Task.CompletedTask;

    public void Dispose() => _server.Dispose();

    private async Task Product(
        string code,
        string kind,
        object? facts = null,
        double pack = 4,
        double? price = 8,
        double? lowAt = null
    ) =>
        Assert.Equal(
            204,
            (
                await _server.Put(
                    $"/api/v1/stores/products/{code}",
                    new
                    {
                        kind,
                        name = $"Teasel {code}",
                        facts,
                        packAmount = pack,
                        packPrice = price,
                        leadDays = 3,
                        lowAt,
                    }
                )
            ).Status
        );

    private async Task<long> Lot(string product, double amount, object? more = null)
    {
        var body = JsonSerializer
            .SerializeToNode(
                new
                {
                    product,
                    amount,
                    place = "drawer 2",
                }
            )!
            .AsObject();
        foreach (var member in JsonSerializer.SerializeToNode(more ?? new { })!.AsObject())
            body[member.Key] = member.Value?.DeepClone();
        var (status, answer) = await _server.Post("/api/v1/stores/lots", body);
        Assert.Equal(201, status);
        return answer.GetProperty("id").GetInt64();
    }

    private async Task<double> Left(long lot) =>
        (await _server.Get($"/api/v1/stores/lots/{lot}")).Body.GetProperty("lot").GetProperty("amount").GetDouble();

    private Task<Bench> Begin(string asset, string level) => Bench.Start(_server, asset, level);

    /// <summary>Walks a job through its card and files it.</summary>
    private static async Task File(Bench job)
    {
        await job.Do(new { kind = "before-excused", reason = "a test" });
        await job.DoAllSteps();
        await job.Do(new { kind = "work-filed" });
    }

    [Fact]
    public async Task An_empty_shelf_answers_and_says_what_is_missing()
    {
        var (status, stores) = await _server.Get("/api/v1/stores");
        Assert.Equal(200, status);
        Assert.Equal(0, stores.GetProperty("products").GetArrayLength());
        Assert.Equal(JsonValueKind.Null, stores.GetProperty("countedAt").ValueKind);
        Assert.Equal(200, (await _server.Get("/api/v1/stores/shopping")).Status);
        var (_, cutting) = await _server.Post("/api/v1/stores/cutting", new { });
        Assert.Equal(0, cutting.GetProperty("sheets").GetArrayLength());
    }

    [Fact]
    public async Task A_lot_is_the_sum_of_its_moves()
    {
        await Product("paste", "paste", lowAt: 5);
        var lot = await Lot("paste", 8, new { batch = "B7" });
        Assert.Equal(204, (await _server.Post($"/api/v1/stores/lots/{lot}/count", new { amount = 6.5, by = "Mira" })).Status);
        Assert.Equal(
            204,
            (await _server.Post($"/api/v1/stores/lots/{lot}/throw-away", new { amount = 2, reason = "dry" })).Status
        );
        var (_, page) = await _server.Get($"/api/v1/stores/lots/{lot}");
        Assert.Equal(4.5, page.GetProperty("lot").GetProperty("amount").GetDouble(), 9);
        Assert.Equal(
            ["thrown-away", "counted", "came-in"],
            page.GetProperty("moves").EnumerateArray().Select(m => m.GetProperty("kind").GetString()!)
        );
        var (_, stores) = await _server.Get("/api/v1/stores");
        Assert.True(stores.GetProperty("products")[0].GetProperty("isLow").GetBoolean());
        Assert.Equal("Mira", stores.GetProperty("countedBy").GetString());
        var (_, list) = await _server.Get("/api/v1/stores/shopping");
        Assert.Equal(1, list.GetProperty("lines")[0].GetProperty("buy")[0].GetProperty("packs").GetInt32());
    }

    [Theory]
    [InlineData("""{"product":"none","amount":1,"place":"x"}""", "/product")]
    [InlineData("""{"product":"paste","amount":0,"place":"x"}""", "/amount")]
    [InlineData("""{"product":"paste","amount":-4,"place":"x"}""", "/amount")]
    [InlineData("""{"product":"paste","amount":1e9,"place":"x"}""", "/amount")]
    [InlineData("""{"product":"paste","amount":1}""", "/place")]
    [InlineData("""{"product":"paste","amount":1,"place":"x","widthMm":5}""", "/widthMm")]
    [InlineData("""{"product":"paste","amount":1,"place":"x","expiresOn":"1700-01-01"}""", "/expiresOn")]
    [InlineData("""{"product":"paste","amount":1,"place":"x","pricePerUnit":-1}""", "/pricePerUnit")]
    [InlineData("""{"product":"paste","amount":1,"place":"x","cameOn":"2090-01-01"}""", "/cameOn")]
    public async Task A_lot_that_cannot_be_is_refused_with_its_place(string body, string pointer)
    {
        await Product("paste", "paste");
        var (status, problem) = await _server.Send("/api/v1/stores/lots", body);
        Assert.Equal(400, status);
        Assert.Contains(problem.GetProperty("errors").EnumerateArray(), e => e.GetProperty("pointer").GetString() == pointer);
    }

    [Theory]
    [InlineData("""{"kind":"pads","name":"x","packAmount":1}""", "/facts/thicknessMm")]
    [InlineData("""{"kind":"paste","name":"","packAmount":1}""", "/name")]
    [InlineData("""{"kind":"paste","name":"x","packAmount":0}""", "/packAmount")]
    [InlineData("""{"kind":"paste","name":"x","packAmount":1,"facts":{"densityGPerCm3":0}}""", "/facts/densityGPerCm3")]
    [InlineData("""{"kind":"paste","name":"x","packAmount":1,"leadDays":-1}""", "/leadDays")]
    [InlineData(
        """{"kind":"pads","name":"x","packAmount":1,"facts":{"thicknessMm":99,"sheetWidthMm":1,"sheetHeightMm":1}}""",
        "/facts/thicknessMm"
    )]
    public async Task A_product_that_cannot_be_is_refused_with_its_place(string body, string pointer)
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, "/api/v1/stores/products/x")
        {
            Content = new StringContent(body, System.Text.Encoding.UTF8, "application/json"),
        };
        using var response = await _server.Raw(request);
        var problem = JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement;
        Assert.Equal(400, (int)response.StatusCode);
        Assert.Contains(problem.GetProperty("errors").EnumerateArray(), e => e.GetProperty("pointer").GetString() == pointer);
    }

    [Fact]
    public async Task Stock_never_falls_below_nothing_and_a_product_with_lots_stays()
    {
        await Product("paste", "paste");
        var lot = await Lot("paste", 2);
        var (status, problem) = await _server.Post($"/api/v1/stores/lots/{lot}/throw-away", new { amount = 3, reason = "dry" });
        Assert.Equal(409, status);
        Assert.Contains("holds 2", problem.GetProperty("detail").GetString(), StringComparison.Ordinal);
        Assert.Equal(400, (await _server.Post($"/api/v1/stores/lots/{lot}/count", new { amount = -1 })).Status);
        Assert.Equal(404, (await _server.Post("/api/v1/stores/lots/99/count", new { amount = 1 })).Status);
        using var remove = new HttpRequestMessage(HttpMethod.Delete, "/api/v1/stores/products/paste");
        Assert.Equal(409, (int)(await _server.Raw(remove)).StatusCode);
    }

    [Fact]
    public async Task A_job_reserves_when_it_begins_and_books_when_it_is_filed()
    {
        await Product("paste", "paste");
        await Product("wipes", "wipes", pack: 100);
        var (paste, wipes) = (await Lot("paste", 8, new { batch = "B7" }), await Lot("wipes", 50));
        var job = await Begin("GC-2", "repaste");
        var (_, stores) = await _server.Get($"{job.Url}/stores");
        var takes = stores.GetProperty("job").GetProperty("takes");
        Assert.Equal("drawer 2", takes[0].GetProperty("place").GetString());
        Assert.Equal(8, await Left(paste));

        await job.Do(
            new
            {
                kind = "product-used",
                product = "paste",
                name = "Teasel paste",
                batch = "B7",
                lot = paste,
            }
        );
        await job.Do(
            new
            {
                kind = "material-used",
                material = "paste-grams",
                amount = 0.7,
            }
        );
        Assert.Equal(8, await Left(paste));
        await File(job);
        Assert.Equal(7.3, await Left(paste), 9);
        // Of wipes the job noted nothing: the usual number stands for it.
        Assert.Equal(46, await Left(wipes), 9);

        // What is noted later moves the difference.
        await job.Do(
            new
            {
                kind = "material-used",
                material = "paste-grams",
                amount = -0.2,
            }
        );
        Assert.Equal(7.5, await Left(paste), 9);

        var (_, cost) = await _server.Get($"{job.Url}/cost");
        Assert.Equal((0.5 * 2) + (4 * 0.08), cost.GetProperty("material").GetDouble(), 6);
        Assert.True(cost.GetProperty("materialKnown").GetBoolean());
        var (_, page) = await _server.Get($"/api/v1/stores/lots/{paste}");
        Assert.Equal("GC-2", page.GetProperty("users")[0].GetProperty("asset").GetString());
        Assert.Equal(409, (await _server.Get($"{job.Url}/stores")).Status);
    }

    [Fact]
    public async Task A_job_that_is_given_up_takes_nothing()
    {
        await Product("paste", "paste");
        var lot = await Lot("paste", 8);
        var job = await Begin("GC-2", "repaste");
        Assert.Equal(0.4, await Reserved(lot), 9);
        Assert.Equal(200, (await job.Send(new { kind = "given-up", reason = "a test" })).Status);
        Assert.Equal((8.0, 0.0), (await Left(lot), await Reserved(lot)));
    }

    private async Task<double> Reserved(long lot) =>
        (await _server.Get($"/api/v1/stores/lots/{lot}")).Body.GetProperty("lot").GetProperty("reserved").GetDouble();

    [Fact]
    public async Task An_expired_lot_needs_a_reason_and_a_bad_one_is_refused()
    {
        await Product("paste", "paste");
        var old = await Lot("paste", 4, new { expiresOn = "2020-01-01" });
        var job = await Begin("GC-2", "repaste");
        object Used(long lot, string? why) =>
            new
            {
                kind = "product-used",
                product = "paste",
                name = "Teasel",
                lot,
                expiredBecause = why,
            };
        var (status, problem) = await job.Send(Used(old, null));
        Assert.Equal(409, status);
        Assert.Contains("expired on 1 Jan 2020", problem.GetProperty("detail").GetString(), StringComparison.Ordinal);
        await job.Do(Used(old, "the only one left"));
        Assert.Equal(409, (await job.Send(Used(99, null))).Status);
        await _server.Put($"/api/v1/stores/lots/{old}", new { place = "bin", badBecause = "lumps" });
        Assert.Contains(
            "lumps",
            (await job.Send(Used(old, "x"))).Body.GetProperty("detail").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Pads_are_cut_ahead_booked_and_used()
    {
        await Product(
            "pad",
            "pads",
            new
            {
                thicknessMm = 1.5,
                sheetWidthMm = 100,
                sheetHeightMm = 100,
                conductivityWPerMK = 12.8,
            },
            pack: 1
        );
        await Product("paste", "paste");
        await Lot("paste", 8);
        var sheets = await Lot("pad", 2);
        var notes = (await _server.Get("/api/v1/models/notes?model=Sorrel")).Body.GetProperty("notes");
        var changed = System.Text.Json.Nodes.JsonNode.Parse(notes.GetRawText())!;
        changed["pads"] = JsonSerializer.SerializeToNode(
            Enumerable
                .Range(1, 8)
                .Select(i => new
                {
                    number = i,
                    part = "memory",
                    xMm = 10,
                    yMm = 10,
                    widthMm = 14,
                    heightMm = 12,
                    thicknessMm = 1.5,
                })
        );
        Assert.Equal(200, (await _server.Put("/api/v1/models/notes", new { notes = changed, version = 0 })).Status);
        var job = await Begin("GC-2", "repad");

        var (_, plan) = await _server.Post("/api/v1/stores/cutting", new { assets = new[] { "GC-2" } });
        Assert.Equal((8, 1), (plan.GetProperty("pads").GetInt32(), plan.GetProperty("sheets").GetArrayLength()));
        var book = $"/api/v1/stores/cutting/{plan.GetProperty("id").GetString()}/book";
        Assert.Equal(204, (await _server.Post(book, new { })).Status);
        Assert.Equal(409, (await _server.Post(book, new { })).Status);
        Assert.Equal(1, await Left(sheets));
        var (_, stores) = await _server.Get("/api/v1/stores");
        var offCuts = stores
            .GetProperty("lots")
            .EnumerateArray()
            .Where(l => l.GetProperty("product").GetString() == "pad")
            .Skip(1);
        Assert.NotEmpty(offCuts);
        // A square of 100 costs 8; what an off-cut costs goes with its area.
        Assert.All(
            offCuts,
            l =>
                Assert.Equal(
                    8 * l.GetProperty("widthMm").GetDouble() * l.GetProperty("heightMm").GetDouble() / 10_000,
                    l.GetProperty("pricePerUnit").GetDouble(),
                    6
                )
        );

        var (_, again) = await _server.Post("/api/v1/stores/cutting", new { assets = new[] { "GC-2" } });
        Assert.Equal(0, again.GetProperty("pads").GetInt32());
        var ready = (await _server.Get($"{job.Url}/stores")).Body.GetProperty("job").GetProperty("ready");
        Assert.Equal(8, ready[0].GetProperty("count").GetInt32());
        await File(job);
        Assert.Equal(1, await Left(sheets));
        Assert.DoesNotContain(
            (await _server.Get("/api/v1/stores")).Body.GetProperty("ahead").EnumerateArray(),
            j => j.GetProperty("ready").GetArrayLength() > 0
        );
    }

    [Fact]
    public async Task Too_large_a_pad_is_named_with_its_machine()
    {
        await Product(
            "pad",
            "pads",
            new
            {
                thicknessMm = 1.5,
                sheetWidthMm = 20,
                sheetHeightMm = 20,
            },
            pack: 1
        );
        await Lot("pad", 5);
        var notes = System.Text.Json.Nodes.JsonNode.Parse(
            (await _server.Get("/api/v1/models/notes?model=Sorrel")).Body.GetProperty("notes").GetRawText()
        )!;
        notes["pads"] = JsonSerializer.SerializeToNode(
            new[]
            {
                new
                {
                    number = 1,
                    part = "vrm",
                    xMm = 1,
                    yMm = 1,
                    widthMm = 80,
                    heightMm = 10,
                    thicknessMm = 1.5,
                },
            }
        );
        await _server.Put("/api/v1/models/notes", new { notes, version = 0 });
        await Begin("GC-2", "repad");
        var left = (await _server.Post("/api/v1/stores/cutting", new { assets = new[] { "GC-2" } })).Body.GetProperty("left")[0];
        Assert.Equal(("GC-2", "too-large"), (left.GetProperty("name").GetString(), left.GetProperty("code").GetString()));
    }

    [Fact]
    public async Task What_to_bring_is_one_list()
    {
        await Product("paste", "paste");
        await Lot("paste", 8);
        await Begin("GC-2", "repaste");
        await Begin("GC-3", "repaste");
        var (status, bring) = await _server.Get("/api/v1/stores/bring?asset=GC-2&asset=GC-3");
        Assert.Equal((200, 2), (status, bring.GetProperty("jobs").GetArrayLength()));
        Assert.Equal("Sorrel", bring.GetProperty("withoutNotes")[0].GetString());
        Assert.Equal(400, (await _server.Get("/api/v1/stores/bring?asset=NONE")).Status);
        Assert.Equal(400, (await _server.Get("/api/v1/stores/bring")).Status);
    }

    [Fact]
    public async Task Paste_on_a_chip_says_what_is_not_written_down()
    {
        await Product("paste", "paste", new { conductivityWPerMK = 8.5 });
        await Product("metal", "paste", new { conductivityWPerMK = 38, nature = "liquid-metal" });
        await Product("alder", "paste", new { conductivityWPerMK = 11, densityGPerCm3 = 2.9 });
        var (status, answer) = await _server.Post(
            "/api/v1/materials/paste-for-chip",
            new
            {
                product = "paste",
                chipWidthMm = 31.4,
                chipHeightMm = 20,
                watts = 250,
            }
        );
        Assert.Equal(200, status);
        Assert.Equal(2.3417, answer.GetProperty("kelvin").GetDouble(), 3);
        Assert.Equal(2.3417 / 9, answer.GetProperty("bareTenthKelvin").GetDouble(), 3);
        Assert.Equal(JsonValueKind.Null, answer.GetProperty("usesLeft").ValueKind);
        Assert.StartsWith(
            "Its density",
            answer.GetProperty("missing")[0].GetProperty("template").GetString(),
            StringComparison.Ordinal
        );
        Assert.Equal("metal", answer.GetProperty("better").GetProperty("code").GetString());
        Assert.Equal(
            400,
            (
                await _server.Post(
                    "/api/v1/materials/paste-for-chip",
                    new
                    {
                        product = "none",
                        chipWidthMm = 9,
                        chipHeightMm = 9,
                    }
                )
            ).Status
        );
        Assert.Equal(
            400,
            (
                await _server.Post(
                    "/api/v1/materials/paste-for-chip",
                    new
                    {
                        product = "paste",
                        chipWidthMm = -9,
                        chipHeightMm = 9,
                    }
                )
            ).Status
        );
    }

    [Fact]
    public async Task Spreading_is_told_picture_by_picture()
    {
        var (status, answer) = await _server.Post(
            "/api/v1/materials/spread",
            new
            {
                chipWidthMm = 20,
                chipHeightMm = 20,
                volumeMm3 = 24,
                pattern = "cross",
                frames = 6,
            }
        );
        Assert.Equal(200, status);
        var frames = answer.GetProperty("frames").EnumerateArray().ToList();
        Assert.Equal(6, frames.Count);
        Assert.Equal(100 * 100, Convert.FromBase64String(frames[0].GetProperty("fill").GetString()!).Length);
        Assert.True(frames[^1].GetProperty("coverage").GetDouble() > 0.9);
        Assert.Equal(
            400,
            (
                await _server.Post(
                    "/api/v1/materials/spread",
                    new
                    {
                        chipWidthMm = 0,
                        chipHeightMm = 20,
                        volumeMm3 = 24,
                    }
                )
            ).Status
        );
    }

    [Fact]
    public async Task A_label_of_a_lot_leads_to_it()
    {
        await Product("paste", "paste");
        var lot = await Lot("paste", 8);
        var (_, scan) = await _server.Get($"/api/v1/scan?text=http%3A%2F%2Fhere%2Fstores%2Flots%2F{lot}");
        Assert.Equal(lot, scan.GetProperty("lot").GetInt64());
        Assert.Equal(404, (await _server.Get("/api/v1/scan?text=%2Fstores%2Flots%2F99")).Status);
    }
}
