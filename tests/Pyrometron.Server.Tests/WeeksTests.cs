using System.Globalization;
using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>The plan of a house: made in the background, changed by hand, made anew after an absence, taken back.</summary>
public sealed class WeeksTests(WeeksTests.House house) : IClassFixture<WeeksTests.House>
{
    /// <summary>A server with ten overdue desktops and two people who are always there.</summary>
    public sealed class House : IAsyncLifetime, IDisposable
    {
        internal Server Server { get; } = new();

        internal string Zone { get; private set; } = "";

        public async Task InitializeAsync()
        {
            const string header = "tag,kind,model,zone,inServiceSince,lastServiceDate,lastServiceLevel\n";
            var rows = Enumerable
                .Range(1, 10)
                .Select(i => $"PC-{i},desktop,Petrel,Reading room,2020-01-10,2021-05-01,dust-out\n");
            await Server.Send("/api/v1/fleet/table", header + string.Concat(rows), "text/csv");
            Zone = (await Server.Get("/api/v1/zones")).Body[0].GetProperty("code").GetString()!;
            foreach (var code in (string[])["mira", "tomas"])
                Assert.Equal(204, (await Server.Put($"/api/v1/people/{code}", Person(code))).Status);
            await Server.Get("/api/v1/queue?wait=20");
        }

        public Task DisposeAsync() => Task.CompletedTask;

        public void Dispose() => Server.Dispose();

        internal static object Person(string name, string from = "00:00", string to = "00:00", string[]? skills = null) =>
            new
            {
                name,
                skills = skills ?? ["open-cards"],
                sites = Array.Empty<string>(),
                hours = Enum.GetNames<DayOfWeek>()
                    .Select(day => new
                    {
                        day = day.ToLowerInvariant(),
                        from,
                        to,
                    }),
            };

        internal async Task<JsonElement> Plan(int days = 7)
        {
            var (status, body) = await Server.Post("/api/v1/weeks/plan", new { days, seconds = 0.5 });
            Assert.True(status == 202, body.ToString());
            return await Done();
        }

        internal async Task<JsonElement> Done()
        {
            for (var i = 0; i < 300; i++)
            {
                var (_, weeks) = await Server.Get("/api/v1/weeks");
                if (weeks.GetProperty("run").ValueKind == JsonValueKind.Null)
                    return weeks.GetProperty("plan");
                await Task.Delay(100);
            }
            throw new TimeoutException("No plan within 30 s.");
        }
    }

    private readonly Server _server = house.Server;

    private static DateOnly Today => DateOnly.FromDateTime(DateTime.Now);

    private static string Day(int days) => Today.AddDays(days).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static JsonElement[] Jobs(JsonElement plan, string list = "jobs") => [.. plan.GetProperty(list).EnumerateArray()];

    private static long Seen(JsonElement plan) => plan.GetProperty("id").GetInt64();

    private static string Id(JsonElement job) => job.GetProperty("id").GetString()!;

    private static (string Person, string Day) Spot(JsonElement job) =>
        (job.GetProperty("person").GetString()!, job.GetProperty("day").GetString()!);

    [Fact]
    public async Task Everything_overdue_gets_its_place_and_an_absence_moves_only_what_it_must()
    {
        var before = await house.Plan();
        var advised = Jobs(before).Where(j => j.GetProperty("kind").GetString() == "service").ToArray();
        Assert.Equal(10, advised.Length);
        Assert.Empty(Jobs(before, "leftOut"));
        Assert.All(advised, j => Assert.Equal("dust-out", j.GetProperty("steps")[0].GetProperty("level").GetString()));
        var ill = Spot(Jobs(before).First());
        var (_, absence) = await _server.Post(
            $"/api/v1/people/{ill.Person}/absences",
            new
            {
                from = ill.Day,
                to = ill.Day,
                reason = "ill",
            }
        );
        // The plan in force says what cannot stand any more; planned again, only that has moved, and why.
        var told = (await _server.Get("/api/v1/weeks")).Body.GetProperty("plan");
        var fallen = Jobs(told).Where(j => j.GetProperty("conflict").ValueKind != JsonValueKind.Null).Select(Id).ToHashSet();
        Assert.Equal(Jobs(before).Where(j => Spot(j) == ill).Select(Id).Order(), fallen.Order());
        var after = await house.Plan();
        Assert.Equal(fallen.Order(), Jobs(after, "moved").Select(Id).Order());
        Assert.All(
            Jobs(after, "moved"),
            m => Assert.Equal("{person} has no shift that holds it.", m.GetProperty("why").GetProperty("template").GetString())
        );
        Assert.DoesNotContain(Jobs(after), j => Spot(j) == ill);

        // Their calendar says what is not theirs any more, under the same name and with a higher number.
        var file = await _server.Raw(new HttpRequestMessage(HttpMethod.Get, $"/api/v1/calendar.ics?person={ill.Person}"));
        var events = (await file.Content.ReadAsStringAsync()).Split("BEGIN:VEVENT")[1..];
        var cancelled = Jobs(after, "moved")
            .Where(m => Jobs(after).First(j => Id(j) == Id(m)).GetProperty("person").GetString() != ill.Person)
            .Select(m => $"UID:{Id(m)}-{ill.Person}@pyrometron")
            .ToArray();
        foreach (var uid in cancelled)
            Assert.Contains("STATUS:CANCELLED", Assert.Single(events, e => e.Contains(uid, StringComparison.Ordinal)));
        Assert.All(events, e => Assert.Contains($"SEQUENCE:{Seen(after)}", e));

        // Taken back, the plan before is in force again.
        Assert.Equal(204, (await _server.Post("/api/v1/weeks/take-back", new { seen = Seen(after) })).Status);
        var back = (await _server.Get("/api/v1/weeks")).Body.GetProperty("plan");
        Assert.Equal(Jobs(before).Select(Spot), Jobs(back).Select(Spot));
        await _server.Raw(new HttpRequestMessage(HttpMethod.Delete, $"/api/v1/absences/{absence.GetProperty("id").GetInt64()}"));
    }

    [Fact]
    public async Task A_job_is_moved_kept_left_out_and_put_back_by_hand()
    {
        var plan = await house.Plan();
        var job = Jobs(plan).Last();
        var other = Jobs(plan).First();
        async Task<(int Status, JsonElement Body)> Place(JsonElement seen, object person, int from, bool tryOnly) =>
            await _server.Post(
                $"/api/v1/weeks/jobs/{Id(job)}/place",
                new
                {
                    seen = Seen(seen),
                    person,
                    day = Day(5),
                    from,
                    tryOnly,
                }
            );

        var busy = await _server.Post(
            $"/api/v1/weeks/jobs/{Id(job)}/place",
            new
            {
                seen = Seen(plan),
                person = Spot(other).Person,
                day = Spot(other).Day,
                from = other.GetProperty("from").GetInt32(),
                tryOnly = false,
            }
        );
        Assert.Equal("{person} is busy then: {job}.", busy.Body.GetProperty("conflict").GetProperty("template").GetString());
        Assert.Equal(JsonValueKind.Null, (await Place(plan, "mira", 600, tryOnly: true)).Body.GetProperty("conflict").ValueKind);
        Assert.Equal(Seen(plan), Seen((await _server.Get("/api/v1/weeks")).Body.GetProperty("plan")));
        Assert.Equal(200, (await Place(plan, "mira", 600, tryOnly: false)).Status);
        // Whoever looked at the plan before that is told so.
        Assert.Equal(409, (await Place(plan, "mira", 660, tryOnly: false)).Status);

        var moved = (await _server.Get("/api/v1/weeks")).Body.GetProperty("plan");
        var now = Jobs(moved).Single(j => Id(j) == Id(job));
        Assert.Equal(
            (("mira", Day(5)), 600, true),
            (Spot(now), now.GetProperty("from").GetInt32(), now.GetProperty("locked").GetBoolean())
        );
        Assert.Equal("hand", moved.GetProperty("planner").GetString());
        // It stays there when the plan is made anew.
        var anew = await house.Plan();
        Assert.Equal(("mira", Day(5)), Spot(Jobs(anew).Single(j => Id(j) == Id(job))));

        Assert.Equal(204, (await _server.Post($"/api/v1/weeks/jobs/{Id(job)}/leave-out", new { seen = Seen(anew) })).Status);
        anew = await house.Plan();
        var left = Assert.Single(Jobs(anew, "leftOut"));
        Assert.Equal((Id(job), "by-hand"), (Id(left), left.GetProperty("code").GetString()));
        Assert.Equal(200, (await Place(anew, "tomas", 720, tryOnly: false)).Status);
        anew = (await _server.Get("/api/v1/weeks")).Body.GetProperty("plan");
        Assert.Empty(Jobs(anew, "leftOut"));
        Assert.Equal(
            204,
            (await _server.Post($"/api/v1/weeks/jobs/{Id(job)}/lock", new { seen = Seen(anew), locked = false })).Status
        );
    }

    [Fact]
    public async Task Who_is_late_moves_the_rest_of_the_shift()
    {
        var plan = await house.Plan();
        // Both are always there: what is left of the shift that runs now.
        var today = Jobs(plan).Where(j => j.GetProperty("day").GetString() == Day(0)).ToArray();
        // Just before midnight nothing is left of it.
        if (today.Length == 0)
            return;
        var person = today[0].GetProperty("person").GetString();
        var theirs = today.Where(j => j.GetProperty("person").GetString() == person).ToArray();
        var (status, answer) = await _server.Post(
            "/api/v1/weeks/late",
            new
            {
                seen = Seen(plan),
                person,
                minutes = 5,
            }
        );
        Assert.Equal(200, status);
        Assert.Equal(theirs.Length, answer.GetProperty("moved").GetInt32() + answer.GetProperty("lost").GetInt32());
        var after = (await _server.Get("/api/v1/weeks")).Body.GetProperty("plan");
        foreach (var old in theirs)
            if (Jobs(after).FirstOrDefault(j => Id(j) == Id(old)) is { ValueKind: JsonValueKind.Object } now)
                Assert.Equal(
                    old.GetProperty("start").GetDateTimeOffset().AddMinutes(5),
                    now.GetProperty("start").GetDateTimeOffset()
                );
        Assert.Equal(
            409,
            (
                await _server.Post(
                    "/api/v1/weeks/late",
                    new
                    {
                        seen = Seen(after),
                        person = "nobody",
                        minutes = 5,
                    }
                )
            ).Status
        );
    }

    [Fact]
    public async Task More_hours_a_week_never_let_more_machines_pass_their_line()
    {
        var (status, curve) = await _server.Get("/api/v1/weeks/hours");
        Assert.Equal(200, status);
        Assert.Equal(2 * 168, curve.GetProperty("hoursAWeek").GetDouble());
        var passing = curve.GetProperty("points").EnumerateArray().Select(p => p.GetProperty("passing").GetInt32()).ToArray();
        Assert.Equal(curve.GetProperty("machines").GetInt32(), passing[0]);
        Assert.Equal(passing.OrderDescending(), passing);
        Assert.Equal(400, (await _server.Get("/api/v1/weeks/hours?until=2020-01-01")).Status);
    }

    [Fact]
    public async Task A_visit_waits_for_its_place_and_gets_one()
    {
        var plan = await house.Plan();
        var (status, added) = await _server.Post(
            "/api/v1/weeks/jobs",
            new
            {
                seen = Seen(plan),
                title = "Look at the extract fan",
                zone = house.Zone,
                minutes = 20,
                dueBy = Day(2),
            }
        );
        Assert.Equal(200, status);
        var id = added.GetProperty("id").GetString();
        Assert.Contains(Jobs((await _server.Get("/api/v1/weeks")).Body.GetProperty("plan"), "leftOut"), l => Id(l) == id);
        var visit = Jobs(await house.Plan()).Single(j => Id(j) == id);
        Assert.Equal(
            ("Look at the extract fan", 20),
            (visit.GetProperty("title").GetString(), visit.GetProperty("minutes").GetInt32())
        );
    }

    [Fact]
    public async Task Two_plans_at_once_are_refused_and_one_can_be_stopped()
    {
        // Ten at once: a small house may be planned to the end before somebody comes after the first.
        var asked = await Task.WhenAll(
            Enumerable.Range(0, 10).Select(_ => _server.Post("/api/v1/weeks/plan", new { seconds = 60 }))
        );
        Assert.Equal([202, 409], asked.Select(a => a.Status).Distinct().Order());
        Assert.Equal(204, (await _server.Post("/api/v1/weeks/stop", new { })).Status);
        Assert.NotEmpty(Jobs(await house.Done()));
    }

    /// <summary>
    /// A rule that says that two lift a machine reaches the plan, both their day sheets and both calendars; without somebody who
    /// may lift, the plan says so.
    /// </summary>
    [Fact]
    public async Task Work_for_two_stands_in_the_days_of_both()
    {
        async Task Rule(object change) =>
            Assert.Equal(
                200,
                (
                    await _server.Put(
                        "/api/v1/rules",
                        new
                        {
                            scope = "machine",
                            key = "PC-4",
                            change,
                        }
                    )
                ).Status
            );
        async Task May(params string[] skills)
        {
            foreach (var code in (string[])["mira", "tomas"])
                Assert.Equal(204, (await _server.Put($"/api/v1/people/{code}", House.Person(code, skills: skills))).Status);
        }

        await Rule(new { twoPeople = true });
        await _server.Get("/api/v1/queue?wait=20");
        var nobody = Jobs(await house.Plan(), "leftOut").Single(j => Id(j) == "PC-4");
        Assert.Equal("no-skill", nobody.GetProperty("code").GetString());
        await May("open-cards", "lift-with-two");
        var plan = await house.Plan();
        var two = Jobs(plan).Single(j => Id(j) == "PC-4");
        var help = two.GetProperty("help");
        Assert.NotEqual(two.GetProperty("person").GetString(), help.GetProperty("person").GetString());
        Assert.Equal(two.GetProperty("from").GetInt32(), help.GetProperty("from").GetInt32());
        Assert.Equal(two.GetProperty("day").GetString(), help.GetProperty("day").GetString());
        Assert.All(
            Jobs(plan).Where(j => Id(j) != "PC-4"),
            j => Assert.Equal(JsonValueKind.Null, j.GetProperty("help").ValueKind)
        );
        foreach (var code in (string[])["mira", "tomas"])
        {
            var file = await _server.Raw(new HttpRequestMessage(HttpMethod.Get, $"/api/v1/calendar.ics?person={code}"));
            var visit = (await file.Content.ReadAsStringAsync())
                .Split("BEGIN:VEVENT")
                .Single(e => e.Contains($"UID:PC-4-{code}@", StringComparison.Ordinal));
            Assert.Contains($"With {(code == "mira" ? "tomas" : "mira")}.", visit, StringComparison.Ordinal);
        }
        // Moved by hand it keeps who helps; where they are busy then it says so.
        async Task<JsonElement> Place(string id, JsonElement person, string day)
        {
            var seen = Seen((await _server.Get("/api/v1/weeks")).Body.GetProperty("plan"));
            var (status, answer) = await _server.Post(
                $"/api/v1/weeks/jobs/{id}/place",
                new
                {
                    seen,
                    person,
                    day,
                    from = 12 * 60,
                }
            );
            Assert.Equal(200, status);
            return answer.GetProperty("conflict");
        }
        await house.Plan(12);
        Assert.Equal(JsonValueKind.Null, (await Place("PC-6", help.GetProperty("person"), Day(10))).ValueKind);
        Assert.Equal(
            "It takes two, and nobody else who may do it is free then.",
            (await Place("PC-4", two.GetProperty("person"), Day(10))).GetProperty("template").GetString()
        );
        Assert.Equal(JsonValueKind.Null, (await Place("PC-4", two.GetProperty("person"), Day(11))).ValueKind);
        var moved = Jobs((await _server.Get("/api/v1/weeks")).Body.GetProperty("plan")).Single(j => Id(j) == "PC-4");
        Assert.Equal((two.GetProperty("person").GetString(), Day(11)), Spot(moved));
        Assert.Equal(help.GetProperty("person").GetString(), moved.GetProperty("help").GetProperty("person").GetString());
        await Rule(new { });
        await May("open-cards");
    }

    [Fact]
    public async Task The_way_between_zones_is_kept_and_checked()
    {
        async Task<JsonElement> Way() => (await _server.Get("/api/v1/staff")).Body.GetProperty("walking");
        Assert.Equal(
            (5, 20),
            ((await Way()).GetProperty("withinSite").GetInt32(), (await Way()).GetProperty("betweenSites").GetInt32())
        );
        Assert.Equal(204, (await _server.Put("/api/v1/walking", new { withinSite = 0, betweenSites = 45 })).Status);
        Assert.Equal(45, (await Way()).GetProperty("betweenSites").GetInt32());
        var (status, body) = await _server.Put("/api/v1/walking", new { withinSite = -1 });
        Assert.Equal(400, status);
        Assert.Equal(
            ["/withinSite", "/betweenSites"],
            body.GetProperty("errors").EnumerateArray().Select(e => e.GetProperty("pointer").GetString())
        );
        Assert.Equal(204, (await _server.Put("/api/v1/walking", new { withinSite = 5, betweenSites = 20 })).Status);
    }

    /// <summary>A machine that may be down on weekends only gets its place on one, or says why it has none.</summary>
    [Fact]
    public async Task Rules_of_downtime_hold_for_the_plan_and_for_moves_by_hand()
    {
        await _server.Put(
            "/api/v1/rules",
            new
            {
                scope = "machine",
                key = "PC-5",
                change = new { downHours = "weekends" },
            }
        );
        await _server.Get("/api/v1/queue?wait=20");
        var plan = await house.Plan();
        var job = Jobs(plan).Single(j => Id(j) == "PC-5");
        var day = DateOnly.Parse(job.GetProperty("day").GetString()!, CultureInfo.InvariantCulture);
        Assert.Contains(day.DayOfWeek, (DayOfWeek[])[DayOfWeek.Saturday, DayOfWeek.Sunday]);
        var monday = Enumerable.Range(0, 7).Select(Today.AddDays).First(d => d.DayOfWeek == DayOfWeek.Monday);
        var (_, answer) = await _server.Post(
            "/api/v1/weeks/jobs/PC-5/place",
            new
            {
                seen = Seen(plan),
                person = job.GetProperty("person").GetString(),
                day = monday.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                from = 23 * 60,
                tryOnly = true,
            }
        );
        Assert.Equal("By its rules it may not be down then.", answer.GetProperty("conflict").GetProperty("template").GetString());
        await _server.Put(
            "/api/v1/rules",
            new
            {
                scope = "machine",
                key = "PC-5",
                change = new { },
            }
        );
    }

    public static TheoryData<string, string, string> Wrong =>
        new()
        {
            { "/api/v1/weeks/plan", "{\"start\":\"2020-01-01\"}", "/start" },
            { "/api/v1/weeks/plan", "{\"days\":0}", "/days" },
            { "/api/v1/weeks/plan", "{\"days\":43}", "/days" },
            { "/api/v1/weeks/plan", "{\"seconds\":-1}", "/seconds" },
            { "/api/v1/weeks/jobs", "{\"title\":\"x\"}", "/seen" },
            { "/api/v1/weeks/jobs", "{\"seen\":1,\"title\":\" \"}", "/title" },
            { "/api/v1/weeks/jobs", "{\"seen\":1,\"title\":\"x\",\"minutes\":0}", "/minutes" },
            { "/api/v1/weeks/jobs/PC-1/place", "{\"seen\":1,\"person\":\"mira\"}", "/from" },
            { "/api/v1/weeks/jobs/PC-1/lock", "{\"seen\":1}", "/locked" },
            { "/api/v1/people/mira/absences", "{\"to\":\"2026-12-01\"}", "/from" },
            { "/api/v1/people/mira/absences", "{\"from\":\"2026-12-02\",\"to\":\"2026-12-01\"}", "/to" },
        };

    [Theory, MemberData(nameof(Wrong))]
    public async Task What_is_wrong_is_refused_with_its_place(string path, string body, string pointer)
    {
        var (status, answer) = await _server.Send(path, body);
        Assert.Equal(400, status);
        Assert.Contains(pointer, answer.GetProperty("errors").EnumerateArray().Select(e => e.GetProperty("pointer").GetString()));
    }

    [Fact]
    public async Task People_and_times_are_checked_and_come_back_as_they_were_told()
    {
        var (status, body) = await _server.Put("/api/v1/people/mi%20ra", House.Person(""));
        Assert.Equal(400, status);
        Assert.Equal(
            ["", "/name"],
            body.GetProperty("errors").EnumerateArray().Select(e => e.GetProperty("pointer").GetString())
        );
        object Hours(params (string Day, string From, string To)[] hours) =>
            new
            {
                name = "Ines",
                hours = hours.Select(h => new
                {
                    day = h.Day,
                    from = h.From,
                    to = h.To,
                }),
            };
        Assert.Equal(
            400,
            (await _server.Put("/api/v1/people/ines", Hours(("monday", "08:00", "12:00"), ("monday", "11:00", "13:00")))).Status
        );
        // A night shift from Saturday runs into Sunday's.
        Assert.Equal(
            400,
            (await _server.Put("/api/v1/people/ines", Hours(("saturday", "22:00", "06:00"), ("sunday", "05:00", "07:00")))).Status
        );
        Assert.Equal(400, (await _server.Put("/api/v1/people/ines", Hours(("monday", "8", "12:00")))).Status);
        Assert.Equal(204, (await _server.Put("/api/v1/people/ines", Hours(("sunday", "22:00", "06:00")))).Status);
        var night = (await _server.Get("/api/v1/staff")).Body.GetProperty("people").EnumerateArray().Last().GetProperty("hours")[
            0
        ];
        Assert.Equal(
            ("sunday", "22:00", "06:00"),
            (night.GetProperty("day").GetString(), night.GetProperty("from").GetString(), night.GetProperty("to").GetString())
        );
        await _server.Raw(new HttpRequestMessage(HttpMethod.Delete, "/api/v1/people/ines"));
        Assert.Equal(404, (int)(await _server.Raw(new HttpRequestMessage(HttpMethod.Delete, "/api/v1/people/ines"))).StatusCode);

        var times = new
        {
            setupMinutes = 5,
            maxDown = 2,
            open = new[]
            {
                new
                {
                    day = "tuesday",
                    from = "20:00",
                    to = "06:00",
                },
            },
            closed = new[]
            {
                new
                {
                    from = Day(30),
                    to = Day(31),
                    reason = "exams",
                },
            },
        };
        Assert.Equal(204, (await _server.Put($"/api/v1/zones/{house.Zone}/times", times)).Status);
        var zone = (await _server.Get("/api/v1/staff")).Body.GetProperty("zones")[0];
        Assert.Equal(
            (5, 2, "exams"),
            (
                zone.GetProperty("setupMinutes").GetInt32(),
                zone.GetProperty("maxDown").GetInt32(),
                zone.GetProperty("closed")[0].GetProperty("reason").GetString()
            )
        );
        Assert.Equal(204, (await _server.Put($"/api/v1/zones/{house.Zone}/times", new { setupMinutes = 10 })).Status);
        Assert.Equal(404, (await _server.Put("/api/v1/zones/NOWHERE/times", new { setupMinutes = 10 })).Status);
        Assert.Equal(400, (await _server.Put($"/api/v1/zones/{house.Zone}/times", new { setupMinutes = -1 })).Status);
    }

    [Fact]
    public async Task A_machine_that_waits_for_parts_is_left_out_until_they_come()
    {
        Assert.Equal(204, (await _server.Put("/api/v1/assets/PC-9/hold", new { until = Day(30), reason = "new fan" })).Status);
        await _server.Get("/api/v1/queue?wait=20");
        var left = Assert.Single(Jobs(await house.Plan(), "leftOut"));
        Assert.Equal(("PC-9", "not-before"), (Id(left), left.GetProperty("code").GetString()));
        Assert.Equal(204, (await _server.Put("/api/v1/assets/PC-9/hold", new { until = (string?)null })).Status);
        Assert.Equal(400, (await _server.Put("/api/v1/assets/PC-9/hold", new { until = Day(30), reason = "" })).Status);
        Assert.Empty(Jobs(await house.Plan(), "leftOut"));
    }
}
