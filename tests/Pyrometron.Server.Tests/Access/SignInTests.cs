using Microsoft.Extensions.DependencyInjection;
using OtpNet;
using Pyrometron.Application.Access;
using Pyrometron.Server.Access;
using Pyrometron.Storage;

namespace Pyrometron.Server.Tests.Access;

/// <summary>Coming in, staying in, going out.</summary>
public sealed class SignInTests : IDisposable
{
    private readonly HouseWithAccounts _house = new();

    public void Dispose() => _house.Dispose();

    [Fact]
    public async Task The_first_link_makes_an_administrator_once()
    {
        var browser = _house.NewBrowser();
        var (_, before) = await browser.Get("/api/v1/session");
        Assert.True(before.GetProperty("needsFirst").GetBoolean());
        Assert.Equal(401, (await browser.Get("/api/v1/queue")).Status);
        object Request(string link, string password) =>
            new
            {
                link,
                password,
                account = "mira",
                name = "Mira",
            };
        Assert.Equal(409, (await browser.Post("/api/v1/session/enter", Request("forged", HouseWithAccounts.Password))).Status);
        Assert.Equal(409, (await browser.Post("/api/v1/session/enter", Request(_house.First.Token, "short"))).Status);
        var (status, session) = await browser.Post(
            "/api/v1/session/enter",
            Request(_house.First.Token, HouseWithAccounts.Password)
        );
        Assert.Equal(200, status);
        Assert.Contains("keep-house", session.GetProperty("rights").EnumerateArray().Select(r => r.GetString()));
        Assert.Equal(200, (await browser.Get("/api/v1/queue")).Status);
        // Used, it leads nowhere.
        var other = _house.NewBrowser();
        Assert.Equal(
            409,
            (await other.Post("/api/v1/session/enter", Request(_house.First.Token, "another one that is long"))).Status
        );
        Assert.Equal(404, (await other.Post("/api/v1/session/link", new { link = _house.First.Token })).Status);
    }

    /// <summary>Somebody was added by command before anybody had come in.</summary>
    [Fact]
    public async Task The_first_account_cannot_have_the_name_of_one_that_waits()
    {
        var waiting = new Account(0, "mira", "Mira Larkspur", Role.Reader, [], [], Suspended: false);
        _house.Services.GetRequiredService<AccountUseCases>().Add(Actor.Program, waiting);
        object Request(string account) =>
            new
            {
                link = _house.First.Token,
                password = HouseWithAccounts.Password,
                account,
                name = "MIRA LARKSPUR",
            };
        Assert.Equal(409, (await _house.NewBrowser().Post("/api/v1/session/enter", Request("someone"))).Status);
        Assert.Equal(200, (await _house.NewBrowser().Post("/api/v1/session/enter", Request("mira"))).Status);
    }

    [Fact]
    public async Task A_link_lets_its_person_in_once_and_a_new_one_ends_it()
    {
        var keeper = await _house.Keeper();
        var (_, first) = await keeper.Post("/api/v1/accounts/juno", new { name = "Juno", role = "technician" });
        var (_, second) = await keeper.Post("/api/v1/accounts/juno/link", new { });
        var browser = _house.NewBrowser();
        object Enter(System.Text.Json.JsonElement link, string password) =>
            new { link = HouseWithAccounts.TokenOf(link), password };
        Assert.Equal(404, (await browser.Post("/api/v1/session/link", new { link = HouseWithAccounts.TokenOf(first) })).Status);
        var (_, whose) = await browser.Post("/api/v1/session/link", new { link = HouseWithAccounts.TokenOf(second) });
        Assert.Equal("juno", whose.GetProperty("account").GetString());
        Assert.Equal(409, (await browser.Post("/api/v1/session/enter", Enter(first, HouseWithAccounts.Password))).Status);
        Assert.Equal(200, (await browser.Post("/api/v1/session/enter", Enter(second, HouseWithAccounts.Password))).Status);
        Assert.Equal(
            409,
            (await _house.NewBrowser().Post("/api/v1/session/enter", Enter(second, "taken over by a thief"))).Status
        );
        Assert.Equal(200, (await _house.NewBrowser().SignIn("JUNO ", HouseWithAccounts.Password)).Status);
    }

    [Fact]
    public async Task Cookies_are_for_this_server_alone_and_out_of_reach_of_scripts()
    {
        var browser = _house.NewBrowser();
        using var answer = await browser.Client.PostAsync(
            new Uri("/api/v1/session/enter", UriKind.Relative),
            System.Net.Http.Json.JsonContent.Create(
                new
                {
                    link = _house.First.Token,
                    password = HouseWithAccounts.Password,
                    account = "mira",
                    name = "Mira",
                }
            )
        );
        // RFC 6265bis, 4.1.3.2: the prefix binds it to this host, to HTTPS and to the path /.
        foreach (var cookie in answer.Headers.GetValues("Set-Cookie"))
        {
            Assert.StartsWith("__Host-", cookie);
            Assert.Contains("path=/", cookie);
            Assert.Contains("secure", cookie);
            Assert.Contains("httponly", cookie);
            Assert.Contains("samesite=strict", cookie);
            Assert.DoesNotContain("domain", cookie);
        }
        using var data = await browser.Client.GetAsync(new Uri("/api/v1/account", UriKind.Relative));
        Assert.True(data.Headers.CacheControl!.NoStore);
    }

    [Fact]
    public async Task Out_is_out_here_elsewhere_and_everywhere()
    {
        var keeper = await _house.Keeper();
        var (phone, desk) = (_house.NewBrowser(), _house.NewBrowser());
        Assert.Equal(200, (await phone.SignIn("mira", HouseWithAccounts.Password)).Status);
        Assert.Equal(200, (await desk.SignIn("mira", HouseWithAccounts.Password)).Status);
        var (_, own) = await keeper.Get("/api/v1/account");
        var browsers = own.GetProperty("browsers").EnumerateArray().ToArray();
        Assert.Equal(3, browsers.Length);
        Assert.Single(browsers, b => b.GetProperty("here").GetBoolean());
        // The lost phone.
        var (_, seen) = await phone.Get("/api/v1/account");
        var lost = seen.GetProperty("browsers").EnumerateArray().Single(b => b.GetProperty("here").GetBoolean());
        Assert.Equal(204, (await keeper.Delete($"/api/v1/account/browsers/{lost.GetProperty("id").GetInt64()}")).Status);
        Assert.Equal(401, (await phone.Get("/api/v1/queue")).Status);
        Assert.Equal(200, (await desk.Get("/api/v1/queue")).Status);
        Assert.Equal(204, (await keeper.Post("/api/v1/account/browsers/end-others", new { })).Status);
        Assert.Equal(401, (await desk.Get("/api/v1/queue")).Status);
        Assert.Equal(204, (await keeper.Delete("/api/v1/session")).Status);
        Assert.Equal(401, (await keeper.Get("/api/v1/queue")).Status);
    }

    [Fact]
    public async Task A_changed_password_signs_all_other_browsers_out()
    {
        var keeper = await _house.Keeper();
        var other = _house.NewBrowser();
        await other.SignIn("mira", HouseWithAccounts.Password);
        const string next = "nine gannets over slack water";
        Assert.Equal(
            409,
            (await keeper.Put("/api/v1/account/password", new { old = "not this one at all", @new = next })).Status
        );
        Assert.Equal(
            409,
            (await keeper.Put("/api/v1/account/password", new { old = HouseWithAccounts.Password, @new = "mira" })).Status
        );
        Assert.Equal(
            204,
            (await keeper.Put("/api/v1/account/password", new { old = HouseWithAccounts.Password, @new = next })).Status
        );
        Assert.Equal(200, (await keeper.Get("/api/v1/account")).Status);
        Assert.Equal(401, (await other.Get("/api/v1/account")).Status);
        Assert.Equal(401, (await other.SignIn("mira", HouseWithAccounts.Password)).Status);
        Assert.Equal(200, (await other.SignIn("mira", next)).Status);
    }

    /// <summary>Else whoever finds a browser that is signed in could guess the password there as fast as it is hashed.</summary>
    [Fact]
    public async Task The_password_that_is_asked_for_again_is_guessed_no_faster()
    {
        var keeper = await _house.Keeper();
        for (var i = 0; i <= SignInPace.Free; i++)
            Assert.Equal(
                409,
                (await keeper.Post("/api/v1/account/codes", new { password = "a guess that is long enough" })).Status
            );
        var (status, body) = await keeper.Post("/api/v1/account/codes", new { password = HouseWithAccounts.Password });
        Assert.Equal(409, status);
        Assert.Contains("After several mistakes", body.GetProperty("detail").GetString()!, StringComparison.Ordinal);
    }

    /// <summary>Without it the cookie would go on naming the session of whoever was there before.</summary>
    [Fact]
    public async Task A_browser_is_one_persons_at_a_time()
    {
        var keeper = await _house.Keeper();
        var (_, link) = await keeper.Post("/api/v1/accounts/juno", new { name = "Juno", role = "reader" });
        var enter = new { link = HouseWithAccounts.TokenOf(link), password = HouseWithAccounts.Password };
        var (status, body) = await keeper.Post("/api/v1/session/enter", enter);
        Assert.Equal(409, status);
        Assert.StartsWith("Mira Larkspur is signed in", body.GetProperty("detail").GetString());
        await keeper.Delete("/api/v1/session");
        Assert.Equal(200, (await keeper.Post("/api/v1/session/enter", enter)).Status);
        var (_, now) = await keeper.Get("/api/v1/session");
        Assert.Equal("juno", now.GetProperty("account").GetString());
    }

    [Fact]
    public async Task Mistakes_slow_a_stranger_and_not_a_browser_that_is_known()
    {
        var known = await _house.Keeper();
        var stranger = _house.NewBrowser();
        for (var i = 0; i <= SignInPace.Free; i++)
        {
            var (wrong, body) = await stranger.SignIn("mira", "a guess that is long enough");
            Assert.Equal((401, "Name or password is not right."), (wrong, body.GetProperty("detail").GetString()));
        }
        using var slowed = await stranger.Client.PostAsync(
            new Uri("/api/v1/session", UriKind.Relative),
            System.Net.Http.Json.JsonContent.Create(new { account = "mira", password = HouseWithAccounts.Password })
        );
        Assert.Equal(429, (int)slowed.StatusCode);
        Assert.InRange(slowed.Headers.RetryAfter!.Delta!.Value.TotalSeconds, 1, 2);
        Assert.Equal(409, (await known.SignIn("mira", HouseWithAccounts.Password)).Status);
        await known.Delete("/api/v1/session");
        Assert.Equal(200, (await known.SignIn("mira", HouseWithAccounts.Password)).Status);
    }

    [Fact]
    public async Task A_name_that_nobody_has_is_refused_in_the_same_words()
    {
        await _house.Keeper();
        var (status, body) = await _house.NewBrowser().SignIn("nobody", "a guess that is long enough");
        Assert.Equal((401, "Name or password is not right."), (status, body.GetProperty("detail").GetString()));
    }

    [Fact]
    public async Task One_time_codes_are_asked_for_count_once_and_can_be_recovered_from()
    {
        var keeper = await _house.Keeper();
        Assert.Equal(409, (await keeper.Post("/api/v1/account/codes", new { password = "wrong wrong wrong" })).Status);
        var (_, offer) = await keeper.Post("/api/v1/account/codes", new { password = HouseWithAccounts.Password });
        var secret = Base32Encoding.ToBytes(offer.GetProperty("secret").GetString());
        Assert.Equal(20, secret.Length);
        // Offered alone it is not asked for.
        Assert.Equal(200, (await _house.NewBrowser().SignIn("mira", HouseWithAccounts.Password)).Status);
        var totp = new Totp(secret);
        var begun = totp.ComputeTotp();
        var (status, recovery) = await keeper.Post("/api/v1/account/codes/begin", new { code = begun });
        Assert.Equal(200, status);
        var codes = recovery.GetProperty("codes").EnumerateArray().Select(c => c.GetString()!).ToArray();
        // So many that nobody can try them all: 31 letters, 24 of them.
        Assert.All(codes, c => Assert.Matches("^([a-hjkmnp-z2-9]{4}-){5}[a-hjkmnp-z2-9]{4}$", c));
        Assert.Equal(10, codes.Distinct().Count());
        var browser = _house.NewBrowser();
        var (needs, asked) = await browser.SignIn("mira", HouseWithAccounts.Password);
        Assert.Equal((401, "code"), (needs, asked.GetProperty("needs").GetString()));
        Assert.Equal(401, (await browser.SignIn("mira", HouseWithAccounts.Password, begun)).Status);
        Assert.Equal(200, (await browser.SignIn("mira", HouseWithAccounts.Password, codes[3].ToUpperInvariant())).Status);
        await browser.Delete("/api/v1/session");
        Assert.Equal(401, (await browser.SignIn("mira", HouseWithAccounts.Password, codes[3])).Status);
        // The next step's code is within the window.
        var next = totp.ComputeTotp(DateTime.UtcNow.AddSeconds(30));
        Assert.Equal(200, (await browser.SignIn("mira", HouseWithAccounts.Password, next)).Status);
        var (_, own) = await browser.Get("/api/v1/account");
        Assert.Equal(9, own.GetProperty("recoveryCodes").GetInt32());
        Assert.Equal(
            204,
            (await browser.Post("/api/v1/account/codes/end", new { password = HouseWithAccounts.Password })).Status
        );
        Assert.Equal(200, (await _house.NewBrowser().SignIn("mira", HouseWithAccounts.Password)).Status);
    }

    /// <summary>RFC 6238, appendix B: SHA-1, the last six of its eight digits.</summary>
    [Theory]
    [InlineData(59, "287082")]
    [InlineData(1111111109, "081804")]
    [InlineData(1111111111, "050471")]
    [InlineData(1234567890, "005924")]
    [InlineData(2000000000, "279037")]
    public void Codes_are_those_of_the_standard(long unix, string code)
    {
        var secret = Base32Encoding.ToString("12345678901234567890"u8.ToArray());
        var at = DateTimeOffset.FromUnixTimeSeconds(unix);
        Assert.Equal(unix / 30, OneTimeCodes.StepOf(secret, code, at));
        Assert.Equal(unix / 30, OneTimeCodes.StepOf(secret, code, at.AddSeconds(30)));
        Assert.Null(OneTimeCodes.StepOf(secret, code, at.AddSeconds(90)));
        Assert.Null(OneTimeCodes.StepOf(secret, "12345", at));
    }

    [Fact]
    public async Task Who_signed_in_and_who_was_refused_is_on_record_and_no_secret_is()
    {
        var keeper = await _house.Keeper();
        await _house.NewBrowser().SignIn("mira", "a guess that is long enough");
        await _house.NewBrowser().SignIn("a password in the wrong field", "mira");
        var (_, log) = await keeper.Get("/api/v1/audit?kinds=sign-in,account");
        var said = log.GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("says").GetString()!).ToArray();
        Assert.Contains(said, s => s.StartsWith("Sign-in refused: mira", StringComparison.Ordinal));
        Assert.Contains(said, s => s.StartsWith("mira signed in", StringComparison.Ordinal));
        Assert.DoesNotContain(said, s => s.Contains("wrong field", StringComparison.Ordinal));
        var file = await File.ReadAllBytesAsync(_house.Services.GetRequiredService<Database>().Path);
        Assert.Equal(-1, file.AsSpan().IndexOf(System.Text.Encoding.UTF8.GetBytes(HouseWithAccounts.Password)));
        Assert.Null(_house.Services.GetRequiredService<AuditStore>().Follow(CancellationToken.None).FirstBroken);
    }

    [Fact]
    public void The_platform_itself_can_read_what_is_kept_of_a_password()
    {
        var hashes = new PasswordHashes();
        var hash = hashes.Hash(HouseWithAccounts.Password);
        var theirs = new Microsoft.AspNetCore.Identity.PasswordHasher<string>();
        Assert.NotEqual(
            Microsoft.AspNetCore.Identity.PasswordVerificationResult.Failed,
            theirs.VerifyHashedPassword("", hash, HouseWithAccounts.Password)
        );
        Assert.Equal(PasswordMatch.Right, hashes.Verify(hash, HouseWithAccounts.Password));
        // Theirs takes fewer rounds: it is right, and to be written anew.
        Assert.Equal(
            PasswordMatch.RightButOld,
            hashes.Verify(theirs.HashPassword("", "slack water at noon"), "slack water at noon")
        );
        Assert.Equal(PasswordMatch.Wrong, hashes.Verify(hash, "\ud800"));
        Assert.Equal(PasswordMatch.Wrong, hashes.Verify(hash, new string('x', 100_000)));
    }

    [Theory]
    [InlineData("passwordpassword", true)]
    [InlineData("qwertyuiop", true)]
    [InlineData("kelp lantern tide rope", false)]
    public void Common_passwords_are_known(string password, bool common) =>
        Assert.Equal(common, new PasswordHashes().IsCommon(password));
}
