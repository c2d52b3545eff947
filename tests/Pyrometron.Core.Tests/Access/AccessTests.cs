using Pyrometron.Core.Access;

namespace Pyrometron.Core.Tests.Access;

/// <summary>Names, roles, and the pace of mistakes.</summary>
public sealed class AccessTests
{
    [Theory]
    [InlineData("mira", true)]
    [InlineData("m.larkspur-2", true)]
    [InlineData("Mira", false)]
    [InlineData("mirа", false)] // The last letter is Cyrillic.
    [InlineData("2mira", false)]
    [InlineData("", false)]
    [InlineData(null, false)]
    [InlineData("a b", false)]
    [InlineData("../x", false)]
    public void Sign_in_names_are_plain_letters(string? code, bool taken) =>
        Assert.Equal(taken, AccountNames.RefuseCode(code) is null);

    [Theory]
    [InlineData("Mira Larkspur", true)]
    [InlineData("عائشة", true)]
    [InlineData("Ольга", true)]
    [InlineData("क\u094d\u200dष", true)]
    [InlineData("Mira\u202eyraM", false)]
    [InlineData("Mira\u200b", false)]
    [InlineData("Mira\nLarkspur", false)]
    [InlineData("\u2066Mira\u2069", false)]
    [InlineData("   ", false)]
    [InlineData("Zo\u00eb", true)]
    [InlineData("Zoe\u0308", false)]
    public void Names_of_any_script_without_what_cannot_be_seen(string name, bool taken) =>
        Assert.Equal(taken, AccountNames.RefuseName(name) is null);

    [Theory]
    [InlineData("Mira", "MIRA ")]
    [InlineData("Ｍｉｒａ", "Mira")]
    [InlineData("Mira  Larkspur", "mira larkspur")]
    public void Names_that_read_alike_are_one(string one, string other) =>
        Assert.Equal(AccountNames.Alike(one), AccountNames.Alike(other));

    [Fact]
    public void Each_role_may_what_the_one_before_may_and_an_owner_stands_apart()
    {
        Role[] rising = [Role.Reader, Role.Technician, Role.Planner, Role.Keeper, Role.Administrator];
        for (var i = 1; i < rising.Length; i++)
            Assert.ProperSuperset(Roles.RightsOf(rising[i - 1]).ToHashSet(), Roles.RightsOf(rising[i]).ToHashSet());
        Assert.Equal([Right.LookAtOwn], Roles.RightsOf(Role.Owner));
        Assert.DoesNotContain(Roles.RightsOf(Role.Keeper), r => r == Right.KeepHouse);
    }

    [Fact]
    public void Nobody_is_anybody_by_default()
    {
        Assert.Empty(new Actor(ActorKind.Person, "Mira").Rights.Each);
        var suspended = new Account(1, "mira", "Mira", Role.Administrator, [], [], Suspended: true);
        Assert.Empty(suspended.Actor.Rights.Each);
    }

    [Fact]
    public void Sites_bound_what_may_be_changed()
    {
        Assert.True(Rights.Of(Role.Technician, []).Reach("ANY"));
        var two = Rights.Of(Role.Technician, ["QUAY", "COVE"]);
        Assert.True(two.Reach("COVE"));
        Assert.False(two.Reach("ANY"));
    }

    [Fact]
    public void Mistakes_slow_and_never_lock()
    {
        Assert.Equal(TimeSpan.Zero, SignInPace.Wait(0));
        Assert.Equal(TimeSpan.Zero, SignInPace.Wait(SignInPace.Free));
        Assert.Equal(2, SignInPace.Wait(SignInPace.Free + 1).TotalSeconds);
        for (var n = 1; n < 60; n++)
            Assert.InRange(SignInPace.Wait(n), SignInPace.Wait(n - 1), TimeSpan.FromMinutes(15));
        Assert.Equal(TimeSpan.FromMinutes(15), SignInPace.Wait(int.MaxValue));
        // What a patient guesser gets through in a day from one place.
        var (tried, passed) = (0, TimeSpan.Zero);
        while (passed < TimeSpan.FromDays(1))
            passed += SignInPace.Wait(++tried);
        Assert.InRange(tried, 50, 120);
    }
}
