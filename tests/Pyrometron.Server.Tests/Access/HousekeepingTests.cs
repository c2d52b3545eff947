using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Pyrometron.Server.Operation;
using Pyrometron.Storage;

namespace Pyrometron.Server.Tests.Access;

/// <summary>The house as whoever keeps it looks after it.</summary>
public sealed class HousekeepingTests : IDisposable
{
    private readonly HouseWithAccounts _house = new();

    public void Dispose() => _house.Dispose();

    [Fact]
    public async Task People_keys_and_browsers_are_counted_as_they_are()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        await _house.Of(keeper, "juno", "technician");
        Assert.Equal(201, (await keeper.Post("/api/v1/accounts/odo", new { name = "Odo Quill", role = "reader" })).Status);
        var soon = DateOnly.FromDateTime(DateTime.UtcNow.AddDays(5));
        Assert.Equal(
            200,
            (
                await keeper.Post(
                    "/api/v1/keys",
                    new
                    {
                        name = "logger",
                        scope = "readings",
                        until = soon,
                    }
                )
            ).Status
        );
        var (status, house) = await keeper.Get("/api/v1/housekeeping");
        Assert.Equal(200, status);
        var people = house.GetProperty("people");
        Assert.Equal(3, people.GetProperty("all").GetInt32());
        Assert.Equal(1, people.GetProperty("waiting").GetInt32());
        Assert.Equal(0, people.GetProperty("shut").GetInt32());
        Assert.Equal(2, people.GetProperty("passwordOnly").GetInt32());
        var keys = house.GetProperty("keys");
        Assert.Equal(1, keys.GetProperty("endSoon").GetInt32());
        Assert.Equal(keys.GetProperty("all").GetInt32(), keys.GetProperty("unused").GetInt32());
        var browsers = house.GetProperty("browsers").EnumerateArray().ToArray();
        Assert.Equal(2, browsers.Length);
        Assert.Equal("mira", Assert.Single(browsers, b => b.GetProperty("here").GetBoolean()).GetProperty("account").GetString());
        Assert.True(house.GetProperty("size").GetProperty("databaseBytes").GetInt64() > 100_000);
        Assert.True(house.GetProperty("freeBytes").GetInt64() > 0);
        Assert.Matches(@"^3\.\d+", house.GetProperty("versions").GetProperty("sqlite").GetString());
    }

    [Fact]
    public async Task One_browser_of_somebody_is_signed_out_and_their_other_stays()
    {
        var keeper = await _house.Keeper();
        var desk = await _house.Of(keeper, "juno", "reader");
        var phone = _house.NewBrowser("10.1.1.1");
        Assert.Equal(200, (await phone.SignIn("juno", HouseWithAccounts.Password)).Status);
        var (_, house) = await keeper.Get("/api/v1/housekeeping");
        var lost = house
            .GetProperty("browsers")
            .EnumerateArray()
            .Single(b => b.GetProperty("address").GetString() == "10.1.1.1")
            .GetProperty("id")
            .GetInt64();
        Assert.Equal(403, (await desk.Delete($"/api/v1/housekeeping/browsers/{lost}")).Status);
        Assert.Equal(204, (await keeper.Delete($"/api/v1/housekeeping/browsers/{lost}")).Status);
        Assert.Equal(401, (await phone.Get("/api/v1/account")).Status);
        Assert.Equal(200, (await desk.Get("/api/v1/account")).Status);
        Assert.Equal(404, (await keeper.Delete($"/api/v1/housekeeping/browsers/{lost}")).Status);
    }

    [Fact]
    public async Task A_name_is_erased_with_the_account_and_what_its_person_did_stays()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var technician = await _house.Of(keeper, "juno", "technician");
        var (begun, job) = await technician.Post("/api/v1/jobs", new { asset = "DT-1", level = "dust-out" });
        Assert.Equal(201, begun);
        Assert.Equal(403, (await technician.Post("/api/v1/housekeeping/names/erase", new { name = "Name of juno" })).Status);
        var (status, erased) = await keeper.Post("/api/v1/housekeeping/names/erase", new { name = "Name of juno" });
        Assert.Equal(200, status);
        Assert.Equal("erased person 1", erased.GetProperty("as").GetString());
        // Signed out, gone from the lists, and nowhere in what the house says.
        Assert.Equal(401, (await technician.Get("/api/v1/account")).Status);
        var (_, accounts) = await keeper.Get("/api/v1/accounts");
        Assert.Equal("mira", Assert.Single(accounts.GetProperty("accounts").EnumerateArray()).GetProperty("account").GetString());
        foreach (var path in (string[])["/api/v1/audit", "/api/v1/log", "/api/v1/housekeeping/names"])
        {
            var (_, answer) = await keeper.Get(path);
            Assert.DoesNotContain("Name of juno", answer.GetRawText(), StringComparison.Ordinal);
        }
        // The job is there, by a number; the chain holds and goes on.
        var (_, kept) = await keeper.Get($"/api/v1/jobs/{job.GetProperty("id").GetInt64()}");
        Assert.Equal("dust-out", kept.GetProperty("level").GetString());
        var (_, chain) = await keeper.Get("/api/v1/audit/chain");
        Assert.Equal(JsonValueKind.Null, chain.GetProperty("firstBroken").ValueKind);
        var (_, log) = await keeper.Get("/api/v1/audit?text=erased");
        Assert.Contains("The name of a person was erased", log.GetRawText(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Nobody_erases_themselves_a_stranger_or_an_empty_name()
    {
        var keeper = await _house.Keeper();
        Assert.Equal(409, (await keeper.Post("/api/v1/housekeeping/names/erase", new { name = "Mira Larkspur" })).Status);
        Assert.Equal(404, (await keeper.Post("/api/v1/housekeeping/names/erase", new { name = "Nobody" })).Status);
        Assert.Equal(400, (await keeper.Post("/api/v1/housekeeping/names/erase", new { name = "" })).Status);
        Assert.Equal(400, (await keeper.Post("/api/v1/housekeeping/names/erase", new { })).Status);
    }

    [Fact]
    public void Of_each_day_its_last_size_is_kept()
    {
        var (database, sizes) = (_house.Services.GetRequiredService<Database>(), _house.Services.GetRequiredService<SizeStore>());
        void Note(int day) =>
            database.Write(Actor.Program, DateTimeOffset.UtcNow, t => SizeStore.Note(t, new DateOnly(2026, 1, day)));
        Note(1);
        Note(2);
        Note(2);
        Assert.Equal([1, 2], sizes.Days().Where(d => d.Day.Year == 2026 && d.Day.Month == 1).Select(d => d.Day.Day));
    }

    [Fact]
    public void A_bill_of_materials_is_read_as_the_build_writes_it_and_may_be_missing()
    {
        var file = Path.GetTempFileName();
        File.WriteAllText(
            file,
            """
            {"components": [
              {"type": "library", "name": "whelk", "version": "2.0",
               "licenses": [{"license": {"name": "own", "text": {"content": "As told."}}}]},
              {"type": "framework", "name": "Brine", "version": "1.0", "copyright": "Odo",
               "licenses": [{"license": {"id": "MIT", "text": {"content": "Permission"}}}]}
            ]}
            """
        );
        Assert.Equal(
            [
                new PackageAnswer("Brine", "1.0", "framework", "MIT", "Odo", "Permission"),
                new PackageAnswer("whelk", "2.0", "library", "own", null, "As told."),
            ],
            BillOfMaterials.Read(file)!
        );
        File.Delete(file);
        Assert.Null(BillOfMaterials.Read(file));
    }
}
